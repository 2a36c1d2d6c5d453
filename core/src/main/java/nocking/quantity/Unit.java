package nocking.quantity;

/**
 * A unit: {@code si = value · factor + offset}.
 *
 * @param symbol as it is shown, for example {@code kPa} or {@code °C}
 * @param factor SI value of one unit, positive
 * @param offset SI value of the unit's zero; not 0 only for °C and °F (kelvin)
 */
public record Unit(String symbol, Dimension dimension, double factor, double offset) {

  public static final Unit ONE = new Unit("", Dimension.NONE, 1, 0);
  public static final Unit VOLT = new Unit("V", Dimension.VOLTAGE, 1, 0);
  public static final Unit OHM = new Unit("Ω", Dimension.RESISTANCE, 1, 0);
  public static final Unit AMPERE = new Unit("A", Dimension.CURRENT, 1, 0);
  public static final Unit CELSIUS = new Unit("°C", Dimension.TEMPERATURE, 1, 273.15);
  public static final Unit KELVIN = new Unit("K", Dimension.TEMPERATURE, 1, 0);
  public static final Unit COUNTS = new Unit("counts", Dimension.COUNT, 1, 0);
  public static final Unit PERCENT = new Unit("%", Dimension.NONE, 0.01, 0);

  public Unit {
    if (!(factor > 0))
      throw new QuantityException("a unit's factor must be above 0, not " + factor);
  }

  /** The unit for a symbol or a product of symbols such as {@code mV/kPa}. */
  public static Unit of(String symbol) {
    return UnitCatalogue.parse(symbol);
  }

  public boolean isAffine() {
    return offset != 0;
  }

  public double toSi(double value) {
    return scaled(value, factor) + offset;
  }

  public double fromSi(double si) {
    double whole = Math.rint(1 / factor);
    return isOneOver(whole, factor) ? (si - offset) * whole : (si - offset) / factor;
  }

  /**
   * A value times a factor, rounded once where the factor is one over a whole number: no double is
   * a thousandth, but 350 divided by 1 000 is the double that is nearest to 0.35.
   */
  static double scaled(double value, double factor) {
    double whole = Math.rint(1 / factor);
    return isOneOver(whole, factor) ? value / whole : value * factor;
  }

  private static boolean isOneOver(double whole, double factor) {
    return factor < 1 && 1 / whole == factor;
  }

  /** The same unit for differences: its zero is 0, one degree stays one degree. */
  public Unit difference() {
    return isAffine() ? new Unit(symbol, dimension, factor, 0) : this;
  }

  public Unit over(Unit other) {
    return new Unit(
        symbol + "/" + other.symbol, dimension.over(other.dimension), factor / other.factor, 0);
  }

  /** Converts a value (not a difference) to another unit of the same dimension. */
  public double convert(double value, Unit to) {
    if (!dimension.equals(to.dimension)) {
      throw new QuantityException(
          "%s is %s and %s is %s: one cannot be written in the other"
              .formatted(symbol, dimension.says(), to.symbol, to.dimension.says()));
    }
    // One division of factors keeps round numbers round, e.g. 25 psi in kPa.
    return symbol.equals(to.symbol) ? value : to.fromSi(toSi(value));
  }

  @Override
  public String toString() {
    return symbol;
  }
}
