package nocking.app;

import java.nio.file.Path;
import java.time.Clock;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.stage.Stage;
import nocking.app.desk.BookStore;
import nocking.app.desk.Desk;
import nocking.app.shell.Shell;
import nocking.app.theme.Theme;
import nocking.book.BookException;
import nocking.book.BookFile;
import nocking.channel.DocumentException;
import nocking.cli.NockingCli;
import nocking.quantity.PlainText;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The window on a bench book. */
public final class DesktopApp extends Application {
  private static final Logger LOG = LoggerFactory.getLogger(DesktopApp.class);

  private static Opening opening;
  private static WindowPlace place;
  private static volatile Desk desk;

  /** Opens the window on a book and comes back when it is closed. */
  static void open(Path book) {
    // The toolkit makes its own object of this class: what is under way is kept beside it.
    opening = new Opening(book, () -> tell(desk));
    try {
      Application.launch(DesktopApp.class);
    } catch (UnsupportedOperationException e) {
      // A display that is named but does not answer: a screen that is off, another machine's.
      System.err.println(
          "nocking: The display %s cannot be opened. Try: nocking demo --pictures, or nocking --help."
              .formatted(PlainText.line(Display.name())));
      Main.exitCode = NockingCli.OUTSIDE;
    }
  }

  @Override
  public void start(Stage stage) {
    Theme.install();
    Thread.currentThread().setUncaughtExceptionHandler((thread, e) -> unexpected(e));
    try {
      Opening.Opened opened = opening.await();
      desk = new Desk(opened.store());
      desk.settings(opened.settings());
      if (opened.first() != null) desk.know(opened.first());
    } catch (BookException | DocumentException e) {
      System.err.println("nocking: " + PlainText.line(e.getMessage()) + ".");
      Main.exitCode =
          e instanceof BookException b && b.kind() == BookException.Cause.OUTSIDE ? 4 : 3;
      Platform.runLater(Platform::exit);
      return;
    }
    var shell = new Shell(desk, new DesktopFiles(stage), new OpenBooks(), -1, -1);
    stage.setTitle("Nocking");
    stage.setScene(shell.scene());
    place = WindowPlace.of(stage, desk.settings());
    stage.show();
    desk.sayOfOpening();
  }

  /** What nobody thought of is in the log, and one sentence in the window. */
  private void unexpected(Throwable e) {
    LOG.error("the window met something unexpected", e);
    if (desk == null) return;
    desk.say(
        "Something went wrong that should not have; the work is kept. Details are in the log.",
        true);
  }

  /**
   * A store for a book file.
   *
   * @param news called from another thread when the store has something to say
   */
  static BookStore store(Path file, Runnable news) {
    return new BookStore(
        BookFile.open(file, Clock.systemUTC()), Folders.state(), Clock.systemDefaultZone(), news);
  }

  /** Tells a desk on the interface thread that its store has news. */
  static void tell(Desk desk) {
    if (desk != null) Platform.runLater(desk::storeChanged);
  }

  private final class OpenBooks implements Shell.Books {
    @Override
    public void open(Path file) {
      if (desk.store() instanceof BookStore b && same(file, b.path())) {
        desk.say("%s is open already.".formatted(file.getFileName()), false);
        return;
      }
      desk.open(store(file, () -> tell(desk)));
    }

    private static boolean same(Path a, Path b) {
      return a.toAbsolutePath().normalize().equals(b.toAbsolutePath().normalize());
    }

    @Override
    public void openDemo() {
      open(DemoBook.fresh());
    }
  }

  @Override
  public void stop() {
    if (place != null) place.keep();
    if (desk != null) desk.store().close();
    DemoBook.discard();
  }
}
