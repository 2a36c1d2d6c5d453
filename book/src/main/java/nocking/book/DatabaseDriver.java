package nocking.book;

import java.io.IOException;
import java.net.URL;
import java.nio.file.Path;
import org.sqlite.util.LibraryLoaderUtil;

/**
 * The native library of the database. The driver would unpack it anew at every start and leave it
 * behind when the process is killed; here it is unpacked once for each version and shared by all
 * windows and commands that run at once.
 */
public final class DatabaseDriver {
  private DatabaseDriver() {}

  /**
   * Unpacks the library, unless it is there, and points the driver to it. Where that fails the
   * driver helps itself as it usually does.
   *
   * @param home of all native libraries
   */
  public static void unpackInto(Path home) {
    String name = LibraryLoaderUtil.getNativeLibName();
    URL library =
        LibraryLoaderUtil.class.getResource(
            LibraryLoaderUtil.getNativeLibResourcePath() + "/" + name);
    if (library == null) return;
    try {
      System.setProperty("org.sqlite.lib.path", NativeLibrary.unpacked(library, home).toString());
      System.setProperty("org.sqlite.lib.name", name);
    } catch (IOException e) {
      System.clearProperty("org.sqlite.lib.path");
    }
  }
}
