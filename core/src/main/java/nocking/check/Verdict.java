package nocking.check;

/** Simple acceptance: pass when |error| is at most the tolerance. */
public enum Verdict {
  PASS,
  FAIL,
  /** Not measured yet, or no tolerance stated. */
  OPEN;

  public static Verdict of(double error, double tolerance) {
    if (Double.isNaN(error) || Double.isNaN(tolerance)) return OPEN;
    // A reading typed to the tolerance's own last digit must not fail by binary rounding.
    return Math.abs(error) <= tolerance * (1 + 1e-9) ? PASS : FAIL;
  }
}
