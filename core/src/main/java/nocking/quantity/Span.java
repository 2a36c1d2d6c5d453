package nocking.quantity;

/** A closed interval; {@code low <= high}. Units are those of the owner. */
public record Span(double low, double high) {

  public Span {
    if (!(low <= high)) {
      throw new QuantityException("a range must rise: read %s … %s".formatted(low, high));
    }
  }

  public static Span between(double a, double b) {
    return new Span(Math.min(a, b), Math.max(a, b));
  }

  public double width() {
    return high - low;
  }

  public double middle() {
    return low + (high - low) / 2;
  }

  /** Width of what two spans have in common; 0 where they are apart. */
  public double overlap(Span other) {
    return Math.max(0, Math.min(high, other.high) - Math.max(low, other.low));
  }

  public boolean contains(double x) {
    return x >= low && x <= high;
  }

  public double clamp(double x) {
    return Math.clamp(x, low, high);
  }

  /** Point at a fraction of the way, 0 at {@code low} and 1 at {@code high}. */
  public double at(double fraction) {
    return fraction == 1 ? high : low + (high - low) * fraction;
  }

  /** How far along the interval {@code x} lies; 0.5 for an interval of no width. */
  public double fraction(double x) {
    return width() == 0 ? 0.5 : (x - low) / width();
  }
}
