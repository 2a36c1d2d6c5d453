package nocking.app;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import nocking.bench.instrument.SerialDriver;
import nocking.book.BookFile;
import nocking.book.DatabaseDriver;
import nocking.book.FileTrouble;
import nocking.book.NativeLibrary;
import nocking.cli.NockingCli;
import nocking.quantity.PlainText;

/** Where everything starts: the window, or a command. */
public final class Main {
  /** Set by the window when it could not open. */
  static volatile int exitCode;

  private Main() {}

  public static void main(String[] arguments) {
    System.setProperty("java.awt.headless", "true");
    Folders.makeState();
    if (System.getProperty("nocking.log") == null) {
      System.setProperty("nocking.log", Folders.state().resolve("nocking.log").toString());
    }
    Path libraries = Folders.state().resolve("native");
    DatabaseDriver.unpackInto(libraries);
    SerialDriver.unpackWith(library -> NativeLibrary.unpacked(library, libraries));
    var out = new PrintWriter(System.out, true, StandardCharsets.UTF_8);
    var err = new PrintWriter(System.err, true, StandardCharsets.UTF_8);
    Folders.refused().ifPresent(r -> err.println("nocking: " + PlainText.line(r)));
    System.exit(run(out, err, arguments));
  }

  private static int run(PrintWriter out, PrintWriter err, String[] arguments) {
    if (arguments.length == 0) return window(err, Folders.defaultBook(), true);
    if (arguments.length == 1 && arguments[0].endsWith(BookFile.ENDING)) {
      return window(err, Path.of(arguments[0]), false);
    }
    return NockingCli.execute(out, err, new DemoCommand(), arguments);
  }

  private static int window(PrintWriter err, Path book, boolean own) {
    if (!own && !Files.exists(book)) {
      err.println("nocking: " + PlainText.line(book.toString()) + " does not exist.");
      return NockingCli.BAD_INPUT;
    }
    Optional<String> missing = Display.missing();
    if (missing.isPresent()) {
      err.println("nocking: " + missing.get() + " Try: nocking demo, or nocking --help.");
      return NockingCli.OUTSIDE;
    }
    if (own) {
      try {
        Files.createDirectories(book.toAbsolutePath().getParent());
      } catch (IOException e) {
        err.println(
            PlainText.line(
                "nocking: %s cannot be made: %s."
                    .formatted(book.getParent(), FileTrouble.why(book.getParent(), e))));
        return NockingCli.OUTSIDE;
      }
    }
    return openWindow(book);
  }

  /** Opens the window on a book and comes back when it is closed. */
  static int openWindow(Path book) {
    System.setProperty("prism.lcdtext", "false");
    DesktopApp.open(book);
    return exitCode;
  }
}
