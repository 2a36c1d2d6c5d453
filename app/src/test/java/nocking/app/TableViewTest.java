package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.scene.control.Button;
import javafx.scene.control.TextArea;
import javafx.scene.input.KeyCode;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.table.Placement;
import nocking.table.ReceiverShape;
import nocking.table.TableSpec;
import nocking.table.TypedCell;
import nocking.view.TableOutcome;
import nocking.view.TableResult;
import org.junit.jupiter.api.Test;

/** The smallest table, what the others leave, and its way into the receiver. */
class TableViewTest extends WindowTest {

  private TableResult table() {
    settled();
    TableOutcome outcome = Hands.ask(() -> analysis().receiver().table());
    assertThat(outcome.problem()).isEmpty();
    return outcome.result().orElseThrow();
  }

  private TableSpec spec() {
    return Hands.ask(() -> channel().receiver().table());
  }

  /** Pairs on a bent line, up and down, as text that a spreadsheet gives. */
  private static String bench() {
    return IntStream.range(0, 120)
        .mapToObj(
            i -> {
              int k = i < 60 ? i : 119 - i;
              double x = k / 59.0;
              return Math.round(400 + 3000 * x + 120 * Math.sin(3 * x))
                  + "\t"
                  + Math.round(200 * x) / 10.0;
            })
        .collect(Collectors.joining("\n", "raw\ttrue\n", "\n"));
  }

  /** Nine hundred readings, 1.5 steps: what the demo's own firmware gets. */
  @Test
  void theSmallestTableIsProvenAndComparedWithTheHabits() {
    openDemo("SC-A1", WorkStep.TABLE);
    settled();
    TableResult t = table();
    assertThat(t.made().proven()).isTrue();
    assertThat(text("table-says"))
        .startsWith("%d cells hold 1.5 LSB; no table with fewer does.".formatted(t.count()))
        .contains("%d leave ".formatted(t.count() - 1));
    assertThat(column("placements", 0))
        .startsWith("best places", "equal steps", "powers of two", "every 82nd row");
    double equal = Double.parseDouble(column("placements", 2).get(1));
    assertThat(equal).as("equal steps of as many").isGreaterThan(1.5);
    assertThat(text("table-worst")).endsWith("900 pairs");
    assertThat(hands.has("finding-table-goes-on")).isTrue();
    assertThat(hands.has("finding-strokes-differ")).isTrue();
  }

  /** Each kind of table from a curve; a tolerance in three units; what is missed is said. */
  @Test
  void eachKindOfTableIsBuiltFromTheCurve() {
    openDemo("OX-D1", WorkStep.TABLE);
    hands.click("table-start");
    settled();
    hands.click("table-goal-fewest-cells");
    hands.fill("table-tolerance", "0.02");
    TableResult fewest = table();
    assertThat(fewest.holds()).isTrue();
    assertThat(text("table-says")).contains("cells hold 0.02 mg/L");
    hands.fill("table-tolerance", "0.1 %");
    assertThat(table().tolerance()).isCloseTo(0.001 * table().truth().span(), within(1e-12));
    hands.fill("table-tolerance", "2 LSB");
    assertThat(table().tolerance()).isCloseTo(2 * spec().step(), within(1e-12));
    hands.fill("table-tolerance", "wet");
    assertThat(wrong("table-tolerance")).isTrue();
    hands.fill("table-tolerance", "");
    hands.click("table-goal-all-cells");
    for (Placement p : List.of(Placement.OPTIMAL, Placement.EQUAL, Placement.POW2)) {
      choose("table-placement", p);
      assertThat(table().made().placement()).isEqualTo(p.key());
    }
    choose("table-placement", Placement.FIXED);
    assertThat(text("table-worst")).isEqualTo("The receiver's fixed axis is not said yet");
    hands.enter("table-raw-axis", "0 0.5 1 1.5 2 2.5 3");
    hands.press(KeyCode.ENTER);
    settled();
    assertThat(table().count()).isEqualTo(7);
    hands.click("table-look-picture");
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(spec().goal().placement()).isEqualTo(Placement.POW2);
  }

  /** Pairs pasted make a table of their own; each placement that wants rows has them. */
  @Test
  void eachKindOfTableIsBuiltFromBenchPairs() throws IOException {
    openDemo("OX-D1", WorkStep.TABLE);
    hands.click("table-start").click("table-axis-counts");
    hands.click("table-look-bench-pairs");
    clipboard(bench());
    into("pairs", 0, 1);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(channel().receiver().bench().size()).isEqualTo(120);
    assertThat(spec().goal().bench()).isTrue();
    assertThat(column("pairs", 3).getFirst()).matches("[+-−]?0\\.\\d+");
    // A block on rows that are there stands in their place; one behind them comes to them.
    clipboard("raw\ttrue\n401\t0.1\n");
    into("pairs", 0, 1);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(channel().receiver().bench().size()).isEqualTo(120);
    assertThat(channel().receiver().bench().raw().getFirst()).isEqualTo(401);
    clipboard("raw\ttrue\nV\tmg/L\n0.3\t0.1\n");
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(channel().receiver().bench().size()).as("volts on counts").isEqualTo(120);
    hands.click("table-look-picture");
    hands.fill("table-cells", "200");
    for (Placement p : List.of(Placement.OPTIMAL, Placement.EVERY, Placement.AT_POINTS)) {
      choose("table-placement", p);
      assertThat(table().made().placement()).startsWith(p.key());
    }
    choose("table-placement", Placement.EVERY);
    hands.fill("table-every", "10");
    assertThat(table().count()).isEqualTo(7);
    hands.click("table-source-the-curve");
    choose("table-placement", Placement.EQUAL);
    assertThat(table().pairs()).isEmpty();
    Path file = folder.resolve("pairs.csv");
    Files.writeString(file, "code,oxygen\ncounts,mg/L\n400,0\n1900,9\n3400,20\n");
    chosen.add(file);
    hands.click("table-look-bench-pairs").click("pairs-import");
    settled();
    assertThat(channel().receiver().bench().size()).isEqualTo(3);
    hands.click("pairs-remove");
    assertThat(channel().receiver().bench()).isNull();
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel().receiver().bench().size()).isEqualTo(3);
  }

  /** Nothing is defined but what was read at the bench: that is enough for a table. */
  @Test
  void readingsAloneMakeATable() {
    open(new Book(List.of(Channel.blank("c", "CH-1"))));
    hands.run(() -> desk.step(WorkStep.TABLE));
    hands.click("table-start");
    assertThat(text("pairs-from")).startsWith("Several true values for one raw value");
    clipboard(bench());
    into("pairs", 0, 1);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    assertThat(table().pairs().orElseThrow().size()).isEqualTo(120);
    hands.click("table-look-picture");
    assertThat(text("table-worst")).endsWith("120 pairs");
    hands.click("table-goal-fewest-cells");
    settled();
    assertThat(text("table-worst"))
        .isEqualTo("The fewest cells need a tolerance: say how far off the table may be");
    hands.fill("table-tolerance", "0.5");
    assertThat(table().made().proven()).isTrue();
    hands
        .click("table-look-rehearsal")
        .click("table-look-code")
        .click("table-look-list-to-type-in");
    settled();
    hands.click("table-drop");
    assertThat(channel().receiver().table()).isNull();
    assertThat(channel().receiver().bench()).as("what was read stays").isNotNull();
  }

  /** A cell set by hand is marked, costs what is said, and goes again. */
  @Test
  void aCellIsSetByHandAndTakenBack() {
    openDemo("RW-T1", WorkStep.TABLE);
    hands.click("table-look-cells");
    TableResult before = table();
    into("cells", 4, 2);
    hands.type("9").press(KeyCode.ENTER);
    assertThat(column("cells", 4).get(4)).isEqualTo("by hand");
    assertThat(table().error().worst()).isGreaterThan(10);
    settled();
    assertThat(hands.has("finding-table-misses")).isTrue();
    hands.click("fix-table-misses");
    assertThat(table().cells()).isEqualTo(before.cells());
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    into("cells", 4, 2);
    hands.press(KeyCode.DELETE);
    assertThat(table().cells()).isEqualTo(before.cells());
  }

  /**
   * Typed in cell by cell, read back with one slip, recorded; then the table goes on without it.
   */
  @Test
  void aListIsTypedInReadBackAndRecorded() {
    openDemo("RW-T1", WorkStep.TABLE);
    hands.click("table-look-list-to-type-in");
    settled();
    assertThat(text("typing-what")).isEqualTo("14823 Ω → 16.2 °C");
    for (int i = 9; i < 16; i++) hands.click("typing-done");
    assertThat(text("typing-what")).isEqualTo("Read them back");
    List<TypedCell> typed = Hands.ask(() -> channel().receiver().typing());
    String back =
        typed.stream()
            .map(c -> c.raw() + "\t" + (c == typed.get(2) ? 12.7 : c.out()))
            .collect(Collectors.joining("\n"));
    clipboard(back);
    into("typing", 0, 4);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(text("typing-state")).isEqualTo("16 of 16 typed. 16 of 16 read back, 1 differ.");
    // The receiver's own list: its names and units are read, a row without a number stays as it is.
    Double second = channel().receiver().typing().get(1).rawBack();
    clipboard("R [kΩ]\tT [°C]\n32,7\t0,5\n\n25,1\t5,5\n");
    into("typing", 0, 4);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    List<TypedCell> listed = channel().receiver().typing();
    assertThat(listed.get(0).rawBack()).isCloseTo(32700, within(1e-6));
    assertThat(listed.get(0).outBack()).isEqualTo(0.5);
    assertThat(listed.get(1).rawBack()).isEqualTo(second);
    assertThat(listed.get(2).rawBack()).isCloseTo(25100, within(1e-6));
    // Commas that are decimal ones set no columns apart.
    clipboard("1,5\n2,5\n");
    into("typing", 0, 4);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(channel().receiver().typing()).isEqualTo(listed);
    assertThat(shown(".text-fail")).anyMatch(t -> t.contains("Nothing was pasted"));
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    settled();
    Button record = Hands.ask(() -> (Button) shell.scene().lookup("#transfer-record"));
    assertThat(record.isDisabled()).as("nobody has signed").isTrue();
    hands.fill("transfer-by", "M. Brook").click("transfer-record");
    settled();
    assertThat(channel().receiver().transfers()).hasSize(1);
    assertThat(channel().receiver().typing()).isEmpty();
    // Taken back at once, and done again: the list is there with what was typed.
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel().receiver().transfers()).isEmpty();
    assertThat(channel().receiver().typing()).hasSize(16);
    hands.press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Z);
    assertThat(channel().receiver().transfers()).hasSize(1);
    assertThat(text("transfers")).contains("16 cells typed in by M. Brook, 16 read back");
    assertThat(hands.has("finding-receiver-read-back")).isTrue();
    hands.fill("table-out-decimals", "2");
    settled();
    assertThat(hands.has("finding-receiver-behind")).isTrue();
    hands.click("table-look-picture");
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(spec().outDecimals()).isEqualTo(1);
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel().receiver().transfers()).isEmpty();
    assertThat(onDisk().byTag("RW-T1").orElseThrow().receiver().typing()).hasSize(16);
  }

  /** A locked channel goes into its receiver all the same: that settles nothing anew. */
  @Test
  void aLockedChannelIsTypedInToo() {
    openDemo("IN-T2", WorkStep.TABLE);
    hands.click("table-look-list-to-type-in");
    settled();
    assertThat(text("transfers"))
        .startsWith("2026-03-12 ")
        .contains(": 6 cells typed in by M. Brook, 6 read back");
    hands.click("typing-done");
    assertThat(channel().receiver().typing().getFirst().typed()).isTrue();
    hands.click("table-look-cells");
    into("cells", 0, 2);
    hands.type("9").press(KeyCode.ENTER);
    assertThat(spec().byHand()).as("cells are settled").isEmpty();
  }

  /** What one receiver wants is kept, and taken for another channel. */
  @Test
  void aShapeIsKeptForEveryChannel() {
    openDemo("SC-A1", WorkStep.TABLE);
    hands.click("table-outside-fault");
    hands.fill("table-shape-name", "Gate firmware").click("table-shape-keep");
    assertThat(desk.book().shapes()).extracting(s -> s.name()).contains("Gate firmware");
    hands.run(() -> desk.select(desk.book().byTag("HD-L1").orElseThrow().id()));
    hands.click("table-start");
    choose("table-shape", Hands.<ReceiverShape>ask(() -> desk.book().shapes().getLast()));
    assertThat(spec().arithmetic().fullScale()).isEqualTo(4096);
    assertThat(spec().arithmetic().outside().key()).isEqualTo("fault");
    assertThat(table().output().unit()).isEqualTo("counts");
    assertThat(onDisk().shapes()).hasSize(3);
  }

  /** The band of the tolerance is dragged by the mouse, and the table follows. */
  @Test
  void theToleranceIsDragged() {
    openDemo("SC-A1", WorkStep.TABLE);
    settled();
    int before = table().count();
    hands.drag(Hands.ask(() -> shell.scene().lookup("#table-plot-grip")), 0, -10);
    settled();
    assertThat(spec().goal().tolerance()).matches("[12]\\.\\d LSB");
    assertThat(table().tolerance()).isGreaterThan(1.5);
    assertThat(table().count()).isLessThan(before);
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(spec().goal().tolerance()).isEqualTo("1.5 LSB");
  }

  /** The code is shown as it would be written, and every format is. */
  @Test
  void codeAndFilesAreTheTable() throws IOException {
    openDemo("SC-A1", WorkStep.TABLE);
    hands.click("table-look-code");
    settled();
    assertThat(text("table-code-says")).startsWith("CRC-32 of the cells ").contains("bit for bit");
    assertThat(code()).contains("int32_t sc_a1_lookup(int32_t raw)");
    hands.click("table-code-header");
    assertThat(code()).contains("Output 0 is 0.0").contains("Worst error 1.50 LSB");
    hands.click("table-code-python");
    assertThat(code()).contains("def sc_a1_lookup(raw):");
    hands.click("table-code-sheet-formula");
    assertThat(code()).startsWith("=");
    for (String format : List.of("csv", "json", "xlsx", "c", "py")) {
      Path file = folder.resolve("t." + format);
      chosen.add(file);
      hands.click(format.equals("py") ? "table-python" : "table-" + format);
      settled();
      assertThat(message()).endsWith("t." + format + " is written.");
      assertThat(file).isNotEmptyFile();
    }
    assertThat(folder.resolve("t.c")).content().contains("#include \"t.h\"");
    assertThat(folder.resolve("t.h")).content().contains("#define SC_A1_CELLS " + table().count());
    assertThat(Files.readAllLines(folder.resolve("t.csv"))).hasSize(table().count() + 2);
    hands.click("table-code-one-expression");
    assertThat(code()).startsWith("The curve is no polynomial of degree 6");
    hands.fill("table-raw-bits", "9");
    settled();
    hands.click("table-code-source");
    assertThat(code()).as("codes that do not fit").contains("does not fit 9 bits");
  }

  private String code() {
    return Hands.ask(() -> ((TextArea) shell.scene().lookup("#table-code")).getText());
  }

  /** Readings of the simulated bench, by a line and by the table. */
  @Test
  void theTableIsRehearsedBeforeItIsUploaded() {
    openDemo("SC-A1", WorkStep.TABLE);
    hands.click("table-look-rehearsal");
    settled();
    assertThat(text("rehearsal-says"))
        .matches("worst by the line 1\\.\\d °, by the table 0\\.0\\d+ °.*");
    List<String> first = column("rehearsal", 1);
    hands.click("rehearsal-again");
    settled();
    assertThat(column("rehearsal", 1)).as("other noise").isNotEqualTo(first);
  }
}
