package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import javafx.scene.control.MenuButton;
import nocking.channel.WorkStep;
import org.junit.jupiter.api.Test;

/** What holds at the probe, and the same as source text. */
class DecoderExportTest extends WindowTest {

  private void choose(int item) {
    hands.run(
        () -> ((MenuButton) shell.scene().lookup("#band-decoder")).getItems().get(item).fire());
    settled();
  }

  @Test
  void stationsOfTheDiverterAreToldAtTheProbeAndWrittenAsCode() {
    openDemo("FD-S1", WorkStep.WIRE);
    hands.click("wire-look-bands");
    String first =
        desk.book().byTag("FD-S1").orElseThrow().wiring().bands().positions().get(0).name();
    hands.run(() -> desk.probe(1));
    assertThat(text("band-state")).isEqualTo("at the probe: " + first);
    hands.run(() -> desk.probe(2));
    assertThat(text("band-state")).startsWith("at the probe: ").doesNotContain(first);
    Path header = folder.resolve("d.h");
    Path module = folder.resolve("d.py");
    chosen.add(header);
    choose(0);
    chosen.add(module);
    choose(1);
    assertThat(header).content().contains("fd_s1_position_selftest").contains(first);
    assertThat(module).content().contains("def selftest()").contains(first);
  }

  @Test
  void whatHasNoBandsHasNoDecoderAndSaysSo() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.click("wire-look-bands");
    assertThat(hands.has("band-state")).isFalse();
    choose(0);
    assertThat(message()).isEqualTo("There is no position to decode.");
  }
}
