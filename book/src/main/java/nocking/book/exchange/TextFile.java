package nocking.book.exchange;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import nocking.book.BookException;
import nocking.book.BookException.Cause;
import nocking.book.FileTrouble;

/** Text from a file of somebody's: whole, in UTF-8, and with an end. */
public final class TextFile {
  private static final int LARGEST_MEGABYTES = 64;
  private static final int LARGEST = LARGEST_MEGABYTES << 20;

  private TextFile() {}

  /**
   * The text without the mark that some editors put before it (U+FEFF).
   *
   * @throws BookException one sentence: it is missing, no file, no text, larger than 64 MB, or
   *     cannot be read
   */
  public static String read(Path file) {
    try {
      if (Files.isDirectory(file)) throw bad(file + " is a folder, not a file");
      // A device may have no end, and a pipe nobody who writes.
      if (Files.exists(file) && !Files.isRegularFile(file)) {
        throw bad(file + " is a pipe or a device; save what it holds as a file");
      }
      byte[] bytes;
      try (var in = Files.newInputStream(file)) {
        bytes = in.readNBytes(LARGEST + 1);
      }
      if (bytes.length > LARGEST) {
        throw bad(
            "%s is larger than %d MB, which is the most that is read"
                .formatted(file, LARGEST_MEGABYTES));
      }
      String text = StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
      return text.startsWith("\uFEFF") ? text.substring(1) : text;
    } catch (NoSuchFileException e) {
      throw bad(file + " does not exist");
    } catch (CharacterCodingException e) {
      throw bad(file + " is not text in UTF-8");
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE, "%s cannot be read: %s".formatted(file, FileTrouble.why(file, e)), e);
    }
  }

  private static BookException bad(String sentence) {
    return new BookException(Cause.BAD_INPUT, sentence);
  }
}
