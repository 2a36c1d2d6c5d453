package nocking.table;

import java.util.Locale;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * What a table is made of, and by which rule.
 *
 * @param every which rows, 1 to 9999, with {@link Placement#EVERY}
 * @param fewest true for as few cells as the tolerance allows, false for the receiver's number
 * @param tolerance as typed: in the quantity, in % of what the data span, or in steps of the output
 *     as {@code 1.5 LSB}; null for that of the channel
 * @param bench true for bench pairs, false for the curve that the channel goes by
 */
public record TableGoal(
    Placement placement, int every, boolean fewest, String tolerance, boolean bench) {
  /** What tables were before one could choose. */
  public static final TableGoal USUAL = new TableGoal(Placement.EQUAL, 1, false, null, false);

  private static final String STEPS = "LSB";
  private static final int MOST_ROWS = 9999;

  public TableGoal {
    if (every < 1 || every > MOST_ROWS) {
      throw new QuantityException("every k-th row takes k from 1 to 9999; read " + every);
    }
    if (tolerance != null && tolerance.isBlank()) tolerance = null;
  }

  public TableGoal withPlacement(Placement v) {
    return new TableGoal(v, every, fewest && v == Placement.OPTIMAL, tolerance, bench);
  }

  public TableGoal withEvery(int v) {
    return new TableGoal(placement, v, fewest, tolerance, bench);
  }

  /** As few as the tolerance allows, which only the best places can be. */
  public TableGoal withFewest(boolean v) {
    return new TableGoal(v ? Placement.OPTIMAL : placement, every, v, tolerance, bench);
  }

  public TableGoal withTolerance(String v) {
    return new TableGoal(placement, every, fewest, v, bench);
  }

  public TableGoal withBench(boolean v) {
    return new TableGoal(placement, every, fewest, tolerance, v);
  }

  /**
   * A tolerance as typed, in the unit of the quantity.
   *
   * @param span that the true values cover, in that unit
   * @param step of the output, in that unit
   * @throws QuantityException one sentence that says what was read and what was expected
   */
  public static double tolerance(String typed, Unit unit, double span, double step) {
    String text = typed.strip();
    double t =
        text.toUpperCase(Locale.ROOT).endsWith(STEPS)
            ? Value.typed(text.substring(0, text.length() - STEPS.length()).strip(), Unit.ONE)
                    .number()
                * step
            : Value.tolerance(text, unit.difference(), span).number();
    if (t > 0) return t;
    throw new QuantityException("read %s, expected more than 0".formatted(text));
  }
}
