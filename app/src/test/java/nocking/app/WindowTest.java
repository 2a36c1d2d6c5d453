package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.stream.IntStream;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.TableCell;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.stage.Stage;
import nocking.analysis.Analysis;
import nocking.app.desk.Background;
import nocking.app.desk.BookStore;
import nocking.app.desk.Desk;
import nocking.app.desk.Store;
import nocking.app.shell.Shell;
import nocking.app.step.Files;
import nocking.app.theme.Theme;
import nocking.book.BookFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.demo.Hatchery;
import nocking.view.Trouble;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.TestInfo;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxToolkit;

/** A real window on a real book file, on the platform that needs no display. */
abstract class WindowTest {
  private static boolean themed;

  @TempDir Path folder;
  Desk desk;
  Hands hands;
  Shell shell;
  private Stage stage;
  final Deque<Path> chosen = new ArrayDeque<>();

  /** What reached the interface thread, or ended a background job, and should not have. */
  private static final List<Throwable> UNEXPECTED = new CopyOnWriteArrayList<>();

  /** What other tests have made fail on purpose is none of this one's. */
  @BeforeEach
  void nothingUnexpectedYet() {
    UNEXPECTED.clear();
  }

  @BeforeAll
  static void toolkit() throws Exception {
    FxToolkit.registerPrimaryStage();
    Hands.ask(
        () -> {
          Thread.currentThread().setUncaughtExceptionHandler((t, e) -> UNEXPECTED.add(e));
          return null;
        });
    if (!themed) {
      Hands.ask(
          () -> {
            Theme.install();
            return null;
          });
      themed = true;
    }
  }

  /** File dialogs that answer with what the test has laid out. */
  private final class LaidOut implements Files {
    @Override
    public Optional<Path> toOpen(String kind, String... endings) {
      return Optional.ofNullable(chosen.poll());
    }

    @Override
    public Optional<Path> toSave(String kind, String suggestedName, String ending) {
      return Optional.ofNullable(chosen.poll());
    }
  }

  /** Books open for real; the demo goes into the test's folder. */
  private final class TestBooks implements Shell.Books {
    @Override
    public void open(Path file) {
      desk.open(store(file));
    }

    @Override
    public void openDemo() {
      desk.open(store(DemoBook.at(folder.resolve("demo.nocking"))));
    }
  }

  Path book() {
    return folder.resolve("bench.nocking");
  }

  BookStore store(Path file) {
    return new BookStore(
        BookFile.open(file, Clock.systemUTC()),
        folder.resolve("state"),
        Clock.systemUTC(),
        () -> Platform.runLater(() -> desk.storeChanged()));
  }

  /** Opens a window on a book with these channels. */
  void open(Book document) {
    try (BookFile file = BookFile.open(book(), Clock.systemUTC())) {
      if (!document.channels().isEmpty()) file.saveAll(document.channels(), "given");
      if (!document.cards().isEmpty()) file.saveCards(document.cards(), "given");
      if (!document.stock().isEmpty()) file.saveStock(document.stock(), "given");
      if (!document.shapes().isEmpty()) file.saveShapes(document.shapes(), "given");
      if (!document.instruments().isEmpty()) file.saveInstruments(document.instruments(), "given");
      file.saveWeighing(document.priorWeights(), "given");
    }
    open(store(book()));
  }

  void open(Store store) {
    shell =
        Hands.ask(
            () -> {
              desk = new Desk(store);
              stage = new Stage();
              var s = new Shell(desk, new LaidOut(), new TestBooks(), 1280, 800);
              stage.setScene(s.scene());
              Turns.watch(s.scene());
              stage.show();
              return s;
            });
    hands = new Hands(shell.scene());
    Hands.settle();
  }

  @AfterEach
  void close(TestInfo test) {
    if (stage == null) return;
    List<Trouble> troubles =
        Hands.ask(
            () -> {
              stage.hide();
              Turns.report(
                  test.getTestClass().orElseThrow().getSimpleName() + "." + test.getDisplayName());
              List<Trouble> all =
                  desk.book().channels().stream()
                      .flatMap(c -> desk.analysis(c).troubles().stream())
                      .toList();
              desk.store().close();
              return all;
            });
    List<Throwable> unexpected = List.copyOf(UNEXPECTED);
    UNEXPECTED.clear();
    assertThat(unexpected).isEmpty();
    assertThat(troubles).isEmpty();
    assertThat(desk.message()).doesNotContain("could not be shown");
  }

  /** Opens the demo book at a channel and a stage. */
  void openDemo(String tag, WorkStep step) {
    open(Hatchery.book(Hatchery.SEED));
    hands.run(
        () -> {
          desk.select(desk.book().byTag(tag).orElseThrow().id());
          desk.step(step);
        });
    settled();
  }

  /** Waits until nothing is under way, in the window or behind it. */
  static void settled() {
    do {
      Hands.settle();
    } while (!Background.idle());
    Hands.settle();
  }

  TableView<?> table(String id) {
    return (TableView<?>) shell.scene().lookup("#" + id);
  }

  /** Puts the keyboard into a cell of a grid. */
  void into(String grid, int row, int column) {
    hands.run(
        () -> {
          TableView<?> t = table(grid);
          t.requestFocus();
          t.getSelectionModel().clearAndSelect(row);
          focus(t, row, column);
        });
  }

  private static <T> void focus(TableView<T> t, int row, int column) {
    t.getFocusModel().focus(row, t.getColumns().get(column));
  }

  /** Puts text on the system's clipboard. */
  void clipboard(String text) {
    hands.run(
        () -> {
          var content = new ClipboardContent();
          content.putString(text);
          Clipboard.getSystemClipboard().setContent(content);
        });
  }

  Channel channel() {
    return Hands.ask(() -> desk.channel().orElseThrow());
  }

  Analysis analysis() {
    return Hands.ask(() -> desk.analysis());
  }

  void select(String grid, int row) {
    hands.run(() -> table(grid).getSelectionModel().clearAndSelect(row));
  }

  @SuppressWarnings("unchecked")
  <T> void choose(String box, T value) {
    hands.run(() -> ((ComboBox<T>) shell.scene().lookup("#" + box)).setValue(value));
    settled();
  }

  List<String> column(String grid, int column) {
    return Hands.ask(
        () -> {
          TableView<?> t = (TableView<?>) shell.scene().lookup("#" + grid);
          return IntStream.range(0, t.getItems().size()).mapToObj(i -> cell(t, i, column)).toList();
        });
  }

  private static <T> String cell(TableView<T> t, int row, int column) {
    for (Node n : t.lookupAll(".table-cell")) {
      var c = (TableCell<?, ?>) n;
      if (c.getTableRow() != null
          && c.getTableRow().getIndex() == row
          && t.getColumns().indexOf(c.getTableColumn()) == column) return c.getText();
    }
    return "";
  }

  String text(String id) {
    return Hands.ask(
        () -> {
          var n = shell.scene().lookup("#" + id);
          return n instanceof TextField f ? f.getText() : ((Labeled) n).getText();
        });
  }

  /** What the labels of a kind say. */
  List<String> shown(String selector) {
    return Hands.ask(
        () ->
            shell.scene().getRoot().lookupAll(selector).stream()
                .filter(Label.class::isInstance)
                .map(n -> ((Label) n).getText())
                .toList());
  }

  String message() {
    return Hands.ask(() -> ((Label) shell.scene().lookup("#message")).getText());
  }

  boolean wrong(String id) {
    return Hands.ask(() -> shell.scene().lookup("#" + id).getStyleClass().contains("wrong"));
  }

  /** The book as a later program would find it. */
  Book onDisk() {
    Hands.ask(
        () -> {
          desk.store().flush();
          return null;
        });
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      assertThat(file.problems()).isEmpty();
      return file.read();
    }
  }
}
