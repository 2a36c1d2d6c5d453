package nocking.app;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import nocking.book.BookException;
import nocking.book.BookException.Cause;
import nocking.demo.Hatchery;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Opens the application with the demo book, or shows the demo without a display. */
@Command(
    name = "demo",
    description = "Open the application with the demo book, a fresh copy unless --book is given.")
final class DemoCommand implements Callable<Integer> {
  @Spec CommandSpec spec;

  @Option(names = "--book", paramLabel = "FILE", description = "Keep the demo book there.")
  Path book;

  @Option(
      names = "--pictures",
      paramLabel = "DIR",
      description = "Write a picture of every main view; needs no display.")
  Path pictures;

  @Override
  public Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    if (book != null) DemoBook.at(book);
    if (pictures != null) {
      draw(out, pictures);
      return 0;
    }
    Optional<String> missing = Display.missing();
    if (missing.isEmpty()) {
      Path file = book == null ? DemoBook.fresh() : book;
      int code = Main.openWindow(file);
      // A window that could not open takes nothing away itself.
      DemoBook.discard();
      return code;
    }
    spec.commandLine().getErr().println("nocking: " + missing.get() + " The demo runs offscreen.");
    spec.commandLine().getErr().flush();
    DemoReport.print(Hatchery.book(Hatchery.SEED), out);
    draw(out, temporary());
    return 0;
  }

  private static void draw(PrintWriter out, Path folder) {
    Display.goOffscreen();
    List<Path> written = Pictures.write(folder);
    out.printf("%d pictures in %s%n", written.size(), folder);
    out.flush();
  }

  private static Path temporary() {
    try {
      return Files.createTempDirectory("nocking-pictures");
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE, "the temporary folder cannot be written: " + e.getMessage(), e);
    }
  }
}
