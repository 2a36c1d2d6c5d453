package nocking.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** A process that does one command, as the launcher starts it. */
final class CommandProcess {
  private CommandProcess() {}

  public static void main(String[] arguments) {
    System.exit(
        NockingCli.execute(
            new PrintWriter(System.out, true, StandardCharsets.UTF_8),
            new PrintWriter(System.err, true, StandardCharsets.UTF_8),
            arguments));
  }

  static ProcessBuilder of(Path folder, String... arguments) {
    return of(CommandProcess.class, folder, arguments);
  }

  /** A process of another kind, with the same class path. */
  static ProcessBuilder of(Class<?> main, Path folder, String... arguments) {
    var words =
        new ArrayList<>(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-XX:+UseSerialGC",
                "-Dorg.sqlite.tmpdir=" + folder,
                "-cp",
                System.getProperty("java.class.path"),
                main.getName()));
    words.addAll(List.of(arguments));
    return new ProcessBuilder(words).directory(folder.toFile());
  }
}
