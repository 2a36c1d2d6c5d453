package nocking.book.exchange;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import nocking.book.BookException;
import nocking.book.BookException.Cause;

/** Writing files whole or not at all, and never over an existing one by accident. */
public final class Output {
  private Output() {}

  /**
   * @param force true to replace an existing file
   * @throws BookException when the file exists or cannot be written
   */
  public static void write(Path target, String text, boolean force) {
    write(target, text.getBytes(StandardCharsets.UTF_8), force);
  }

  /**
   * @param force true to replace an existing file
   * @throws BookException when the file exists or cannot be written
   */
  public static void write(Path target, byte[] bytes, boolean force) {
    if (Files.exists(target) && !force) {
      throw new BookException(
          Cause.OUTSIDE, target + " exists already; it is replaced only with --force");
    }
    Path folder = target.toAbsolutePath().getParent();
    Path part = null;
    try {
      part = Files.createTempFile(folder, ".nocking-", ".part");
      Files.write(part, bytes);
      if (force) Files.move(part, target, StandardCopyOption.REPLACE_EXISTING);
      else Files.move(part, target);
    } catch (FileAlreadyExistsException e) {
      throw new BookException(Cause.OUTSIDE, target + " exists already", e);
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE,
          "%s cannot be written: the folder does not exist or cannot be written".formatted(target),
          e);
    } finally {
      discard(part);
    }
  }

  private static void discard(Path part) {
    if (part == null) return;
    try {
      Files.deleteIfExists(part);
    } catch (IOException e) {
      // A leftover part file is harmless, and the target is already right or already reported.
    }
  }
}
