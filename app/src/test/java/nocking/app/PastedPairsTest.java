package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.input.KeyCode;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.points.RawUnit;
import nocking.table.BenchPairs;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Raw and true values as a spreadsheet gives them, put where they belong. */
class PastedPairsTest extends WindowTest {

  @BeforeEach
  void anEmptyTable() {
    open(new Book(List.of(Channel.blank("c", "CH-1"))));
    hands.run(() -> desk.step(WorkStep.TABLE));
    hands.click("table-start");
    settled();
  }

  private void paste(String block, int row, int column) {
    clipboard(block);
    into("pairs", row, column);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
  }

  private BenchPairs pairs() {
    return channel().receiver().bench();
  }

  /** Codes are far above any volt of the converter; small numbers are what the receiver wants. */
  @Test
  void whatTheRawColumnIsIsSeenFromItsNumbers() {
    paste("400\t1\n2000\t5\n", 0, 1);
    assertThat(pairs().axis()).isEqualTo(RawUnit.COUNTS);
    assertThat(pairs().raw()).containsExactly(400.0, 2000.0);
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    settled();
    assertThat(pairs()).isNull();
    paste("0.4\t1\n2\t5\n", 0, 1);
    assertThat(pairs().axis()).isEqualTo(RawUnit.VOLTS);
  }

  /** Rows that are there are replaced from where the block is put; the others come behind them. */
  @Test
  void aBlockStandsWhereItIsPut() {
    paste("400\t1\n2000\t5\n", 0, 1);
    paste("2100\t5.5\n3000\t8\n", 1, 1);
    assertThat(pairs().raw()).containsExactly(400.0, 2100.0, 3000.0);
    assertThat(pairs().truth()).containsExactly(1.0, 5.5, 8.0);
    paste("3500\t9\n3600\t9.2\n", 3, 1);
    assertThat(pairs().raw()).containsExactly(400.0, 2100.0, 3000.0, 3500.0, 3600.0);
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    settled();
    assertThat(pairs().size()).as("one step back for a block").isEqualTo(3);
  }

  /** One number belongs into the cell where it is put. */
  @Test
  void aNumberAloneIsTypedIn() {
    paste("400\t1\n2000\t5\n", 0, 1);
    paste("1900", 1, 1);
    paste("4.75\n", 1, 2);
    assertThat(pairs().raw()).containsExactly(400.0, 1900.0);
    assertThat(pairs().truth()).containsExactly(1.0, 4.75);
    paste("wet", 1, 2);
    assertThat(pairs().truth()).containsExactly(1.0, 4.75);
    assertThat(shown(".text-fail"))
        .anyMatch(s -> s.startsWith("Row 2, true: ") && s.contains("wet"));
  }

  /** What cannot be taken changes nothing, and says why. */
  @Test
  void whatDoesNotFitLeavesThePairsAlone() {
    paste("400\t1\n2000\t5\n", 0, 1);
    BenchPairs before = pairs();
    paste("raw\ttrue\nV\tmg/L\n0.3\t0.1\n", 0, 1);
    assertThat(pairs()).as("volts on counts").isEqualTo(before);
    paste("400\t1\n500\n", 0, 1);
    assertThat(pairs()).as("a row with a hole").isEqualTo(before);
    paste("one\ttwo\nthree\tfour\n", 0, 1);
    assertThat(pairs()).as("words").isEqualTo(before);
    paste("\n \n", 0, 1);
    assertThat(pairs()).as("nothing").isEqualTo(before);
  }

  /** A file takes the place of all that was there, and says so. */
  @Test
  void aFileReplacesWhatWasThere() throws IOException {
    paste("400\t1\n2000\t5\n", 0, 1);
    Path file = folder.resolve("rows.csv");
    Files.writeString(file, "raw,true\nV,\n0.5,1\n1.5,4\n2.5,8\n");
    chosen.add(file);
    hands.click("pairs-import");
    settled();
    assertThat(pairs().axis()).isEqualTo(RawUnit.VOLTS);
    assertThat(pairs().size()).isEqualTo(3);
    assertThat(message()).contains("in the place of the 2 that were here");
  }
}
