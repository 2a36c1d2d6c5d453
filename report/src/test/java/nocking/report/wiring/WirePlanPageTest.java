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
import nocking.report.wiring.Sketch.Words;
import nocking.sensor.RatiometricSensor;
import nocking.stage.Divider;
import nocking.wiring.Pin;
import nocking.wiring.WirePlan;
import nocking.wiring.WireStep;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Test;

/** The wire plan on paper: one page with everything that is needed at the machine. */
class WirePlanPageTest {

  private static Value v(double number) {
    return Value.of(number);
  }

  private static Channel channel(String name) {
    return Channel.blank("b", "BL-P1")
        .define(d -> d.withName(name).withRange(v(0), v(60)).withTolerance(v(0.5)))
        .define(d -> d.withHazards(List.of(Hazard.values())))
        .design(
            d ->
                d.withSensor(new RatiometricSensor(v(0), v(8), v(100), v(92), v(5), v(0)))
                    .withStages(List.of(new Divider(v(5100), v(10e3))))
                    .withConverter(Converter.of(12, 3.3)))
        .wiring(
            w ->
                w.withPlan(
                    WirePlan.of(
                        null,
                        List.of(
                            new Pin(Pin.Function.SUPPLY, "red", "A", "J4-1", v(12), null, null),
                            new Pin(
                                Pin.Function.GROUND,
                                "green/yellow",
                                "B",
                                "J4-2",
                                v(12),
                                null,
                                null),
                            new Pin(
                                Pin.Function.SIGNAL, "plum", "C", "J4-3", v(12), v(0.4), null)))));
  }

  private static String html(String name) {
    return WirePlanPage.html(Analysis.of(channel(name)));
  }

  @Test
  void pageIsWellFormedAndSaysWhatThePinsMustRead() throws Exception {
    String html = html("Blower <b>& \"manifold\"</b>");
    var factory = DocumentBuilderFactory.newInstance();
    factory.setFeature("http://apache.org/xml/features/nonvalidating/load-external-dtd", false);
    var page =
        factory
            .newDocumentBuilder()
            .parse(new ByteArrayInputStream(html.getBytes(StandardCharsets.UTF_8)));
    assertThat(page.getElementsByTagName("b").getLength()).as("text stays text").isEqualTo(6);
    assertThat(page.getElementsByTagName("h1").item(0).getTextContent())
        .isEqualTo("BL-P1 Blower <b>& \"manifold\"</b>");
    assertThat(page.getElementsByTagName("table").item(0).getTextContent())
        .contains("400 mV ±45")
        .contains("265 mV ±30")
        .contains("5.00 V ±0.25");
    assertThat(html).contains(Hazard.PRESSURE.caution()).contains("Live measurement.");
    for (WireStep s : WireStep.ALL) assertThat(html).contains(s.text());
  }

  @Test
  void aNameWithControlCharactersBreaksNoPage() throws Exception {
    String html = html("bell \u0007 null \u0000 half \uD800 end");
    DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
    factory.setFeature("http://apache.org/xml/features/nonvalidating/load-external-dtd", false);
    factory
        .newDocumentBuilder()
        .parse(new ByteArrayInputStream(html.getBytes(StandardCharsets.UTF_8)));
    try (var document = Loader.loadPDF(PdfPages.of(html))) {
      assertThat(new PDFTextStripper().getText(document)).contains("bell").contains("end");
    }
  }

  @Test
  void pdfIsOnePageWithItsCautions() throws IOException {
    byte[] pdf = PdfPages.of(html("Blower manifold"));
    try (var document = Loader.loadPDF(pdf)) {
      assertThat(document.getNumberOfPages()).isEqualTo(1);
      String text = new PDFTextStripper().getText(document);
      assertThat(text)
          .contains("BL-P1 Blower manifold")
          .contains("Licensed work under local codes")
          .contains("no short")
          .contains("Slide the seal on the wire");
    }
  }

  @Test
  void wiresAreDrawnInTheirColours() {
    Channel c = channel("Blower");
    Sketch s = WiringSketch.of(c, Analysis.of(c).wiring().pins());
    var wires =
        s.shapes().stream()
            .filter(Sketch.Wire.class::isInstance)
            .map(Sketch.Wire.class::cast)
            .toList();
    // An outline and a colour each; two colours where two are named, none where none is known.
    assertThat(wires).extracting(Sketch.Wire::colour).contains("#B3282D", "#2F7D4A", "#E6C333", "");
    assertThat(wires).filteredOn(Sketch.Wire::dashed).hasSize(1);
    assertThat(s.shapes())
        .filteredOn(Words.class::isInstance)
        .extracting(w -> ((Words) w).text())
        .contains("J4-1", "A", "plum, 12 m", "5.00 V ±0.25", "0.40 … 2.92 V over the range");
    for (Sketch.Shape shape : s.shapes()) {
      if (shape instanceof Words w) {
        assertThat(w.x()).isBetween(0.0, s.width());
        assertThat(w.y()).isBetween(0.0, s.height());
      }
    }
  }

  @Test
  void channelWithoutSensorHasAPageToo() {
    String html = WirePlanPage.html(Analysis.of(Channel.blank("x", "NEW-1")));
    assertThat(html).contains("NEW-1").contains("not stated");
  }
}
