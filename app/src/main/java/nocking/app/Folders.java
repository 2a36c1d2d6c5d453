package nocking.app;

import java.nio.file.Path;
import java.util.Optional;

/** Where the application keeps what is its own (XDG Base Directory Specification 0.8). */
public final class Folders {
  private Folders() {}

  /** Log file and rescue copies. */
  public static Path state() {
    return base("XDG_STATE_HOME", ".local/state").resolve("nocking");
  }

  /** The bench book that opens when none is named. */
  public static Path defaultBook() {
    return base("XDG_DATA_HOME", ".local/share").resolve("nocking").resolve("bench.nocking");
  }

  private static Path base(String variable, String underHome) {
    return Optional.ofNullable(System.getenv(variable))
        .filter(v -> !v.isBlank())
        .map(Path::of)
        .orElse(Path.of(System.getProperty("user.home"), underHome));
  }
}
