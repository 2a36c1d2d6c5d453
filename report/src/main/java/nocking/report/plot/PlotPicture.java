package nocking.report.plot;

import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Rectangle2D;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.apache.batik.svggen.SVGGeneratorContext;
import org.apache.batik.svggen.SVGGraphics2D;
import org.w3c.dom.Document;
import org.w3c.dom.Element;

/**
 * A drawn plot.
 *
 * @param image picture at {@code scale} times the logical size
 * @param area where data are drawn, in logical coordinates
 */
public record PlotPicture(Plot plot, BufferedImage image, Rectangle2D area) {
  private static final String SVG = "http://www.w3.org/2000/svg";

  /** Draws at a scale, so that a picture for a fine screen is sharp and not enlarged. */
  public static PlotPicture draw(
      Plot plot, Palette palette, double width, double height, double scale) {
    var image =
        new BufferedImage(
            Math.max(1, (int) Math.round(width * scale)),
            Math.max(1, (int) Math.round(height * scale)),
            BufferedImage.TYPE_INT_ARGB_PRE);
    Graphics2D g = image.createGraphics();
    g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
    g.setRenderingHint(
        RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
    g.setRenderingHint(RenderingHints.KEY_STROKE_CONTROL, RenderingHints.VALUE_STROKE_PURE);
    g.scale(scale, scale);
    Rectangle2D area = PlotDrawing.draw(plot, palette, g, width, height);
    g.dispose();
    return new PlotPicture(plot, image, area);
  }

  private static Document emptySvg() {
    try {
      return DocumentBuilderFactory.newInstance()
          .newDocumentBuilder()
          .getDOMImplementation()
          .createDocument(SVG, "svg", null);
    } catch (ParserConfigurationException e) {
      throw new IllegalStateException("every Java can make an XML document", e);
    }
  }

  /** The plot as a complete SVG document; letters become outlines, so no font is needed. */
  public static String svg(Plot plot, Palette palette, int width, int height) {
    var document = emptySvg();
    var context = SVGGeneratorContext.createDefault(document);
    var g = new SVGGraphics2D(context, true);
    PlotDrawing.draw(plot, palette, g, width, height);
    Element root = g.getRoot();
    root.setAttributeNS(null, "width", String.valueOf(width));
    root.setAttributeNS(null, "height", String.valueOf(height));
    root.setAttributeNS(null, "viewBox", "0 0 %d %d".formatted(width, height));
    var out = new StringWriter();
    try {
      g.stream(root, out, true, false);
    } catch (IOException e) {
      throw new UncheckedIOException("a text in memory takes every line", e);
    }
    return out.toString();
  }
}
