package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Labeled;
import javafx.scene.control.TableView;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import nocking.app.control.Grid;
import nocking.app.desk.Aside;
import nocking.band.BandPosition;
import nocking.channel.Book;
import nocking.channel.WorkStep;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/**
 * A block pasted while a cell is open never runs together in that cell: it goes into the grid, or
 * the grid says why not, and undo takes it back. With every grid of the application.
 */
@Tag("campaign")
@Timeout(value = 180, unit = TimeUnit.SECONDS, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class PasteEverywhereTest extends WindowTest {
  private static final String BLOCK = "1.1\t2.5\n1.2\t2.6\n";

  private final Set<String> pasted = new TreeSet<>();
  private final List<String> wrong = new ArrayList<>();

  @Test
  void aBlockGoesIntoEveryGridOrIsRefusedInWords() {
    openDemo("GV-P1", WorkStep.COLLECT);
    everyGrid();
    visit("BL-P1", WorkStep.CHECK);
    visit("RW-T1", WorkStep.DEFINE);
    for (String tag : List.of("FD-S1", "AE-V1")) {
      visit(tag, WorkStep.WIRE);
      for (String tab : tabs("wire-look-")) {
        open(tab);
        for (String part : tabs("band-part-")) {
          open(part);
          everyGrid();
        }
        everyGrid();
      }
    }
    hands.run(() -> desk.select(desk.book().byTag("SG-P1").orElseThrow().id()));
    hands.run(() -> desk.aside(Aside.DIAGNOSE));
    everyGrid();
    visit("BL-P1", WorkStep.CONDITION);
    hands.press(KeyCode.CONTROL, KeyCode.K).type("drawer").press(KeyCode.ENTER);
    everyGrid();
    assertThat(wrong).isEmpty();
    assertThat(pasted)
        .contains("points", "checks", "sensor-rows", "pins", "positions", "seen", "drawer-grid");
  }

  @Test
  void aBlockIsOneEditOrNone() {
    openDemo("FD-S1", WorkStep.WIRE);
    open("wire-look-bands");
    List<BandPosition> before = channel().wiring().bands().positions();
    clipboard("1.25\t0.1\n1.65\t0.1\n");
    into("positions", 0, 1);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    assertThat(channel().wiring().bands().positions())
        .extracting(p -> p.centre().number())
        .startsWith(1.25, 1.65, 2.0);
    assertThat(channel().wiring().bands().positions().get(1).half().number()).isEqualTo(0.1);
    assertThat(message()).isEqualTo("Pasted 4 cells.");
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel().wiring().bands().positions()).as("one step of undo").isEqualTo(before);
    clipboard("\t0.11\n1.65\t\n");
    into("positions", 0, 1);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    assertThat(channel().wiring().bands().positions().getFirst().half().number())
        .as("an empty cell keeps its column")
        .isEqualTo(0.11);
    assertThat(channel().wiring().bands().positions().getFirst().centre().number()).isEqualTo(1.2);
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    clipboard("1.3\t0.1\n1.7\tmuch\n");
    into("positions", 0, 1);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    assertThat(channel().wiring().bands().positions()).as("all or nothing").isEqualTo(before);
    assertThat(message()).as("of no other paste").doesNotContain("Pasted");
    hands.press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Z);
    assertThat(channel().wiring().bands().positions().getFirst().centre().number()).isEqualTo(1.2);
  }

  private void visit(String tag, WorkStep step) {
    hands.run(
        () -> {
          desk.select(desk.book().byTag(tag).orElseThrow().id());
          desk.step(step);
        });
    settled();
    everyGrid();
  }

  private List<String> tabs(String prefix) {
    return Hands.ask(
        () ->
            shell.scene().getRoot().lookupAll(".toggle-button").stream()
                .filter(n -> n.isVisible() && n.getId() != null && n.getId().startsWith(prefix))
                .map(Node::getId)
                .toList());
  }

  private void open(String toggle) {
    hands.run(() -> ((ToggleButton) shell.scene().lookup("#" + toggle)).setSelected(true));
    settled();
  }

  private void everyGrid() {
    var grids = new ArrayList<Grid>();
    hands.run(() -> collect(shell.scene().getRoot(), grids));
    for (Grid g : grids) if (pasted.add(g.table().getId())) paste(g);
  }

  private static void collect(Node n, List<Grid> grids) {
    if (!n.isVisible()) return;
    if (n instanceof Grid g) grids.add(g);
    else if (n instanceof Parent p) p.getChildrenUnmodifiable().forEach(c -> collect(c, grids));
  }

  private void paste(Grid g) {
    TableView<?> table = g.table();
    String id = table.getId();
    Book before = desk.book();
    String said = message();
    clipboard(BLOCK);
    boolean open = Hands.ask(() -> openCell(g));
    settled();
    if (!open) {
      pasted.remove(id);
      return;
    }
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    if (Hands.ask(() -> table.getEditingCell() != null)) wrong.add(id + ": a cell is still open");
    boolean changed = !desk.book().equals(before);
    boolean refused = Hands.ask(() -> shows(g, "text-fail")) || !message().equals(said);
    if (!changed && !refused) wrong.add(id + ": nothing was pasted, and nothing said");
    if (Hands.ask(() -> shows(g, "1.12.5") || shows(g, "2.51.2"))) wrong.add(id + ": run together");
    for (int i = 0; i < 5 && !desk.book().equals(before); i++) hands.run(() -> desk.undo());
    if (!desk.book().equals(before)) wrong.add(id + ": undo does not take it back");
  }

  /** Opens the first cell that can be typed in; false where there is none. */
  private static boolean openCell(Grid g) {
    TableView<?> table = g.table();
    table.requestFocus();
    for (int c = 0; c < table.getColumns().size(); c++) {
      if (table.getColumns().get(c).isVisible()) g.edit(0, c, null);
      if (table.getEditingCell() != null) return true;
    }
    return false;
  }

  /** True where a label of the grid has this style class or holds these words. */
  private static boolean shows(Node n, String words) {
    if (n.getStyleClass().contains(words) && n.isVisible()) return true;
    if (n instanceof Labeled l && l.getText() != null && l.getText().contains(words)) return true;
    return n instanceof Parent p
        && p.getChildrenUnmodifiable().stream().anyMatch(c -> shows(c, words));
  }
}
