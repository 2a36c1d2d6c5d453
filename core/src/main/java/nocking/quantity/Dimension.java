package nocking.quantity;

/**
 * Exponents of a quantity over the SI base, with two of the bench's own: plane angle and converter
 * counts, so that a percentage, an angle and a raw code cannot be taken for one another.
 */
public record Dimension(
    int metre, int kilogram, int second, int ampere, int kelvin, int angle, int count) {

  public static final Dimension NONE = new Dimension(0, 0, 0, 0, 0, 0, 0);
  public static final Dimension LENGTH = new Dimension(1, 0, 0, 0, 0, 0, 0);
  public static final Dimension MASS = new Dimension(0, 1, 0, 0, 0, 0, 0);
  public static final Dimension TIME = new Dimension(0, 0, 1, 0, 0, 0, 0);
  public static final Dimension CURRENT = new Dimension(0, 0, 0, 1, 0, 0, 0);
  public static final Dimension TEMPERATURE = new Dimension(0, 0, 0, 0, 1, 0, 0);
  public static final Dimension ANGLE = new Dimension(0, 0, 0, 0, 0, 1, 0);
  public static final Dimension COUNT = new Dimension(0, 0, 0, 0, 0, 0, 1);
  public static final Dimension VOLTAGE = new Dimension(2, 1, -3, -1, 0, 0, 0);
  public static final Dimension RESISTANCE = new Dimension(2, 1, -3, -2, 0, 0, 0);
  public static final Dimension PRESSURE = new Dimension(-1, 1, -2, 0, 0, 0, 0);
  public static final Dimension FORCE = new Dimension(1, 1, -2, 0, 0, 0, 0);

  public Dimension times(Dimension o) {
    return new Dimension(
        metre + o.metre,
        kilogram + o.kilogram,
        second + o.second,
        ampere + o.ampere,
        kelvin + o.kelvin,
        angle + o.angle,
        count + o.count);
  }

  public Dimension over(Dimension o) {
    return times(o.power(-1));
  }

  public Dimension power(int n) {
    return new Dimension(
        n * metre, n * kilogram, n * second, n * ampere, n * kelvin, n * angle, n * count);
  }

  public boolean isNone() {
    return equals(NONE);
  }

  /** The dimension in words where it has a common name, else as a product of base units. */
  public String says() {
    if (isNone()) return "a plain number";
    if (equals(LENGTH)) return "a length";
    if (equals(MASS)) return "a mass";
    if (equals(TIME)) return "a time";
    if (equals(CURRENT)) return "a current";
    if (equals(TEMPERATURE)) return "a temperature";
    if (equals(ANGLE)) return "an angle";
    if (equals(COUNT)) return "converter counts";
    if (equals(VOLTAGE)) return "a voltage";
    if (equals(RESISTANCE)) return "a resistance";
    if (equals(PRESSURE)) return "a pressure";
    if (equals(FORCE)) return "a force";
    return "a quantity in " + baseSymbol();
  }

  /** Product of base units, for example {@code kg·m²·s⁻³·A⁻¹} written {@code kg m^2/s^3/A}. */
  public String baseSymbol() {
    String[] names = {"kg", "m", "s", "A", "K", "rad", "counts"};
    int[] exponents = {kilogram, metre, second, ampere, kelvin, angle, count};
    var over = new StringBuilder();
    var under = new StringBuilder();
    for (int i = 0; i < names.length; i++) {
      int e = Math.abs(exponents[i]);
      if (e == 0) continue;
      var to = exponents[i] > 0 ? over : under;
      to.append(exponents[i] > 0 ? (to.isEmpty() ? "" : "·") : "/").append(names[i]);
      if (e > 1) to.append('^').append(e);
    }
    return (over.isEmpty() ? "1" : over.toString()) + under;
  }
}
