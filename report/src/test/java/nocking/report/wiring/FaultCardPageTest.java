package nocking.report.wiring;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.converter.Converter;
import nocking.quantity.Value;
import nocking.report.PdfPages;
import nocking.sensor.RatiometricSensor;
import nocking.stage.Divider;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;
import org.w3c.dom.Document;
import org.w3c.dom.Element;

/** The card for the lid of the cabinet: one page, every broken wire, what a meter then reads. */
class FaultCardPageTest {

  private static Value v(double number) {
    return Value.of(number);
  }

  private static Channel blower(String name) {
    return Channel.blank("b", "BL-P1")
        .define(d -> d.withName(name).withRange(v(0), v(60)).withTolerance(v(0.5)))
        .define(d -> d.withHazards(List.of(Hazard.values())))
        .design(
            d ->
                d.withSensor(new RatiometricSensor(v(0), v(8), v(100), v(92), v(5), v(0)))
                    .withStages(List.of(new Divider(v(5100), v(10e3))))
                    .withConverter(Converter.of(12, 3.3)));
  }

  private static Document parsed(String page) throws Exception {
    // The page says what it is; nothing is fetched for it.
    return DocumentBuilderFactory.newInstance()
        .newDocumentBuilder()
        .parse(new ByteArrayInputStream(page.getBytes(StandardCharsets.UTF_8)));
  }

  @Test
  void everyBrokenWireStandsOnTheCardWithItsReadings() throws Exception {
    String page = FaultCardPage.html(Analysis.of(blower("Manifold <1> & more"))).orElseThrow();
    Document d = parsed(page);
    var rows = d.getElementsByTagName("tr");
    String sound = ((Element) rows.item(1)).getTextContent();
    assertThat(sound).contains("nothing is wrong").contains("0.26 … 1.93 V");
    assertThat(page)
        .contains("supply wire open")
        .contains("ground wire open")
        .contains("signal wire open")
        .contains("signal shorted to ground")
        .contains("Manifold &lt;1&gt; &amp; more")
        .contains("Live measurement");
    // A short to ground reads 0 V at both ends and leaves the supply alone.
    for (int i = 1; i < rows.getLength(); i++) {
      String row = rows.item(i).getTextContent();
      if (row.contains("signal shorted to ground")) assertThat(row).contains("5.000 V");
    }
  }

  @Test
  void theCardIsOnePage() throws IOException {
    byte[] pdf = PdfPages.of(FaultCardPage.html(Analysis.of(blower("Blower"))).orElseThrow());
    try (var document = Loader.loadPDF(pdf)) {
      assertThat(document.getNumberOfPages()).isEqualTo(1);
      assertThat(new PDFTextStripper().getText(document)).contains("signal wire open");
    }
  }

  @Test
  void withoutASensorThereIsNoCard() {
    assertThat(FaultCardPage.html(Analysis.of(Channel.blank("b", "NEW")))).isEmpty();
  }
}
