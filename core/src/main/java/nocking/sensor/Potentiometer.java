package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.element.Choice;
import nocking.element.Measurand;
import nocking.element.Parameter;
import nocking.element.Symbols;
import nocking.element.Titled;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Potentiometer across a supply: V = V_s·(R_b + R_e + k·R)/(R_t + R + 2·R_e + R_b) with the wiper's
 * fraction k straight in the travel; the source resistance, what lies below the wiper beside what
 * lies above it, moves with it, so that any load bends the curve.
 *
 * <p>Separate resistors above and below the track keep the normal band off both rails, so that a
 * broken wire can be told from a true end. At the sensor they are part of what hangs on the wires;
 * at the receiver the wires hang on them.
 *
 * @param from mechanical stop, channel's unit
 * @param to other stop, channel's unit
 * @param start k at {@code from}, 0 to 1; greater than {@code end} for one that runs backwards
 * @param end k at {@code to}, 0 to 1
 * @param supply V_s, volts, above 0
 * @param track R, ohms, above 0
 * @param ends R_e, ohms left at each end of the track, at least 0
 * @param top R_t, ohms between supply and track, above 0; null for none
 * @param bottom R_b, ohms between track and ground, above 0; null for none
 * @param resistors where R_t and R_b sit; at the receiver where nothing is said
 */
@JsonTypeName("potentiometer")
public record Potentiometer(
    @Parameter(symbol = "xa", label = "Travel from", unit = "x") Value from,
    @Parameter(symbol = "xb", label = "Travel to", unit = "x") Value to,
    @Parameter(symbol = "ka", label = "Wiper at the start", least = 0, most = 1) Value start,
    @Parameter(symbol = "kb", label = "Wiper at the end", least = 0, most = 1) Value end,
    @Parameter(symbol = "Vsup", label = "Supply", unit = "V", above = 0) Value supply,
    @Parameter(symbol = "Rp", label = "Track", unit = "ohm", above = 0) Value track,
    @Parameter(symbol = "Re", label = "End resistance", unit = "ohm", least = 0) Value ends,
    @Parameter(
            symbol = "Rt",
            label = "Resistor at the top",
            unit = "ohm",
            above = 0,
            whenEmpty = "none")
        Value top,
    @Parameter(
            symbol = "Rb",
            label = "Resistor at the bottom",
            unit = "ohm",
            above = 0,
            whenEmpty = "none")
        Value bottom,
    @Choice(label = "End resistors are") EndSide resistors)
    implements Sensor {

  /** On which side of the wires the resistors above and below the track sit. */
  public enum EndSide implements Titled {
    RECEIVER("at the receiver"),
    SENSOR("at the sensor");

    private final String title;

    EndSide(String title) {
      this.title = title;
    }

    @Override
    public String title() {
      return title;
    }
  }

  public Potentiometer {
    // Documents from before there was a choice do not say.
    resistors = resistors == null ? EndSide.RECEIVER : resistors;
  }

  /** A potentiometer whose track lies between the supply and ground. */
  public Potentiometer(
      Value from, Value to, Value start, Value end, Value supply, Value track, Value ends) {
    this(from, to, start, end, supply, track, ends, null, null, EndSide.RECEIVER);
  }

  static final Potentiometer EXAMPLE =
      new Potentiometer(
          Value.of(0),
          Value.of(100),
          Value.of(0),
          Value.of(1),
          Value.of(5),
          Value.typed("5k", Unit.OHM),
          Value.of(0));

  @Override
  public String model() {
    return "potentiometer";
  }

  @Override
  public String title() {
    return "Potentiometer";
  }

  @Override
  public String inHand() {
    return "a potentiometer";
  }

  @Override
  public String alsoCalled() {
    return "lever slider wiper track";
  }

  @Override
  public String summary() {
    return "%s on %s V, %s"
        .formatted(
            Numbers.compact(track.number(), "Ω", 4),
            Numbers.trimmed(supply.number(), 4),
            end.number() < start.number() ? "backwards" : "forwards");
  }

  /** The same with resistors above and below the track. */
  public Potentiometer between(Value top, Value bottom, EndSide side) {
    return new Potentiometer(from, to, start, end, supply, track, ends, top, bottom, side);
  }

  /**
   * Fraction of the track below the wiper, held at the ends of the track.
   *
   * @param x channel's unit
   */
  public double fraction(double x) {
    double along = (x - from.number()) / (to.number() - from.number());
    return Math.clamp(start.number() + (end.number() - start.number()) * along, 0, 1);
  }

  /** Ohms of track and its ends below the wiper, without R_b. */
  public double trackBelow(double x) {
    return ends.number() + fraction(x) * track.number();
  }

  /** Ohms of track and its ends above the wiper, without R_t. */
  public double trackAbove(double x) {
    return ends.number() + (1 - fraction(x)) * track.number();
  }

  /** R_t in ohms, 0 for none. */
  public double topOhms() {
    return top == null ? 0 : top.number();
  }

  /** R_b in ohms, 0 for none. */
  public double bottomOhms() {
    return bottom == null ? 0 : bottom.number();
  }

  /** Fraction of the track below the wiper. */
  private Expr wiper(Measurand x, Symbols own) {
    return TwoPointSensor.line(x.expr(), own, "xa", "ka", "xb", "kb", from.number() == 0);
  }

  private Expr below(Measurand x, Symbols own) {
    Expr part = wiper(x, own).times(own.of("Rp"));
    Expr onTrack = ends.number() == 0 ? part : own.of("Re").plus(part);
    return bottom == null ? onTrack : own.of("Rb").plus(onTrack);
  }

  private Expr whole(Symbols own) {
    Expr all = own.of("Rp");
    if (ends.number() != 0) all = all.plus(Expr.num(2).times(own.of("Re")));
    if (top != null) all = all.plus(own.of("Rt"));
    return bottom == null ? all : all.plus(own.of("Rb"));
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    if (ends.number() == 0 && top == null && bottom == null)
      return own.of("Vsup").times(wiper(x, own));
    return own.of("Vsup").times(below(x, own)).over(whole(own));
  }

  @Override
  public Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    Expr below = below(x, own);
    return Optional.of(below.times(whole(own).minus(below)).over(whole(own)));
  }

  @Override
  public Span rated(Unit quantity) {
    return Span.between(from.number(), to.number());
  }

  @Override
  public Optional<Double> ratiometricSupply() {
    return Optional.of(supply.number());
  }
}
