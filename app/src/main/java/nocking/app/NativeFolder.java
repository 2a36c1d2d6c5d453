package nocking.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/**
 * Where the database driver unpacks its native library. A process that is killed leaves its copy
 * behind; a later start takes such leftovers away, so that crashes do not fill the disk.
 */
final class NativeFolder {
  private NativeFolder() {}

  /**
   * Points the driver to a folder of its own; without one it falls back to the temporary folder.
   */
  static void prepare(Path folder) {
    try {
      Files.createDirectories(folder);
      try (var files = Files.list(folder)) {
        List<Path> left = files.toList();
        // A library in use survives this: the system keeps a mapped file, or refuses to delete it.
        for (Path f : left) discard(f);
      }
      System.setProperty("org.sqlite.tmpdir", folder.toString());
    } catch (IOException e) {
      System.clearProperty("org.sqlite.tmpdir");
    }
  }

  private static void discard(Path file) {
    try {
      Files.deleteIfExists(file);
    } catch (IOException e) {
      file.toFile().deleteOnExit();
    }
  }
}
