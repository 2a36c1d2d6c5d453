package nocking.book;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import nocking.channel.Channel;

/**
 * A process that opens a book, adds a channel where it may, and says in one line how that went: how
 * many channels it found, why it could not write, or the sentence of a refusal.
 */
final class OpeningProcess {
  private OpeningProcess() {}

  public static void main(String[] arguments) {
    if (arguments.length > 2) DatabaseDriver.unpackInto(Path.of(arguments[2]));
    try (BookFile book = BookFile.open(Path.of(arguments[0]), Clock.systemUTC())) {
      if (book.writable()) {
        book.save(Channel.blank(arguments[1], arguments[1]), "from a process");
        System.out.println("written, " + book.read().channels().size());
      } else {
        System.out.println(book.readOnlyBecause());
      }
    } catch (BookException e) {
      System.out.println(e.kind() + ": " + e.getMessage());
    }
  }

  /** Starts it; its output is what it says. */
  static Process start(Path book, String channel, Path... driverFolder) throws IOException {
    var command =
        new ArrayList<>(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-XX:TieredStopAtLevel=1",
                "-XX:+UseSerialGC",
                "-Dorg.sqlite.tmpdir=" + book.toAbsolutePath().getParent(),
                "-cp",
                System.getProperty("java.class.path"),
                OpeningProcess.class.getName(),
                book.toString(),
                channel));
    for (Path f : driverFolder) command.add(f.toString());
    return new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD).start();
  }

  /** What a process said, all of it. */
  static String said(Process process) throws IOException {
    try (var out = process.inputReader()) {
      return String.join("\n", out.lines().toList());
    }
  }
}
