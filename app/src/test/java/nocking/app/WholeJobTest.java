package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import nocking.analysis.Progress;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.check.Verdict;
import nocking.stage.Divider;
import org.junit.jupiter.api.Test;

/**
 * The whole job in the window, with mouse and keyboard, from an empty book to a locked revision.
 */
class WholeJobTest extends WindowTest {

  @Test
  void fromAnEmptyBookToARevision() throws IOException {
    open(Book.EMPTY);
    define();
    condition();
    wire();
    collect();
    fit();
    table();
    check();
    record();
  }

  private void define() {
    hands.click("first-channel");
    hands.fill("define-tag", "BL-P1").press(KeyCode.TAB).type("Blower manifold");
    hands.run(() -> ((ComboBox<?>) shell.scene().lookup("#define-kind")).requestFocus());
    hands.press(KeyCode.DOWN);
    assertThat(channel().definition().unit())
        .as("a fresh channel takes the usual unit")
        .isEqualTo("kPa");
    hands.fill("define-range", "0 … 60");
    hands.fill("define-tolerance", "0.5");
    hands.click("have-ratiometric");
    hands.fill("sensor-lowFraction", "8");
    hands.fill("sensor-highAt", "100");
    hands.fill("sensor-highFraction", "92");
    Channel c = channel();
    assertThat(c.tag()).isEqualTo("BL-P1");
    assertThat(c.definition().name()).isEqualTo("Blower manifold");
    assertThat(analysis().design().path().orElseThrow().at(60).output())
        .isCloseTo(2.92, within(1e-9));
    assertThat(Progress.of(analysis(), WorkStep.DEFINE)).isEqualTo(Progress.FULL);
    assertThat(onDisk().byTag("BL-P1")).contains(c);
  }

  private void condition() {
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.click("insert-0").choose("insert-divider");
    hands.fill("element-upper", "5k1");
    assertThat(channel().design().stages().getFirst().number("R1")).isEqualTo(5100);
    assertThat(analysis().design().path().orElseThrow().at(60).output())
        .isCloseTo(1.93377, within(5e-6));
    assertThat(text("equation-numbers")).startsWith("p = 35.952 kPa/V · Vout − 9.5238 kPa");
    hands.click("form-c").click("equation-copy");
    assertThat(Hands.<String>ask(() -> Clipboard.getSystemClipboard().getString()))
        .contains("double bl_p1_quantity(double Vout)");
  }

  private void wire() {
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT3);
    hands.click("pins").run(() -> grid("pins").getSelectionModel().select(0));
    hands.type("red").press(KeyCode.TAB).type("A").press(KeyCode.TAB).type("J4-1");
    hands.press(KeyCode.ENTER);
    assertThat(channel().wiring().plan().pins().getFirst().wire()).isEqualTo("red");
    assertThat(channel().wiring().plan().pins().getFirst().position()).isEqualTo("A");
    assertThat(channel().wiring().plan().pins().getFirst().terminal()).isEqualTo("J4-1");
    assertThat(cell("pins", 2, 5)).isEqualTo("400 mV ±45");
    assertThat(cell("pins", 3, 6)).isEqualTo("0.26 … 1.93 V");
  }

  @SuppressWarnings("unchecked")
  private TableView<Integer> grid(String id) {
    return (TableView<Integer>) shell.scene().lookup("#" + id);
  }

  /** What a cell shows, scrolled to as a user would. */
  private String cell(String grid, int row, int column) {
    hands.run(() -> grid(grid).scrollTo(row));
    return Hands.ask(
        () ->
            grid(grid).lookupAll(".table-row-cell").stream()
                .map(n -> (TableRow<?>) n)
                .filter(r -> r.getIndex() == row)
                .map(r -> ((Labeled) r.getChildrenUnmodifiable().get(column)).getText())
                .findFirst()
                .orElseThrow());
  }

  private void collect() throws IOException {
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT4);
    hands.run(() -> grid("points").getSelectionModel().select(0));
    hands.run(() -> grid("points").requestFocus());
    hands.type("0").press(KeyCode.ENTER);
    hands.run(() -> grid("points").getSelectionModel().select(0));
    hands.press(KeyCode.F2).press(KeyCode.TAB).type("0.2652; 0.2650; 0.2654").press(KeyCode.ENTER);
    assertThat(channel().calibration().points().points()).hasSize(1);
    assertThat(cell("points", 0, 3)).isEqualTo("0.2652");
    assertThat(cell("points", 0, 4)).isEqualTo("0.00020");

    hands.run(
        () -> {
          var content = new ClipboardContent();
          content.putString("20\t0.8213\t0.8215\n25 psi\t5\n40\t1.3775\n");
          Clipboard.getSystemClipboard().setContent(content);
          grid("points").getSelectionModel().select(1);
          grid("points").requestFocus();
        });
    hands.press(KeyCode.CONTROL, KeyCode.V);
    assertThat(channel().calibration().points().points()).hasSize(4);
    assertThat(channel().calibration().points().points().get(2).applied().number())
        .isCloseTo(172.369, within(1e-3));

    hands.run(() -> grid("points").getSelectionModel().select(2));
    hands.fill("leave-reason", "hose slipped off").click("leave-out");
    assertThat(channel().calibration().points().points().get(2).leftOut())
        .isEqualTo("hose slipped off");

    Path csv = folder.resolve("more.csv");
    Files.writeString(csv, "druck;spannung\nkPa;V\n50,0;1,6553\n60,0;1,9338\n");
    chosen.add(csv);
    hands.click("collect-import");
    assertThat(text("import-recognised"))
        .isEqualTo(
            "Recognised: 2 rows of 2 columns between semicolons, decimal comma, with a header, units kPa, V.");
    assertThat(channel().calibration().points().points())
        .as("nothing is taken before it is shown")
        .hasSize(4);
    hands.click("import-take");
    assertThat(channel().calibration().points().points()).hasSize(6);
    assertThat(channel().calibration().points().counting()).hasSize(5);
  }

  private void fit() {
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT5);
    hands.run(() -> grid("fits").getSelectionModel().select(3));
    hands.click("fit-adopt");
    assertThat(channel().calibration().adopted().model()).isEqualTo("line");
    assertThat(channel().calibration().adopted().points()).isEqualTo(5);
    assertThat(text("fit-reason")).startsWith("Simplest that is good enough: Design equation.");
  }

  private void table() throws IOException {
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT6);
    hands.click("table-start");
    hands.fill("table-cells", "7");
    hands.click("table-axis-counts").click("table-order-falling");
    assertThat(channel().receiver().table().cells()).isEqualTo(7);
    hands.click("table-look-cells");
    assertThat(cell("cells", 6, 2)).as("within half a count of 0").isEqualTo("0.01");
    Path source = folder.resolve("bl_p1_table.c");
    chosen.add(source);
    hands.click("table-c");
    assertThat(source).content().contains("bl_p1_raw[BL_P1_CELLS]");
    assertThat(folder.resolve("bl_p1_table.h")).content().contains("BL-P1 Blower manifold");
  }

  private void check() {
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT7);
    hands.click("check-five");
    assertThat(channel().acceptance().check().points()).hasSize(5);
    String[] measured = {"0.2655", "0.682", "1.099", "1.516", "1.9335"};
    hands.run(() -> grid("checks").requestFocus());
    for (int i = 0; i < measured.length; i++) {
      int row = i;
      hands.run(
          () -> {
            grid("checks").getSelectionModel().clearAndSelect(row);
            grid("checks").getFocusModel().focus(row, grid("checks").getColumns().get(4));
          });
      hands.type(measured[i]).press(KeyCode.ENTER);
    }
    assertThat(analysis().acceptance().verdict()).isEqualTo(Verdict.PASS);
    assertThat(cell("checks", 0, 8)).isEqualTo("pass");
    assertThat(cell("checks", 2, 1)).startsWith("1.099");
  }

  private void record() {
    hands.press(KeyCode.CONTROL, KeyCode.S);
    hands.type("as left, spring").press(KeyCode.ENTER);
    assertThat(message()).isEqualTo("Revision 1 \"as left, spring\" of BL-P1 is kept.");
    assertThat(cell("revisions", 0, 3)).isEqualTo("now");
    Channel kept = channel();

    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.fill("element-lower", "9k1");
    assertThat(((Divider) channel().design().stages().getFirst()).lower().number()).isEqualTo(9100);
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT8);
    hands.run(() -> grid("revisions").getSelectionModel().select(0));
    hands.click("revision-back");
    assertThat(channel()).isEqualTo(kept);

    hands.click("lock");
    assertThat(channel().journal().locked()).isTrue();
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT1);
    hands.fill("define-name", "changed");
    assertThat(channel().definition().name()).isEqualTo("Blower manifold");
    hands.press(KeyCode.CONTROL, KeyCode.L);
    hands.type("sensor replaced").click("lock");
    assertThat(channel().journal().locked()).isFalse();
    Book disk = onDisk();
    assertThat(disk.channels()).containsExactly(channel());
  }
}
