package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import nocking.channel.WorkStep;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;

/** Pages that go to the machine: the fault card and the settings of the receiver. */
class PagesTest extends WindowTest {

  private static String words(Path pdf) throws IOException {
    try (var document = Loader.loadPDF(pdf.toFile())) {
      return new PDFTextStripper().getText(document);
    }
  }

  @Test
  void theFaultCardIsPrintedFromTheWirePlan() throws IOException {
    openDemo("SG-P1", WorkStep.WIRE);
    Path card = folder.resolve("card.pdf");
    chosen.add(card);
    hands.click("wire-sheet").choose("wire-card-pdf");
    settled();
    assertThat(words(card)).contains("Fault card").contains("signal wire open");
    assertThat(message()).contains("is written");
  }

  @Test
  void theSettingsOfTheReceiverArePrintedWithABoxToTick() throws IOException {
    openDemo("IN-T2", WorkStep.TABLE);
    Path sheet = folder.resolve("settings.pdf");
    chosen.add(sheet);
    hands.click("table-settings");
    settled();
    assertThat(words(sheet)).contains("slope").contains("cell 6 at").contains("read back by");
  }
}
