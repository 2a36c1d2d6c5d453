package nocking.report.plot;

import java.util.List;
import java.util.Optional;
import nocking.quantity.Span;

/**
 * A plot as data: what is to be seen, not how.
 *
 * @param right what the same lines are in another unit, as far up as {@code y}; empty for none
 */
public record Plot(Axis x, Axis y, Optional<Axis> right, List<Layer> layers) {

  public Plot {
    layers = List.copyOf(layers);
  }

  /** A plot that is read in one unit. */
  public Plot(Axis x, Axis y, List<Layer> layers) {
    this(x, y, Optional.empty(), layers);
  }

  /**
   * The same read in another unit as well.
   *
   * @param axis what the lower and the upper end of {@code y} are in it
   */
  public Plot withRight(Axis axis) {
    return new Plot(x, y, Optional.of(axis), layers);
  }

  /** The same plot showing another part of the plane. */
  public Plot zoomed(Span xSpan, Span ySpan) {
    Optional<Axis> moved =
        right.map(
            r ->
                r.withSpan(
                    new Span(
                        r.span().at(y.span().fraction(ySpan.low())),
                        r.span().at(y.span().fraction(ySpan.high())))));
    return new Plot(x.withSpan(xSpan), y.withSpan(ySpan), moved, layers);
  }
}
