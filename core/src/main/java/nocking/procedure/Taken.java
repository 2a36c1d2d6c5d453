package nocking.procedure;

/**
 * What a step came to.
 *
 * @param at milliseconds since 1970 of its last reading
 * @param applied what the reference said, in the unit of the procedure
 * @param volts mean of its readings; NaN where it has none
 * @param deviation standard deviation of one reading, volts; NaN below two readings
 * @param skipped true where it was left out: nothing of it was done
 * @param unsettled why its readings are no result: they had not settled, or somebody took them
 *     although something spoke against them; empty where they are one
 */
public record Taken(
    long at, double applied, double volts, double deviation, boolean skipped, String unsettled) {
  /** A step that was done. */
  public Taken(long at, double applied, double volts, double deviation) {
    this(at, applied, volts, deviation, false, "");
  }

  /** True when there is something to go by. */
  public boolean read() {
    return Double.isFinite(volts);
  }
}
