package nocking.report.plot;

import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Font;
import java.awt.FontMetrics;
import java.awt.Graphics2D;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Rectangle2D;
import java.text.DecimalFormat;
import java.text.DecimalFormatSymbols;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nocking.quantity.Span;
import nocking.report.Typefaces;
import org.jfree.chart.ChartRenderingInfo;
import org.jfree.chart.JFreeChart;
import org.jfree.chart.annotations.XYTextAnnotation;
import org.jfree.chart.axis.AxisLocation;
import org.jfree.chart.axis.NumberAxis;
import org.jfree.chart.axis.NumberTickUnit;
import org.jfree.chart.axis.ValueAxis;
import org.jfree.chart.plot.DatasetRenderingOrder;
import org.jfree.chart.plot.IntervalMarker;
import org.jfree.chart.plot.XYPlot;
import org.jfree.chart.renderer.xy.XYLineAndShapeRenderer;
import org.jfree.chart.ui.Layer;
import org.jfree.chart.ui.RectangleInsets;
import org.jfree.chart.ui.TextAnchor;
import org.jfree.data.xy.DefaultXYDataset;

/** Draws a {@link Plot} with JFreeChart. */
public final class PlotDrawing {
  private static final double POINT = 7;
  private static final float[][] DASHES = {null, {6, 4}, {2, 3}};
  private static final int WANTED_TICKS = 5;

  /** Least width of a picture that has room for an axis at the right, pixels. */
  private static final double ROOM_FOR_RIGHT = 300;

  private static final int LABEL = 12;

  /** What axes and insets take of the picture, about. */
  private static final double MARGIN = 56;

  private static final int MOST_LINES_OFF = 4;

  private final Plot plot;
  private final Palette palette;
  private final XYPlot chart;
  private final List<nocking.report.plot.Layer.Label> labels = new ArrayList<>();
  private int series;

  private PlotDrawing(Plot plot, Palette palette) {
    this.plot = plot;
    this.palette = palette;
    chart = new XYPlot();
  }

  /**
   * Draws the plot into a rectangle at the origin.
   *
   * @return the area in which data are drawn, in the same coordinates
   */
  public static Rectangle2D draw(
      Plot plot, Palette palette, Graphics2D g, double width, double height) {
    return new PlotDrawing(plot, palette).draw(g, width, height);
  }

  private Rectangle2D draw(Graphics2D g, double width, double height) {
    chart.setDomainAxis(axis(plot.x(), width < 300 ? WANTED_TICKS - 2 : WANTED_TICKS));
    chart.setRangeAxis(axis(plot.y(), height < 120 ? 3 : WANTED_TICKS));
    plot.right()
        .filter(r -> width >= ROOM_FOR_RIGHT)
        .ifPresent(
            r -> {
              chart.setRangeAxis(1, axis(r, height < 120 ? 3 : WANTED_TICKS));
              chart.setRangeAxisLocation(1, AxisLocation.BOTTOM_OR_RIGHT);
            });
    chart.setBackgroundPaint(palette.background());
    chart.setDomainGridlinePaint(palette.grid());
    chart.setRangeGridlinePaint(palette.grid());
    var solid = new BasicStroke(1);
    chart.setDomainGridlineStroke(solid);
    chart.setRangeGridlineStroke(solid);
    chart.setOutlinePaint(palette.frame());
    chart.setAxisOffset(RectangleInsets.ZERO_INSETS);
    chart.setInsets(new RectangleInsets(8, 4, 4, 14));
    plot.layers().forEach(this::add);
    addLabels(g.getFontMetrics(Typefaces.text(LABEL)), width - MARGIN, height - MARGIN);
    var whole = new JFreeChart(null, null, chart, false);
    whole.setBackgroundPaint(palette.background());
    whole.setPadding(RectangleInsets.ZERO_INSETS);
    var info = new ChartRenderingInfo();
    whole.draw(g, new Rectangle2D.Double(0, 0, width, height), info);
    return info.getPlotInfo().getDataArea();
  }

  private NumberAxis axis(Axis a, int ticks) {
    var axis = new NumberAxis(a.title());
    axis.setAutoRange(false);
    axis.setRange(a.span().low(), a.span().high());
    double step = step(a.span().width(), ticks);
    int decimals = Math.max(0, (int) Math.ceil(-Math.log10(step) - 1e-9));
    String pattern = decimals == 0 ? "0" : "0." + "0".repeat(decimals);
    var symbols = DecimalFormatSymbols.getInstance(Locale.ROOT);
    symbols.setMinusSign('−');
    axis.setTickUnit(new NumberTickUnit(step, new DecimalFormat(pattern, symbols)), false, false);
    axis.setAutoTickUnitSelection(false, false);
    style(axis, Typefaces.text(12), Typefaces.mono(11));
    return axis;
  }

  private void style(ValueAxis axis, Font title, Font numbers) {
    axis.setLabelFont(title);
    axis.setLabelPaint(palette.ink());
    axis.setTickLabelFont(numbers);
    axis.setTickLabelPaint(palette.ink());
    axis.setAxisLineVisible(false);
    axis.setTickMarksVisible(false);
    axis.setLabelInsets(new RectangleInsets(2, 2, 2, 2));
  }

  /** The 1-2-5 step that gives about so many intervals. */
  static double step(double width, int intervals) {
    double raw = width / intervals;
    double decade = Math.pow(10, Math.floor(Math.log10(raw)));
    double lead = raw / decade;
    return decade * (lead < 1.5 ? 1 : lead < 3.5 ? 2 : lead < 7.5 ? 5 : 10);
  }

  private void add(nocking.report.plot.Layer layer) {
    switch (layer) {
      case nocking.report.plot.Layer.Line line -> addLine(line);
      case nocking.report.plot.Layer.Points points ->
          addPoints(
              points.x(), points.y(), palette.of(points.role()), points.role() != Role.LEFT_OUT);
      case nocking.report.plot.Layer.Across band ->
          chart.addRangeMarker(marker(band.y(), band.role()), Layer.BACKGROUND);
      case nocking.report.plot.Layer.Upright band ->
          chart.addDomainMarker(marker(band.x(), band.role()), Layer.BACKGROUND);
      case nocking.report.plot.Layer.Mark mark -> addMark(mark);
      case nocking.report.plot.Layer.Label label -> labels.add(label);
    }
  }

  /**
   * Labels where they are wanted, or the nearest lines of text above or below that are free.
   *
   * @param width of the area in which data are drawn, as it will be about
   * @param height likewise
   */
  private void addLabels(FontMetrics metrics, double width, double height) {
    var taken = new ArrayList<Rectangle2D>();
    double line = metrics.getHeight();
    for (nocking.report.plot.Layer.Label label : labels) {
      double x = plot.x().span().fraction(label.x()) * width;
      double y = (1 - plot.y().span().fraction(label.y())) * height;
      double wide = metrics.stringWidth(label.text());
      double left = label.anchorRight() ? x - wide : x;
      Rectangle2D at = new Rectangle2D.Double(left, y - line, wide, line);
      for (int k = 1; k <= 2 * MOST_LINES_OFF && !free(at, taken, height); k++) {
        int off = k % 2 == 1 ? (k + 1) / 2 : -k / 2;
        at = new Rectangle2D.Double(left, y - line + off * line, wide, line);
      }
      taken.add(at);
      chart.addAnnotation(
          text(
              label.text(),
              label.x(),
              plot.y().span().at(1 - at.getMaxY() / height),
              palette.of(label.role()),
              label.anchorRight() ? TextAnchor.BOTTOM_RIGHT : TextAnchor.BOTTOM_LEFT));
    }
  }

  private static boolean free(Rectangle2D at, List<Rectangle2D> taken, double height) {
    return at.getMinY() >= 0
        && at.getMaxY() <= height
        && taken.stream().noneMatch(t -> t.intersects(at));
  }

  private IntervalMarker marker(Span span, Role role) {
    Color c = palette.of(role);
    return new IntervalMarker(span.low(), span.high(), c, new BasicStroke(0), null, null, 1f);
  }

  private void addLine(nocking.report.plot.Layer.Line line) {
    var renderer = new XYLineAndShapeRenderer(true, false);
    float width = line.dash() == 0 ? 2f : 1.6f;
    renderer.setSeriesStroke(
        0,
        DASHES[line.dash()] == null
            ? new BasicStroke(width, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND)
            : new BasicStroke(
                width, BasicStroke.CAP_BUTT, BasicStroke.JOIN_ROUND, 1, DASHES[line.dash()], 0));
    renderer.setSeriesPaint(0, palette.of(line.role()));
    renderer.setDrawSeriesLineAsPath(true);
    put(line.x(), line.y(), renderer);
  }

  private void addPoints(double[] x, double[] y, Color colour, boolean filled) {
    var renderer = new XYLineAndShapeRenderer(false, true);
    renderer.setSeriesShape(0, new Rectangle2D.Double(-POINT / 2, -POINT / 2, POINT, POINT));
    renderer.setSeriesShapesFilled(0, filled);
    renderer.setSeriesPaint(0, colour);
    put(x, y, renderer);
  }

  private void addMark(nocking.report.plot.Layer.Mark mark) {
    var renderer = new XYLineAndShapeRenderer(false, true);
    renderer.setSeriesShape(0, new Ellipse2D.Double(-4.5, -4.5, 9, 9));
    renderer.setSeriesFillPaint(0, palette.background());
    renderer.setUseFillPaint(true);
    renderer.setSeriesOutlineStroke(0, new BasicStroke(2));
    renderer.setUseOutlinePaint(true);
    renderer.setSeriesOutlinePaint(0, palette.of(Role.OTHER));
    put(new double[] {mark.x()}, new double[] {mark.y()}, renderer);
    boolean left = plot.x().span().fraction(mark.x()) > 0.6;
    chart.addAnnotation(
        text(
            left ? mark.text() + "   " : "   " + mark.text(),
            mark.x(),
            mark.y(),
            palette.of(Role.OTHER),
            left ? TextAnchor.TOP_RIGHT : TextAnchor.TOP_LEFT));
  }

  private static XYTextAnnotation text(
      String words, double x, double y, Color colour, TextAnchor anchor) {
    var annotation = new XYTextAnnotation(words, x, y);
    annotation.setFont(Typefaces.text(LABEL));
    annotation.setPaint(colour);
    annotation.setTextAnchor(anchor);
    return annotation;
  }

  private void put(double[] x, double[] y, XYLineAndShapeRenderer renderer) {
    var data = new DefaultXYDataset();
    data.addSeries("s", new double[][] {x, y});
    renderer.setDefaultSeriesVisibleInLegend(false);
    chart.setDataset(series, data);
    chart.setRenderer(series, renderer);
    chart.setDatasetRenderingOrder(DatasetRenderingOrder.FORWARD);
    series++;
  }
}
