package nocking.quantity;

/**
 * A number with a dimension.
 *
 * <p>Temperatures may be absolute (their unit has a zero of its own) or differences. The rules are
 * those of the hand: 25 °C + 10 °C is 35 °C, 25 °C − 10 °C is a difference of 15 K, and in a
 * product (25 °C · 20 mV/°C) the number that was written counts.
 *
 * @param si value in SI units, absolute temperatures in kelvin
 * @param zero SI value of the zero of the unit it was written in; 0 for all but °C and °F
 * @param difference true when it can only be a difference, as after subtracting two temperatures
 */
public record Quantity(double si, Dimension dimension, double zero, boolean difference) {

  public static Quantity number(double value) {
    return new Quantity(value, Dimension.NONE, 0, false);
  }

  public static Quantity of(double value, Unit unit) {
    return new Quantity(unit.toSi(value), unit.dimension(), unit.offset(), false);
  }

  /** Value without the shifted zero: what counts in products. */
  private double written() {
    return si - zero;
  }

  public Quantity plus(Quantity o) {
    requireSame(o, "added to");
    if (zero == 0 && o.zero != 0) return new Quantity(si + o.si, dimension, o.zero, false);
    return new Quantity(si + o.written(), dimension, zero, difference);
  }

  public Quantity minus(Quantity o) {
    requireSame(o, "taken from");
    if (zero != 0 && o.zero == 0) return new Quantity(si - o.si, dimension, zero, false);
    boolean temperatures = dimension.equals(Dimension.TEMPERATURE);
    return new Quantity(si - o.si, dimension, 0, temperatures || difference);
  }

  public Quantity times(Quantity o) {
    return new Quantity(written() * o.written(), dimension.times(o.dimension), 0, true);
  }

  public Quantity over(Quantity o) {
    if (o.written() == 0) throw new QuantityException("this divides by zero");
    return new Quantity(written() / o.written(), dimension.over(o.dimension), 0, true);
  }

  public Quantity negated() {
    return new Quantity(zero - written(), dimension, zero, difference);
  }

  /** Two resistances (or any two alike) in parallel: a·b/(a+b). */
  public Quantity parallel(Quantity o) {
    requireSame(o, "in parallel with");
    double sum = written() + o.written();
    if (sum == 0) throw new QuantityException("these two in parallel divide by zero");
    return new Quantity(written() * o.written() / sum, dimension, 0, true);
  }

  public Quantity power(Quantity exponent) {
    if (!exponent.dimension.isNone()) throw new QuantityException("a power must be a plain number");
    double n = exponent.si;
    if (dimension.isNone()) return number(Math.pow(si, n));
    if (n != Math.rint(n) || Math.abs(n) > 9) {
      throw new QuantityException("with units, a power must be a whole number");
    }
    return new Quantity(Math.pow(written(), n), dimension.power((int) n), 0, true);
  }

  /** The number that stands before {@code unit} for this quantity. */
  public double in(Unit unit) {
    if (!dimension.equals(unit.dimension())) {
      throw new QuantityException(
          "this is %s, which cannot be written in %s (%s)"
              .formatted(dimension.says(), name(unit), unit.dimension().says()));
    }
    return difference ? si / unit.factor() : unit.fromSi(si);
  }

  private static String name(Unit unit) {
    return unit.symbol().isEmpty() ? "a plain number" : unit.symbol();
  }

  private void requireSame(Quantity o, String how) {
    if (!dimension.equals(o.dimension)) {
      throw new QuantityException(
          "%s cannot be %s %s".formatted(o.dimension.says(), how, dimension.says()));
    }
  }
}
