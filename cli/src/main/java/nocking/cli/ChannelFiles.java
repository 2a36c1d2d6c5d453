package nocking.cli;

import java.nio.file.Path;
import java.util.Optional;
import nocking.analysis.Analysis;
import nocking.book.exchange.TextFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.DocumentException;
import nocking.quantity.QuantityException;

/** Reading channels from files and books, with messages that name the file. */
final class ChannelFiles {
  private ChannelFiles() {}

  static Channel channel(Path file) {
    return ChannelJson.readChannel(text(file), file.getFileName().toString());
  }

  /**
   * Refuses a channel of which something cannot be worked out, with the reason.
   *
   * @param part what the command needs of the analysis; empty without a path
   */
  static <T> T required(Analysis analysis, Optional<T> part) {
    return part.orElseThrow(
        () ->
            new QuantityException(
                "%s: %s".formatted(analysis.channel().tag(), analysis.whyNoCircuit())));
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

  static String text(Path file) {
    return TextFile.read(file);
  }
}
