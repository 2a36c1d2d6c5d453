package nocking.app;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Where the application keeps what is its own (XDG Base Directory Specification 0.8). */
public final class Folders {
  private static final Folders HERE = new Folders(System.getenv(), System.getProperty("user.home"));

  private final Map<String, String> environment;
  private final String userHome;

  /**
   * @param environment of the session
   * @param userHome what the system knows of where this person is at home
   */
  Folders(Map<String, String> environment, String userHome) {
    this.environment = environment;
    this.userHome = userHome;
  }

  /** Log file and rescue copies. */
  public static Path state() {
    return HERE.stateFolder();
  }

  /** The bench book that opens when none is named. */
  public static Path defaultBook() {
    return HERE.book();
  }

  Path stateFolder() {
    return base("XDG_STATE_HOME", ".local/state").resolve("nocking");
  }

  Path book() {
    return base("XDG_DATA_HOME", ".local/share").resolve("nocking").resolve("bench.nocking");
  }

  /** A path that begins where someone happens to stand is none (as above, "Basics"). */
  private Path base(String variable, String underHome) {
    return said(variable).filter(Path::isAbsolute).orElseGet(() -> home().resolve(underHome));
  }

  private Optional<Path> said(String variable) {
    return Optional.ofNullable(environment.get(variable)).filter(v -> !v.isBlank()).map(Path::of);
  }

  /** What the session says, else what the system knows; without a home a folder for the moment. */
  private Path home() {
    return said("HOME")
        .filter(Path::isAbsolute)
        .or(() -> Optional.of(Path.of(userHome)).filter(Path::isAbsolute))
        .orElseGet(() -> Moment.FOLDER);
  }

  /** Made when it is asked for, under a name that nobody can foresee. */
  private static final class Moment {
    static final Path FOLDER = make();

    private static Path make() {
      try {
        return Files.createTempDirectory("nocking");
      } catch (IOException e) {
        return Path.of(System.getProperty("java.io.tmpdir")).toAbsolutePath();
      }
    }
  }

  /** What is said of folders that were asked for and are not used; empty for nothing. */
  static Optional<String> refused() {
    return HERE.leftAside();
  }

  Optional<String> leftAside() {
    for (String variable : List.of("XDG_STATE_HOME", "XDG_DATA_HOME")) {
      Optional<Path> path = said(variable).filter(p -> !p.isAbsolute());
      if (path.isPresent()) {
        return Optional.of(
            "%s is '%s', which is no absolute path and is left aside."
                .formatted(variable, path.get()));
      }
    }
    return Optional.empty();
  }

  /** Makes the folder of what is this person's alone: remarks and rescued work lie in it. */
  static void makeState() {
    Path state = state();
    try {
      Files.createDirectories(state.getParent());
      boolean posix = state.getFileSystem().supportedFileAttributeViews().contains("posix");
      if (!posix) Files.createDirectory(state);
      else {
        Files.createDirectory(
            state,
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
      }
    } catch (FileAlreadyExistsException e) {
      // Whoever made it has chosen its mode.
    } catch (IOException e) {
      // Without it everything works but the log, and a rescue says that it failed.
    }
  }
}
