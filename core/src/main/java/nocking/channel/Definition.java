package nocking.channel;

import java.util.ArrayList;
import java.util.List;
import nocking.quantity.Dimension;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * What a channel is for.
 *
 * @param tag short name, unique in the book, for example {@code IN-T2}
 * @param name in words
 * @param unit symbol of the channel's own unit
 * @param gauge true for gauge, false for absolute; null where the question does not arise: for all
 *     that is not a pressure in a unit of pressure
 * @param low start of the working range
 * @param high end of the working range, above {@code low}
 * @param tolerance largest error that is still good; null when none is stated
 * @param rest quantity at rest, for the check after power; null for what {@link Channel#rest()}
 *     says
 * @param pivot input that is wanted at the virtual ground or mid-scale; null when none is
 * @param hazards what can hurt someone here
 */
public record Definition(
    String tag,
    String name,
    QuantityKind kind,
    String unit,
    Boolean gauge,
    Value low,
    Value high,
    Value tolerance,
    Value rest,
    Value pivot,
    List<Hazard> hazards) {

  public Definition {
    if (tag == null || tag.isBlank()) throw new QuantityException("a channel needs a tag");
    if (!(low.number() < high.number())) {
      throw new QuantityException(
          "the working range must rise: read %s … %s".formatted(low.typed(), high.typed()));
    }
    if (tolerance != null && !(tolerance.number() > 0)) {
      throw new QuantityException("a tolerance must be above 0; read " + tolerance.typed());
    }
    if (!isPressure(kind, unit)) gauge = null;
    hazards = hazards == null ? List.of() : List.copyOf(hazards);
  }

  private static boolean isPressure(QuantityKind kind, String unit) {
    if (kind != QuantityKind.PRESSURE || unit == null) return false;
    try {
      return Unit.of(unit).dimension().equals(Dimension.PRESSURE);
    } catch (QuantityException e) {
      // Whoever asks for the unit is told; until then it is none of pressure.
      return false;
    }
  }

  /** A pressure of which nothing is said is against the atmosphere. */
  private static Boolean gauge(QuantityKind kind, String unit, Boolean said) {
    return said == null && isPressure(kind, unit) ? Boolean.TRUE : said;
  }

  /**
   * @throws QuantityException when the unit's symbol is not known
   */
  public Unit quantityUnit() {
    return Unit.of(unit);
  }

  public Span working() {
    return new Span(low.number(), high.number());
  }

  /** Tolerance, or NaN when none is stated. */
  public double toleranceOrNaN() {
    return tolerance == null ? Double.NaN : tolerance.number();
  }

  public Definition withTag(String v) {
    return new Definition(v, name, kind, unit, gauge, low, high, tolerance, rest, pivot, hazards);
  }

  public Definition withName(String v) {
    return new Definition(tag, v, kind, unit, gauge, low, high, tolerance, rest, pivot, hazards);
  }

  public Definition withKind(QuantityKind v) {
    Boolean reference = gauge(v, unit, gauge);
    return new Definition(
        tag, name, v, unit, reference, low, high, tolerance, rest, pivot, hazards);
  }

  /**
   * The same of another kind of quantity: hazards that are those of the kind go with it; those that
   * somebody set by hand stay, beside those of the new kind.
   */
  public Definition measuring(QuantityKind v) {
    Definition now = withKind(v);
    if (hazards.equals(kind.hazards())) return now.withHazards(v.hazards());
    for (Hazard h : v.hazards()) now = now.withHazard(h, true);
    return now;
  }

  public Definition withUnit(String v) {
    Boolean reference = gauge(kind, v, gauge);
    return new Definition(
        tag, name, kind, v, reference, low, high, tolerance, rest, pivot, hazards);
  }

  public Definition withGauge(Boolean v) {
    return new Definition(tag, name, kind, unit, v, low, high, tolerance, rest, pivot, hazards);
  }

  public Definition withRange(Value from, Value to) {
    double width = Math.abs(to.number() - from.number());
    Value within = tolerance == null ? null : tolerance.forSpan(quantityUnit().difference(), width);
    return new Definition(tag, name, kind, unit, gauge, from, to, within, rest, pivot, hazards);
  }

  public Definition withTolerance(Value v) {
    return new Definition(tag, name, kind, unit, gauge, low, high, v, rest, pivot, hazards);
  }

  public Definition withRest(Value v) {
    return new Definition(tag, name, kind, unit, gauge, low, high, tolerance, v, pivot, hazards);
  }

  public Definition withPivot(Value v) {
    return new Definition(tag, name, kind, unit, gauge, low, high, tolerance, rest, v, hazards);
  }

  public Definition withHazards(List<Hazard> v) {
    return new Definition(tag, name, kind, unit, gauge, low, high, tolerance, rest, pivot, v);
  }

  /**
   * The same with a hazard marked or not: one that is marked is there once, and stays in its place.
   */
  public Definition withHazard(Hazard hazard, boolean there) {
    if (hazards.contains(hazard) == there) return this;
    var next = new ArrayList<>(hazards);
    if (there) next.add(hazard);
    else next.remove(hazard);
    return withHazards(next);
  }
}
