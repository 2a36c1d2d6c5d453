package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import nocking.app.control.Column;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.PlotView;
import nocking.app.control.Segments;
import nocking.app.theme.Theme;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.report.plot.Axis;
import nocking.report.plot.Plot;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxToolkit;

/** Every control works alone: it gets its data and gives back what was typed. */
class ControlsTest {
  private Stage stage;
  private Scene scene;
  private Hands hands;

  @BeforeAll
  static void toolkit() throws Exception {
    FxToolkit.registerPrimaryStage();
    Hands.ask(
        () -> {
          Theme.install();
          return null;
        });
  }

  private void show(Parent root) {
    scene =
        Hands.ask(
            () -> {
              stage = new Stage();
              var s = new Scene(root, 500, 320);
              Theme.apply(s);
              stage.setScene(s);
              stage.show();
              return s;
            });
    hands = new Hands(scene);
    Hands.settle();
  }

  @AfterEach
  void close() {
    Hands.ask(
        () -> {
          stage.hide();
          return null;
        });
  }

  private String field(String id) {
    return Hands.ask(() -> ((TextField) scene.lookup("#" + id)).getText());
  }

  @Test
  void entryTakesEveryGoodKeystrokeAndKeepsTheLastGoodValue() {
    var taken = new ArrayList<Double>();
    EntryField entry =
        Hands.ask(
            () ->
                new EntryField(
                    "ohms",
                    "Resistor",
                    true,
                    t -> taken.add(QuantityParser.value(t, Unit.OHM)),
                    () -> taken.add(-1.0)));
    var other = Hands.ask(() -> new TextField());
    show(Hands.ask(() -> new VBox(entry, other)));
    hands.run(() -> entry.show("10k", "Ω"));
    assertThat(field("ohms")).isEqualTo("10k");
    hands.fill("ohms", "4k7x");
    assertThat(taken).containsExactly(4.0, 4000.0, 4700.0);
    assertThat(Hands.<Boolean>ask(entry::wrong)).isTrue();
    hands.run(other::requestFocus);
    assertThat(taken).as("leaving the field ends the run of edits").endsWith(-1.0);
    assertThat(field("ohms")).as("no keystroke is lost").isEqualTo("4k7x");
    hands.click("ohms").press(KeyCode.ESCAPE);
    assertThat(field("ohms")).isEqualTo("4k7");
    hands.run(() -> entry.show("22k", "Ω"));
    assertThat(field("ohms")).as("a change from outside, such as undo, is shown").isEqualTo("22k");
  }

  @Test
  void entryForWordsIsTakenWhenDone() {
    var taken = new ArrayList<String>();
    EntryField entry =
        Hands.ask(() -> new EntryField("word", "Unit", false, taken::add, () -> {}).whenDone());
    var other = Hands.ask(() -> new TextField());
    show(Hands.ask(() -> new VBox(entry, other)));
    hands.fill("word", "psi");
    assertThat(taken).isEmpty();
    hands.press(KeyCode.ENTER);
    assertThat(taken).containsExactly("psi");
    hands.fill("word", "bar");
    hands.run(other::requestFocus);
    assertThat(taken).containsExactly("psi", "bar");
  }

  /** A grid over a list of texts; the second column refuses anything but numbers. */
  private Grid grid(List<String[]> rows) {
    return Hands.ask(
        () ->
            new Grid(
                    "grid",
                    "nothing here",
                    List.of(
                        Column.shown("row", 40, true, i -> String.valueOf(i + 1)),
                        Column.typed(
                                "name",
                                120,
                                false,
                                i -> rows.get(i)[0],
                                (i, t) -> rows.get(i)[0] = t)
                            .fromWidth(300),
                        Column.typed(
                            "value",
                            120,
                            true,
                            i -> rows.get(i)[1],
                            (i, t) -> {
                              QuantityParser.value(t, Unit.ONE);
                              rows.get(i)[1] = t;
                            })),
                    i -> false)
                .onDelete(i -> rows.remove(i) != null)
                .onPaste(
                    (row, column, block) -> {
                      if (block.contains("bad")) throw new QuantityException("the block is bad");
                      rows.get(row)[column - 1] = block;
                    }));
  }

  private static List<String[]> rows() {
    return new ArrayList<>(
        List.of(new String[] {"a", "1"}, new String[] {"b", "2"}, new String[] {"c", "3"}));
  }

  private void select(int row, int column) {
    hands.run(
        () -> {
          @SuppressWarnings("unchecked")
          var t = (TableView<Integer>) scene.lookup("#grid");
          t.requestFocus();
          t.getSelectionModel().clearAndSelect(row);
          t.getFocusModel().focus(row, t.getColumns().get(column));
        });
  }

  private String reason() {
    return Hands.ask(
        () ->
            scene.getRoot().lookupAll(".text-fail").stream()
                .filter(n -> n instanceof Label)
                .map(n -> ((Label) n).getText())
                .findFirst()
                .orElse(""));
  }

  @Test
  void gridIsTypedThroughLikeASpreadsheet() {
    List<String[]> rows = rows();
    Grid grid = grid(rows);
    show(grid);
    hands.run(() -> grid.show(rows.size()));
    select(0, 1);
    hands.type("first").press(KeyCode.TAB).type("10").press(KeyCode.TAB);
    hands.type("second").press(KeyCode.ENTER);
    assertThat(rows.get(0)).containsExactly("first", "10");
    assertThat(rows.get(1)[0]).as("Tab goes on in the next row").isEqualTo("second");
    assertThat(Hands.<Integer>ask(grid::selectedRow)).as("Enter goes down").isEqualTo(2);
    hands.press(KeyCode.F2).type("!").press(KeyCode.ESCAPE);
    assertThat(rows.get(2)[0]).as("Escape leaves the cell as it was").isEqualTo("c");
    select(1, 1);
    hands.press(KeyCode.DELETE);
    assertThat(rows).hasSize(2);
  }

  /** A column that a narrow window leaves out is not typed into unseen; it comes back. */
  @Test
  void narrowGridLeavesOutWhatCanBeMissed() {
    List<String[]> rows = rows();
    Grid grid = grid(rows);
    show(new StackPane(grid));
    hands.run(
        () -> {
          grid.show(rows.size());
          grid.setMaxWidth(260);
        });
    select(0, 2);
    hands.type("10").press(KeyCode.TAB).type("20").press(KeyCode.ENTER);
    assertThat(rows.get(0)).containsExactly("a", "10");
    assertThat(rows.get(1)).as("Tab passes over it").containsExactly("b", "20");
    hands.run(() -> grid.setMaxWidth(480));
    select(0, 1);
    hands.type("wide").press(KeyCode.ENTER);
    assertThat(rows.get(0)[0]).isEqualTo("wide");
  }

  @Test
  void gridMarksWhatItCannotUnderstandAndKeepsTheGoodValue() {
    List<String[]> rows = rows();
    Grid grid = grid(rows);
    show(grid);
    hands.run(() -> grid.show(rows.size()));
    select(1, 2);
    hands.type("many").press(KeyCode.ENTER);
    assertThat(rows.get(1)[1]).isEqualTo("2");
    assertThat(reason()).isEqualTo("Row 2, value: 'many' is neither a unit nor a symbol here");
    select(1, 2);
    hands.type("20").press(KeyCode.ENTER);
    assertThat(rows.get(1)[1]).isEqualTo("20");
    assertThat(reason()).isEmpty();
    hands.run(() -> grid.editable(false));
    select(0, 2);
    hands.type("5").press(KeyCode.ENTER);
    assertThat(rows.get(0)[1]).as("a locked grid takes nothing").isEqualTo("1");
  }

  @Test
  void gridIsCopiedWithItsHeader() {
    List<String[]> rows = rows();
    Grid grid = grid(rows);
    show(grid);
    hands.run(() -> grid.show(rows.size()));
    select(0, 1);
    hands.press(KeyCode.CONTROL, KeyCode.C);
    assertThat(Hands.<String>ask(() -> Clipboard.getSystemClipboard().getString()))
        .isEqualTo("row\tname\tvalue\n1\ta\t1\n2\tb\t2\n3\tc\t3");
  }

  @Test
  void segmentsAlwaysHaveOneChoice() {
    var chosen = new ArrayList<String>();
    Segments<String> s =
        Hands.ask(() -> new Segments<>("s", List.of("one", "two"), t -> t, chosen::add));
    show(Hands.ask(() -> new VBox(s)));
    hands.run(() -> s.show("one"));
    assertThat(chosen).as("showing is not choosing").isEmpty();
    hands.click("s-two").click("s-two");
    assertThat(chosen).containsExactly("two");
  }

  @Test
  void plotShowsTheProbeOnlyInsideItsRange() {
    PlotView plot = Hands.ask(() -> new PlotView("p", "a plot"));
    show(plot);
    hands.run(
        () ->
            plot.show(
                new Plot(
                    new Axis("x", new Span(0, 10)), new Axis("y", new Span(0, 1)), List.of())));
    hands.run(() -> plot.probe(5, x -> 0.5));
    assertThat(Hands.<Boolean>ask(() -> scene.lookup(".cross").isVisible())).isTrue();
    assertThat(Hands.<Boolean>ask(() -> scene.lookup(".cross-dot").isVisible())).isTrue();
    hands.run(() -> plot.probe(50, x -> 0.5));
    assertThat(Hands.<Boolean>ask(() -> scene.lookup(".cross").isVisible())).isFalse();
    hands.run(() -> plot.probe(5, x -> Double.NaN));
    assertThat(Hands.<Boolean>ask(() -> scene.lookup(".cross-dot").isVisible())).isFalse();
  }
}
