package nocking.bench.instrument;

import com.fazecast.jSerialComm.SerialPort;
import java.io.IOException;
import java.net.URL;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;

/**
 * The native library of serial lines. Left alone it is looked for, and found, in a folder of the
 * machine's temporary one that anybody may write to; whatever lies there would be loaded.
 */
public final class SerialDriver {
  /** Puts a library into a folder that is its owner's alone. */
  public interface Unpacking {
    /**
     * @param library as it is shipped
     * @return the folder in which it lies under the last part of its name
     */
    Path folderOf(URL library) throws IOException;
  }

  /** Folders of the library by the machine's own words for systems and processors. */
  private static final Map<String, String> SYSTEMS =
      Map.of(
          "linux",
          "Linux/%s/libjSerialComm.so",
          "windows",
          "Windows/%s/jSerialComm.dll",
          "mac",
          "OSX/%s/libjSerialComm.jnilib");

  private static Unpacking unpacking;
  private static boolean ready;

  private SerialDriver() {}

  /** Says once, before the first line is opened, who unpacks the library. */
  public static synchronized void unpackWith(Unpacking u) {
    unpacking = u;
  }

  /** Before anything of the library is touched. */
  static synchronized void require() {
    if (ready) return;
    ready = true;
    // Nobody can have put anything where this points to.
    System.setProperty("fazecast.jSerialComm.appid", UUID.randomUUID().toString());
    Optional<URL> library = library();
    if (unpacking == null || library.isEmpty()) return;
    try {
      System.setProperty("jSerialComm.library.path", unpacking.folderOf(library.get()).toString());
    } catch (IOException e) {
      // The library then unpacks itself, into the folder of that name.
    }
  }

  private static Optional<URL> library() {
    String system = System.getProperty("os.name", "").toLowerCase(Locale.ROOT);
    String processor = System.getProperty("os.arch", "").toLowerCase(Locale.ROOT);
    boolean arm = processor.equals("aarch64");
    if (!arm && !processor.equals("amd64") && !processor.equals("x86_64")) return Optional.empty();
    return SYSTEMS.entrySet().stream()
        .filter(s -> system.startsWith(s.getKey()))
        .map(
            s ->
                s.getValue()
                    .formatted(
                        !arm ? "x86_64" : s.getKey().equals("linux") ? "armv8_64" : "aarch64"))
        // The class is named, not begun with: that would load the library already.
        .map(name -> SerialPort.class.getResource("/" + name))
        .filter(u -> u != null)
        .findFirst();
  }
}
