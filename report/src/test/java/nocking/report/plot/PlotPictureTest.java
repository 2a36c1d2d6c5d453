package nocking.report.plot;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.io.StringReader;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import nocking.quantity.Span;
import org.junit.jupiter.api.Test;
import org.xml.sax.InputSource;

/** One definition on screen and on paper; places in the picture are where the data say. */
class PlotPictureTest {
  private static final Plot PLOT =
      new Plot(
          new Axis("temperature, °C", new Span(0, 10)),
          new Axis("error, °C", new Span(-1, 1)),
          List.of(
              new Layer.Across(Role.TOLERANCE, new Span(-0.5, 0.5)),
              new Layer.Upright(Role.SHADE, new Span(2, 8)),
              new Layer.Line(Role.CURVE, new double[] {0, 10}, new double[] {-1, 1}, 1),
              new Layer.Points(Role.FAIL, new double[] {5}, new double[] {0}),
              new Layer.Mark(2, 0.7, "pivot"),
              new Layer.Label(Role.OTHER, 9, -0.8, "label", true)));

  private static int at(PlotPicture p, double x, double y, double scale) {
    double px = p.area().getX() + PLOT.x().span().fraction(x) * p.area().getWidth();
    double py = p.area().getMaxY() - PLOT.y().span().fraction(y) * p.area().getHeight();
    return p.image().getRGB((int) (px * scale), (int) (py * scale));
  }

  @Test
  void pointsStandWhereTheAreaSays() {
    for (double scale : new double[] {1, 2}) {
      PlotPicture p = PlotPicture.draw(PLOT, Palette.LIGHT, 400, 240, scale);
      BufferedImage image = p.image();
      assertThat(image.getWidth()).isEqualTo((int) (400 * scale));
      assertThat(at(p, 5, 0, scale)).isEqualTo(Palette.LIGHT.of(Role.FAIL).getRGB());
      assertThat(at(p, 9, 0.9, scale)).isNotEqualTo(Palette.LIGHT.of(Role.FAIL).getRGB());
    }
  }

  @Test
  void bandsAreTinted() {
    PlotPicture p = PlotPicture.draw(PLOT, Palette.LIGHT, 400, 240, 1);
    assertThat(at(p, 9.4, 0.3, 1)).isNotEqualTo(at(p, 9.4, 0.7, 1));
    assertThat(at(p, 4.7, 0.8, 1)).isNotEqualTo(at(p, 9.4, 0.7, 1));
  }

  @Test
  void svgIsAWholeDocument() throws Exception {
    String svg = PlotPicture.svg(PLOT, Palette.LIGHT, 700, 400);
    var factory = DocumentBuilderFactory.newInstance();
    factory.setFeature("http://apache.org/xml/features/nonvalidating/load-external-dtd", false);
    var root =
        factory
            .newDocumentBuilder()
            .parse(new InputSource(new StringReader(svg)))
            .getDocumentElement();
    assertThat(root.getTagName()).isEqualTo("svg");
    assertThat(root.getAttribute("viewBox")).isEqualTo("0 0 700 400");
    assertThat(svg).doesNotContain("<text");
  }

  @Test
  void stepsAreOneTwoOrFive() {
    assertThat(PlotDrawing.step(10, 5)).isEqualTo(2);
    assertThat(PlotDrawing.step(3.3, 5)).isEqualTo(0.5);
    assertThat(PlotDrawing.step(60, 5)).isEqualTo(10);
    assertThat(PlotDrawing.step(0.0024, 5)).isEqualTo(5e-4);
  }
}
