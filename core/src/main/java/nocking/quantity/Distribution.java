package nocking.quantity;

/** How a value lies between the limits ±a that are known of it (JCGM 100:2008, 4.3.6 to 4.3.9). */
public enum Distribution {
  /** Anywhere between the limits, u = a/√3. The one to take when only limits are known. */
  RECTANGULAR("rectangular", 1 / Math.sqrt(3)),
  /** More often near the middle, u = a/√6. */
  TRIANGULAR("triangular", 1 / Math.sqrt(6)),
  /** The limits hold 99.73 % of the values, u = a/3. */
  NORMAL("normal", 1.0 / 3),
  /** More often near a limit, as a cycling temperature is, u = a/√2. */
  ARCSINE("U-shaped", 1 / Math.sqrt(2));

  private final String title;
  private final double standardPerLimit;

  Distribution(String title, double standardPerLimit) {
    this.title = title;
    this.standardPerLimit = standardPerLimit;
  }

  public String title() {
    return title;
  }

  /** Standard deviation of a value whose limit is 1. */
  public double standardPerLimit() {
    return standardPerLimit;
  }
}
