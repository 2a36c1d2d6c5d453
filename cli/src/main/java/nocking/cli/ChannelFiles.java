package nocking.cli;

import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import nocking.book.BookException;
import nocking.book.BookException.Cause;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.DocumentException;

/** Reading channels from files and books, with messages that name the file. */
final class ChannelFiles {
  private ChannelFiles() {}

  static Channel channel(Path file) {
    return ChannelJson.readChannel(text(file), file.getFileName().toString());
  }

  static Book book(Path file) {
    return ChannelJson.readAny(text(file), file.getFileName().toString());
  }

  /** Channel with a tag. */
  static Channel find(Book book, String tag, Path file) {
    return book.byTag(tag)
        .orElseThrow(
            () ->
                new DocumentException(
                    "%s has no channel '%s'; it has %s"
                        .formatted(
                            file,
                            tag,
                            book.channels().isEmpty()
                                ? "none"
                                : String.join(
                                    ", ", book.channels().stream().map(Channel::tag).toList()))));
  }

  private static String text(Path file) {
    try {
      return Files.readString(file);
    } catch (NoSuchFileException e) {
      throw new DocumentException(file + " does not exist", e);
    } catch (CharacterCodingException e) {
      throw new DocumentException(file + " is not text: expected JSON in UTF-8", e);
    } catch (IOException e) {
      if (Files.isDirectory(file)) throw new DocumentException(file + " is a folder", e);
      throw new BookException(Cause.OUTSIDE, file + " cannot be read: " + e.getMessage(), e);
    }
  }
}
