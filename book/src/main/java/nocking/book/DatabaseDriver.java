package nocking.book;

import java.io.IOException;
import java.net.URL;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import java.util.zip.CRC32C;
import org.sqlite.util.LibraryLoaderUtil;

/**
 * The native library of the database. The driver would unpack it anew at every start and leave it
 * behind when the process is killed; here it is unpacked once for each version, whole or not at
 * all, and shared by all windows and commands that run at once.
 */
public final class DatabaseDriver {
  private static final Duration LEFTOVER = Duration.ofDays(1);

  private DatabaseDriver() {}

  /**
   * Unpacks the library into a folder of its own, unless it is there, and points the driver to it.
   * Where that fails the driver helps itself as it usually does.
   */
  public static void unpackInto(Path folder) {
    String name = LibraryLoaderUtil.getNativeLibName();
    URL library =
        LibraryLoaderUtil.class.getResource(
            LibraryLoaderUtil.getNativeLibResourcePath() + "/" + name);
    if (library == null) return;
    try (var in = library.openStream()) {
      byte[] bytes = in.readAllBytes();
      var sum = new CRC32C();
      sum.update(bytes);
      Path home = folder.resolve("sqlite-%08x".formatted(sum.getValue()));
      Files.createDirectories(home);
      Path file = home.resolve(name);
      if (!Files.exists(file) || Files.size(file) != bytes.length) put(bytes, file);
      System.setProperty("org.sqlite.lib.path", home.toString());
      System.setProperty("org.sqlite.lib.name", name);
      discardLeftovers(folder);
    } catch (IOException e) {
      System.clearProperty("org.sqlite.lib.path");
    }
  }

  /** Written beside its place and moved there: others meet the whole library or none. */
  private static void put(byte[] bytes, Path file) throws IOException {
    Path part = file.resolveSibling(UUID.randomUUID() + ".part");
    try {
      Files.write(part, bytes);
      Files.move(part, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    } finally {
      Files.deleteIfExists(part);
    }
  }

  /** What was left here by processes that were killed goes, once it is surely nobody's any more. */
  private static void discardLeftovers(Path folder) throws IOException {
    FileTime old = FileTime.from(Instant.now().minus(LEFTOVER));
    List<Path> left;
    try (var files = Files.list(folder)) {
      left = files.filter(Files::isRegularFile).toList();
    }
    for (Path f : left) {
      if (Files.getLastModifiedTime(f).compareTo(old) < 0) Files.deleteIfExists(f);
    }
  }
}
