package nocking.book.exchange;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.Map;
import nocking.book.BookException;
import nocking.book.BookException.Cause;
import nocking.book.FileTrouble;
import nocking.book.internal.WholeFile;

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
   * @param force true to replace an existing file, which keeps its mode and owner
   * @throws BookException when the file exists or cannot be written
   */
  public static void write(Path target, byte[] bytes, boolean force) {
    writeAll(Map.of(target, bytes), force);
  }

  /**
   * Writes several files that belong together. Each is written beside its place first; only when
   * all of them stand there is the first one put into it.
   *
   * @param force true to replace existing files
   * @throws BookException when one exists or cannot be written; then none was put into its place,
   *     unless the disk failed in between
   */
  public static void writeAll(Map<Path, byte[]> files, boolean force) {
    var whole = new LinkedHashMap<Path, WholeFile>();
    try {
      files.forEach(
          (target, bytes) -> {
            requirePossible(target, force);
            if (isDevice(target)) return;
            try {
              WholeFile f = begin(target);
              whole.put(target, f);
              f.write(bytes);
            } catch (IOException e) {
              throw failed(target, e);
            }
          });
      files.forEach((target, bytes) -> put(target, bytes, whole.get(target)));
    } finally {
      whole.values().forEach(WholeFile::close);
    }
  }

  /**
   * Writes a file that others than its owner may not read, over one that is there.
   *
   * @throws BookException when it cannot be written
   */
  public static void writeForOwner(Path target, String text) {
    requirePossible(target, true);
    try (WholeFile f =
        Files.exists(target) ? WholeFile.inPlaceOf(target) : WholeFile.anewForOwner(target)) {
      f.write(text.getBytes(StandardCharsets.UTF_8));
      f.put();
    } catch (IOException e) {
      throw failed(target, e);
    }
  }

  /**
   * Refuses a target that is one of the files that were read: with it what was asked about would be
   * gone.
   *
   * @throws BookException naming it
   */
  public static void requireNotRead(Path target, Collection<Path> read) {
    for (Path r : read) {
      if (same(target, r)) {
        throw new BookException(
            Cause.OUTSIDE,
            "%s is what was read; it is not written over, give another name".formatted(target));
      }
    }
  }

  private static boolean same(Path a, Path b) {
    try {
      return Files.isRegularFile(a) && Files.isRegularFile(b) && Files.isSameFile(a, b);
    } catch (IOException e) {
      return a.toAbsolutePath().normalize().equals(b.toAbsolutePath().normalize());
    }
  }

  /** A terminal or a pipe is written to, not replaced. */
  private static boolean isDevice(Path target) {
    return Files.exists(target) && !Files.isRegularFile(target) && !Files.isDirectory(target);
  }

  private static void requirePossible(Path target, boolean force) {
    if (Files.isDirectory(target)) {
      throw new BookException(Cause.OUTSIDE, target + " is a folder; a file name is wanted");
    }
    if (Files.isRegularFile(target) && !force) {
      throw new BookException(
          Cause.OUTSIDE, target + " exists already; it is replaced only with --force");
    }
    if (Files.isSymbolicLink(target) && !Files.exists(target)) {
      throw new BookException(
          Cause.OUTSIDE, target + " is a link that leads nowhere; give the file itself");
    }
  }

  /** Where a link leads to is replaced, not the link. */
  private static WholeFile begin(Path target) throws IOException {
    return Files.exists(target, LinkOption.NOFOLLOW_LINKS)
        ? WholeFile.inPlaceOf(target.toRealPath())
        : WholeFile.anew(target.toAbsolutePath());
  }

  private static void put(Path target, byte[] bytes, WholeFile whole) {
    try {
      if (whole == null) Files.write(target, bytes);
      else whole.put();
    } catch (IOException e) {
      throw failed(target, e);
    }
  }

  private static BookException failed(Path target, IOException e) {
    String sentence =
        e instanceof FileAlreadyExistsException
            ? target + " exists already"
            : "%s cannot be written: %s".formatted(target, FileTrouble.why(target, e));
    return new BookException(Cause.OUTSIDE, sentence, e);
  }
}
