package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.algebra.Expr.Function;
import nocking.algebra.Expr.Mode;
import nocking.algebra.NumericalInverse;
import nocking.element.Measurand;
import nocking.element.Parameter;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.linear.SingularValueDecomposition;

/**
 * Thermistor by three constants: 1/T = A + B·ln R + C·(ln R)³, T in kelvin, R in ohms (Steinhart
 * and Hart, "Calibration curves for thermistors", Deep-Sea Research 15, 1968). Turned round for R
 * by the real root of the cubic.
 *
 * @param a A, 1/K
 * @param b B, 1/K, above 0
 * @param c C, 1/K; a little below 0 where three points of a curve without it are rounded so, as
 *     long as the resistance falls all over the rated range
 * @param dissipation mW that warm it by 1 K; null when not known
 */
@JsonTypeName("ntc-steinhart")
public record NtcSteinhart(
    @Parameter(symbol = "A", label = "Constant A", unit = "1/K") Value a,
    @Parameter(symbol = "B", label = "Constant B", unit = "1/K", above = 0) Value b,
    @Parameter(symbol = "C", label = "Constant C", unit = "1/K") Value c,
    @Parameter(symbol = "Tlo", label = "Rated from", unit = "degC", above = -273.15) Value from,
    @Parameter(symbol = "Thi", label = "Rated to", unit = "degC", above = -273.15) Value to,
    @Parameter(
            symbol = "delta",
            label = "Dissipation constant",
            unit = "mW/K",
            above = 0,
            whenEmpty = "not known")
        Value dissipation)
    implements Sensor {

  /** ln of more ohms than any thermistor has. */
  private static final double MOST_LN = 40;

  /** Through 0 °C 32 650 Ω, 25 °C 10 kΩ, 100 °C 680 Ω. */
  static final NtcSteinhart EXAMPLE =
      through(List.of(TablePoint.of(0, 32650), TablePoint.of(25, 10e3), TablePoint.of(100, 680)));

  /**
   * The constants through three points or, by least squares of 1/T, through more.
   *
   * @param points °C and ohms, at least three different ones
   * @throws QuantityException when they do not determine a falling curve
   */
  public static NtcSteinhart through(List<TablePoint> points) {
    if (points.size() < 3) {
      throw new QuantityException("Steinhart-Hart needs three points; there are " + points.size());
    }
    double[][] powers = new double[points.size()][];
    double[] inverse = new double[points.size()];
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < powers.length; i++) {
      double ohms = points.get(i).output().number();
      double celsius = points.get(i).at().number();
      if (!(ohms > 0)) {
        throw new QuantityException(
            "point %d: a resistance must be above 0; read %s"
                .formatted(i + 1, points.get(i).output().typed()));
      }
      double ln = Math.log(ohms);
      powers[i] = new double[] {1, ln, ln * ln * ln};
      inverse[i] = 1 / (celsius + 273.15);
      low = Math.min(low, celsius);
      high = Math.max(high, celsius);
    }
    double[] x = solve(powers, inverse);
    var made =
        x[1] > 0
            ? new NtcSteinhart(
                Value.of(x[0]), Value.of(x[1]), Value.of(x[2]), Value.of(low), Value.of(high), null)
            : null;
    boolean falling = made != null && made.falls();
    for (double[] power : powers) falling &= Math.abs(power[1]) < made.turn();
    if (!falling) {
      throw new QuantityException(
          "these points give no thermistor curve: B is %s and C is %s, with which the resistance does not fall all over their range"
              .formatted(Numbers.significant(x[1], 3), Numbers.significant(x[2], 3)));
    }
    return made;
  }

  /** ln R beyond which a negative C turns the curve back. */
  private double turn() {
    return c.number() < 0 ? Math.sqrt(b.number() / (-3 * c.number())) : Double.POSITIVE_INFINITY;
  }

  private double inverseKelvin(double ln) {
    return a.number() + b.number() * ln + c.number() * ln * ln * ln;
  }

  /** True when the resistance falls with the temperature over the whole rated range. */
  private boolean falls() {
    if (c.number() >= 0) return true;
    double cold = 1 / (from.number() + 273.15);
    double warm = 1 / (to.number() + 273.15);
    return inverseKelvin(turn()) > Math.max(cold, warm)
        && inverseKelvin(-turn()) < Math.min(cold, warm);
  }

  private static double[] solve(double[][] powers, double[] inverse) {
    var matrix = new Array2DRowRealMatrix(powers, false);
    try {
      if (new SingularValueDecomposition(matrix).getRank() < 3) {
        throw new QuantityException("three points with different resistances are needed");
      }
      return new QRDecomposition(matrix)
          .getSolver()
          .solve(new ArrayRealVector(inverse, false))
          .toArray();
    } catch (MathRuntimeException e) {
      throw new QuantityException("three points with different resistances are needed");
    }
  }

  @Override
  public String model() {
    return "ntc-steinhart";
  }

  @Override
  public String title() {
    return "Thermistor";
  }

  @Override
  public String inHand() {
    return "three thermistor points";
  }

  @Override
  public String alsoCalled() {
    return "NTC Steinhart Hart";
  }

  @Override
  public String summary() {
    return "A %s, B %s, C %s"
        .formatted(
            Numbers.significant(a.number(), 4),
            Numbers.significant(b.number(), 4),
            Numbers.significant(c.number(), 3));
  }

  @Override
  public Signal signal() {
    return Signal.RESISTANCE;
  }

  /** R = exp(∛(u − y/2) − ∛(u + y/2)) with y = (A − 1/T)/C and u = √((B/3C)³ + y²/4). */
  @Override
  public Expr output(Measurand x, Symbols own) {
    Expr warm = Expr.ONE.over(x.in(Unit.KELVIN));
    if (c.number() == 0) {
      return warm.minus(own.of("A")).over(own.of("B")).apply(Function.EXP);
    }
    if (c.number() < 0) return turned(warm);
    Expr third = Expr.num(1.0 / 3);
    Expr half = own.of("A").minus(warm).over(Expr.num(2).times(own.of("C")));
    Expr cube = own.of("B").over(Expr.num(3).times(own.of("C"))).power(Expr.num(3));
    Expr root = cube.plus(half.power(Expr.num(2))).apply(Function.SQRT);
    return root.minus(half).power(third).minus(root.plus(half).power(third)).apply(Function.EXP);
  }

  /**
   * The cubic has three real roots with a negative C: the one between its turns is the sensor's.
   */
  private Expr turned(Expr warm) {
    if (!falls()) {
      throw new QuantityException(
          "with C = %s the resistance does not fall all over the rated range"
              .formatted(Numbers.significant(c.number(), 3)));
    }
    double most = Math.min(0.999 * turn(), MOST_LN);
    Expr l = Expr.sym("L");
    Expr cubic =
        Expr.sym("A").plus(Expr.sym("B").times(l)).plus(Expr.sym("C").times(l.power(Expr.num(3))));
    var graph =
        new NumericalInverse(
            cubic,
            "L",
            Map.of("A", a.number(), "B", b.number(), "C", c.number()),
            new Span(-most, most));
    return warm.through(graph, Mode.INVERSE).apply(Function.EXP);
  }

  @Override
  public Optional<Expr> input(Expr output, Measurand x, Symbols own) {
    Expr ln = output.apply(Function.LN);
    Expr inverse =
        own.of("A").plus(own.of("B").times(ln)).plus(own.of("C").times(ln.power(Expr.num(3))));
    Expr kelvin = Expr.ONE.over(inverse);
    Unit u = x.unit();
    if (u.factor() == 1) return Optional.of(kelvin.minus(Expr.num(u.offset())));
    return Optional.of(kelvin.minus(Expr.num(u.offset())).over(Expr.num(u.factor())));
  }

  @Override
  public Span rated(Unit quantity) {
    return NtcBeta.celsius(from, to, quantity);
  }

  /** Nothing is colder than absolute zero; near it the law has no finite value. */
  @Override
  public Optional<Span> known(Unit quantity) {
    return Optional.of(NtcBeta.celsius(Value.of(-270), Value.of(5000), quantity));
  }

  @Override
  public Optional<Double> dissipationConstant() {
    return Optional.ofNullable(dissipation).map(v -> v.number() / 1000);
  }
}
