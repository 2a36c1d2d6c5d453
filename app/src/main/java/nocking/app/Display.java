package nocking.app;

import java.lang.foreign.Arena;
import java.lang.foreign.SymbolLookup;
import java.util.Locale;
import java.util.Optional;

/** Whether a window can be opened here at all. */
final class Display {
  private static final String GTK = "libgtk-3.so.0";

  private Display() {}

  /** Why no window can be opened, in one sentence; empty when one can. */
  @SuppressWarnings("restricted") // Loading the library is the one sure way to know it is there.
  static Optional<String> missing() {
    if (!System.getProperty("os.name").toLowerCase(Locale.ROOT).contains("linux")) {
      return Optional.empty();
    }
    if (isUnset("DISPLAY") && isUnset("WAYLAND_DISPLAY")) {
      return Optional.of("There is no display here (DISPLAY and WAYLAND_DISPLAY are not set).");
    }
    try (Arena arena = Arena.ofConfined()) {
      SymbolLookup.libraryLookup(GTK, arena);
      return Optional.empty();
    } catch (IllegalArgumentException e) {
      return Optional.of("The desktop library " + GTK + " is not installed.");
    }
  }

  /** The display that would be used. */
  static String name() {
    return isUnset("DISPLAY") ? System.getenv("WAYLAND_DISPLAY") : System.getenv("DISPLAY");
  }

  private static boolean isUnset(String variable) {
    String v = System.getenv(variable);
    return v == null || v.isBlank();
  }

  /** Uses JavaFX's built-in platform without a display; before the toolkit starts. */
  static void goOffscreen() {
    System.setProperty("glass.platform", "Headless");
    System.setProperty("prism.order", "sw");
    System.setProperty("prism.lcdtext", "false");
  }
}
