package nocking.procedure;

/**
 * What a step came to.
 *
 * @param at milliseconds since 1970 of its last reading
 * @param applied what the reference said, in the unit of the procedure
 * @param volts mean of its readings; NaN where it has none
 * @param deviation standard deviation of one reading, volts; NaN below two readings
 */
public record Taken(long at, double applied, double volts, double deviation) {
  /** True when there is something to go by. */
  public boolean read() {
    return Double.isFinite(volts);
  }
}
