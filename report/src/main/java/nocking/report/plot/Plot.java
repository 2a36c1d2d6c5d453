package nocking.report.plot;

import java.util.List;
import nocking.quantity.Span;

/** A plot as data: what is to be seen, not how. */
public record Plot(Axis x, Axis y, List<Layer> layers) {

  public Plot {
    layers = List.copyOf(layers);
  }

  /** The same plot showing another part of the plane. */
  public Plot zoomed(Span xSpan, Span ySpan) {
    return new Plot(x.withSpan(xSpan), y.withSpan(ySpan), layers);
  }
}
