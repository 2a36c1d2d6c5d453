package nocking.points;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import nocking.quantity.Value;

/**
 * Steps that were each written down by themselves, as totals: pours into a tank, blocks in a stack.
 */
public final class Increments {
  private Increments() {}

  /**
   * The same points with what was applied in all.
   *
   * @param start what there was before the first step, in the unit of the points
   */
  public static List<ReferencePoint> totals(List<ReferencePoint> steps, double start) {
    // In decimals, so that ten times 0.1 is 1.
    BigDecimal total = BigDecimal.valueOf(start);
    var points = new ArrayList<ReferencePoint>();
    for (ReferencePoint p : steps) {
      total = total.add(BigDecimal.valueOf(p.applied().number()));
      points.add(p.withApplied(Value.of(total.doubleValue())));
    }
    return List.copyOf(points);
  }
}
