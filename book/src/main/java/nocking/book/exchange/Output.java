package nocking.book.exchange;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.UUID;
import nocking.book.BookException;
import nocking.book.BookException.Cause;
import nocking.book.FileTrouble;
import nocking.book.internal.PartFile;

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
   * Asked before the first of several files is written, so that all are written or none.
   *
   * @throws BookException when a file of that name is there already
   */
  public static void requireFree(Path target) {
    if (Files.isRegularFile(target)) {
      throw new BookException(
          Cause.OUTSIDE, target + " exists already; it is replaced only with --force");
    }
  }

  /**
   * @param force true to replace an existing file
   * @throws BookException when the file exists or cannot be written
   */
  public static void write(Path target, byte[] bytes, boolean force) {
    if (Files.isDirectory(target)) {
      throw new BookException(Cause.OUTSIDE, target + " is a folder; a file name is wanted");
    }
    boolean exists = Files.exists(target);
    // A terminal or a pipe is written to, not replaced.
    boolean device = exists && !Files.isRegularFile(target);
    if (!force) requireFree(target);
    Path part = null;
    try {
      if (device) {
        Files.write(target, bytes);
        return;
      }
      // Where a link leads to is replaced, not the link.
      Path place = exists ? target.toRealPath() : target.toAbsolutePath();
      // Made like any other file: one of the temporary kind could be read by its owner alone.
      part = place.resolveSibling(".nocking-" + UUID.randomUUID() + ".part");
      Files.write(part, bytes, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
      if (force) Files.move(part, place, StandardCopyOption.REPLACE_EXISTING);
      else Files.move(part, place);
    } catch (FileAlreadyExistsException e) {
      throw new BookException(Cause.OUTSIDE, target + " exists already", e);
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE,
          "%s cannot be written: %s".formatted(target, FileTrouble.why(target, e)),
          e);
    } finally {
      PartFile.discard(part);
    }
  }
}
