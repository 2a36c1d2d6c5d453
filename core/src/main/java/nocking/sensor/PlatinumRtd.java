package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.List;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.algebra.Piecewise;
import nocking.algebra.Piecewise.Piece;
import nocking.element.Choice;
import nocking.element.Measurand;
import nocking.element.Parameter;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.element.Titled;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Industrial platinum thermometer, R = R₀·W(t) with W = 1 + At + Bt² + C(t − 100)t³, the last term
 * only below 0 °C; −200 °C to 850 °C (IEC 60751:2022, 4.2).
 *
 * @param resistance R₀, ohms at 0 °C, above 0
 * @param lead resistance of one lead in ohms; two of them count with two wires, none with more
 * @param dissipation mW that warm it by 1 K; null when not known
 */
@JsonTypeName("rtd")
public record PlatinumRtd(
    @Parameter(symbol = "R0", label = "Resistance at 0 °C", unit = "ohm", above = 0)
        Value resistance,
    @Choice(label = "Tolerance class") ToleranceClass toleranceClass,
    @Choice(label = "Connection") Wires wires,
    @Parameter(symbol = "Rw", label = "Lead resistance", unit = "ohm", least = 0) Value lead,
    @Parameter(
            symbol = "delta",
            label = "Dissipation constant",
            unit = "mW/K",
            above = 0,
            whenEmpty = "not known")
        Value dissipation)
    implements Sensor {

  /** Limits a + b·|t| in °C (IEC 60751:2022, table 3). */
  public enum ToleranceClass implements Titled {
    AA(0.1, 0.0017),
    A(0.15, 0.002),
    B(0.3, 0.005),
    C(0.6, 0.01);

    private final double fixed;
    private final double slope;

    ToleranceClass(double fixed, double slope) {
      this.fixed = fixed;
      this.slope = slope;
    }

    /** Largest permitted error at a temperature in °C, in K. */
    public double limit(double celsius) {
      return fixed + slope * Math.abs(celsius);
    }

    @Override
    public String title() {
      return name();
    }
  }

  /** Number of leads. */
  public enum Wires implements Titled {
    TWO("2 wires"),
    THREE("3 wires"),
    FOUR("4 wires");

    private final String title;

    Wires(String title) {
      this.title = title;
    }

    @Override
    public String title() {
      return title;
    }
  }

  private static final double A = 3.9083e-3;
  private static final double B = -5.775e-7;
  private static final double C = -4.183e-12;
  private static final Span VALID = new Span(-200, 850);

  /** Resistance ratio R(t)/R₀, t in °C. */
  public static final Piecewise RATIO =
      Piecewise.of(
          "W",
          List.of(
              Piece.polynomial(-200, 0, 1, A, B, -100 * C, C), Piece.polynomial(0, 850, 1, A, B)));

  static final PlatinumRtd EXAMPLE = of(100);

  public static PlatinumRtd of(double ohms) {
    return new PlatinumRtd(Value.of(ohms), ToleranceClass.B, Wires.FOUR, Value.of(0), null);
  }

  @Override
  public String model() {
    return "rtd";
  }

  @Override
  public String title() {
    return "Platinum RTD";
  }

  @Override
  public String inHand() {
    return "platinum RTD";
  }

  @Override
  public String alsoCalled() {
    return "Pt100 Pt1000 resistance thermometer";
  }

  @Override
  public String summary() {
    return "%s Ω, class %s, %s"
        .formatted(Numbers.trimmed(resistance.number(), 5), toleranceClass.title(), wires.title());
  }

  @Override
  public Signal signal() {
    return Signal.RESISTANCE;
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    Expr element = own.of("R0").times(x.in(Unit.CELSIUS).through(RATIO, Expr.Mode.VALUE));
    boolean counts = wires == Wires.TWO && lead.number() > 0;
    return counts ? element.plus(Expr.num(2).times(own.of("Rw"))) : element;
  }

  @Override
  public boolean ratedByStandard() {
    return true;
  }

  @Override
  public Span rated(Unit quantity) {
    return NtcBeta.celsius(Value.of(VALID.low()), Value.of(VALID.high()), quantity);
  }

  @Override
  public Optional<Span> known(Unit quantity) {
    return Optional.of(rated(quantity));
  }

  @Override
  public Optional<Double> dissipationConstant() {
    return Optional.ofNullable(dissipation).map(v -> v.number() / 1000);
  }

  @Override
  public double classTolerance(double x, Unit quantity) {
    return toleranceClass.limit(quantity.convert(x, Unit.CELSIUS)) / quantity.factor();
  }
}
