package nocking.book;

import java.io.IOException;
import java.net.URL;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import java.util.zip.CRC32C;

/**
 * A native library that is shipped inside another file and has to lie in a folder to be loaded. It
 * is unpacked once for each version, whole or not at all, where nobody but its owner can put
 * anything, and is used only when it is the very one that was shipped.
 */
public final class NativeLibrary {
  private static final Duration LEFTOVER = Duration.ofDays(1);

  private NativeLibrary() {}

  /**
   * @param library as it is shipped
   * @param home of all such libraries
   * @return the folder in which it lies under the last part of its name
   * @throws IOException when it cannot be unpacked, or the folder is not its owner's alone
   */
  public static Path unpacked(URL library, Path home) throws IOException {
    byte[] bytes;
    try (var in = library.openStream()) {
      bytes = in.readAllBytes();
    }
    String path = library.getPath();
    var sum = new CRC32C();
    sum.update(bytes);
    Path folder = home.resolve("%08x-%d".formatted(sum.getValue(), bytes.length));
    makePrivate(home);
    makePrivate(folder);
    Path file = folder.resolve(path.substring(path.lastIndexOf('/') + 1));
    if (!holds(file, bytes)) put(bytes, file);
    discardLeftovers(folder, file);
    return folder;
  }

  /**
   * What a process is made of lies where nobody but its owner can put anything.
   *
   * @throws IOException where that cannot be had
   */
  private static void makePrivate(Path folder) throws IOException {
    Files.createDirectories(folder);
    var view =
        Files.getFileAttributeView(folder, PosixFileAttributeView.class, LinkOption.NOFOLLOW_LINKS);
    if (view == null) return;
    if (!Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS)) {
      throw new FileSystemException(folder.toString(), null, "it is a link");
    }
    view.setPermissions(PosixFilePermissions.fromString("rwx------"));
  }

  /** What is there is used only when it is the very library, byte by byte. */
  private static boolean holds(Path file, byte[] bytes) throws IOException {
    return Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)
        && Files.size(file) == bytes.length
        && Arrays.equals(Files.readAllBytes(file), bytes);
  }

  /** Written beside its place and moved there: others meet the whole library or none. */
  private static void put(byte[] bytes, Path file) throws IOException {
    Path part = file.resolveSibling(UUID.randomUUID() + ".part");
    try {
      Files.write(part, bytes);
      Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
    } finally {
      Files.deleteIfExists(part);
    }
  }

  /** What was left here by processes that were killed goes, once it is surely nobody's any more. */
  private static void discardLeftovers(Path folder, Path library) throws IOException {
    FileTime old = FileTime.from(Instant.now().minus(LEFTOVER));
    List<Path> left;
    try (var files = Files.list(folder)) {
      left = files.filter(f -> Files.isRegularFile(f, LinkOption.NOFOLLOW_LINKS)).toList();
    }
    for (Path f : left) {
      boolean own = f.equals(library);
      if (!own && Files.getLastModifiedTime(f).compareTo(old) < 0) Files.deleteIfExists(f);
    }
  }
}
