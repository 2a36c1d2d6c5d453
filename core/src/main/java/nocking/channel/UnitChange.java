package nocking.channel;

import java.util.List;
import java.util.regex.Pattern;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.SwitchPoint;
import nocking.check.CheckPoint;
import nocking.check.CheckTable;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Parameter;
import nocking.points.PointSet;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityParser;
import nocking.quantity.Spread;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.Sensor;
import nocking.table.BenchPairs;
import nocking.table.Cell;
import nocking.table.DisplayLimits;
import nocking.table.TableSpec;
import nocking.wiring.Observation;
import nocking.wiring.Place;

/**
 * Another unit for a channel. Within a dimension every number that counts in the channel's unit is
 * converted, so that the channel stays what it was; to another dimension the numbers keep standing.
 * The adopted model is given up either way, for its constants belong to the old unit.
 */
public final class UnitChange {
  private static final int DIGITS = 12;

  /** What is typed without any unit. */
  private static final Pattern NUMBER = Pattern.compile("[-+*/().0-9eE\\s]+");

  private final Unit from;
  private final Unit to;

  private UnitChange(Unit from, Unit to) {
    this.from = from;
    this.to = to;
  }

  public static Channel apply(Channel channel, Unit to) {
    Unit from = channel.unit();
    Channel renamed =
        channel.define(d -> d.withUnit(to.symbol())).calibration(k -> k.withAdopted(null));
    return from.dimension().equals(to.dimension())
        ? new UnitChange(from, to).convert(renamed)
        : renamed;
  }

  /** Overload limits in another unit of the same dimension; else as they are. */
  public static Overload overload(Overload limits, Unit from, Unit to) {
    return limits != null && from.dimension().equals(to.dimension()) && !from.equals(to)
        ? new UnitChange(from, to).overload(limits)
        : limits;
  }

  /** A sensor with its numbers in another unit of the same dimension; else as it is. */
  public static Sensor sensor(Sensor sensor, Unit from, Unit to) {
    return from.dimension().equals(to.dimension()) && !from.equals(to)
        ? new UnitChange(from, to).sensor(sensor)
        : sensor;
  }

  private Channel convert(Channel c) {
    return c.design(this::design)
        .wiring(w -> new Wiring(w.plan(), bands(w.bands()), seen(w.seen()), w.checklist()))
        .calibration(k -> k.withPoints(points(k.points())))
        .receiver(this::receiver)
        .acceptance(a -> a.withCheck(check(a.check())));
  }

  private Design design(Design from) {
    Surroundings around = from.surroundings();
    return from.define(this::definition)
        .withSurroundings(around.withReference(difference(around.reference())))
        .withOverload(overload(from.overload()))
        .withSensor(from.sensor() == null ? null : sensor(from.sensor()));
  }

  private Overload overload(Overload o) {
    return o == null ? null : new Overload(value(o.proof()), value(o.burst()));
  }

  private Definition definition(Definition d) {
    return new Definition(
        d.tag(),
        d.name(),
        d.kind(),
        d.unit(),
        d.gauge(),
        value(d.low()),
        value(d.high()),
        tolerance(d),
        value(d.rest()),
        value(d.pivot()),
        d.hazards());
  }

  private PointSet points(PointSet set) {
    List<ReferencePoint> points =
        set.points().stream().map(p -> p.withApplied(value(p.applied()))).toList();
    return new PointSet(set.raw(), points);
  }

  /** What went into the receiver stays what it was; transfers say their own unit. */
  private Receiver receiver(Receiver r) {
    return r.withLimits(limits(r.limits()))
        .withTable(r.table() == null ? null : table(r.table()))
        .withBench(r.bench() == null ? null : bench(r.bench()))
        .withTyping(List.of());
  }

  private TableSpec table(TableSpec t) {
    List<Cell> hand =
        t.arithmetic().fullScale() > 0
            ? t.byHand()
            : t.byHand().stream()
                .map(c -> new Cell(c.raw(), value(Value.of(c.out())).number()))
                .toList();
    return t.withByHand(hand).with(t.goal().withTolerance(tolerance(t.goal().tolerance())));
  }

  /** A share of the span and steps of the output stay what they are; a unit that was typed, too. */
  private String tolerance(String typed) {
    if (typed == null || !NUMBER.matcher(typed).matches()) return typed;
    return difference(Value.of(QuantityParser.value(typed, Unit.ONE))).typed();
  }

  private BenchPairs bench(BenchPairs b) {
    return b.withTruth(b.truth().stream().map(t -> value(Value.of(t)).number()).toList());
  }

  private DisplayLimits limits(DisplayLimits l) {
    return l == null ? null : new DisplayLimits(value(l.low()), value(l.high()));
  }

  private CheckTable check(CheckTable sheet) {
    boolean readings = sheet.measured() == CheckTable.Measured.READING;
    List<CheckPoint> points =
        sheet.points().stream()
            .map(
                p ->
                    new CheckPoint(
                        value(p.applied()), readings ? value(p.measured()) : p.measured()))
            .toList();
    return new CheckTable(sheet.measured(), points);
  }

  private List<Observation> seen(List<Observation> list) {
    return list.stream().map(this::seen).toList();
  }

  /** A display shows the quantity; what was seen elsewhere is volts. */
  private Observation seen(Observation s) {
    boolean display = s.place().equals(Place.DISPLAY);
    return new Observation(
        s.place(),
        value(s.at()),
        display ? value(s.value()) : s.value(),
        display ? value(s.until()) : s.until());
  }

  /** Alarms and switches are stated in the quantity; positions are volts. */
  private BandPlan bands(BandPlan plan) {
    return plan.withAlarms(
            plan.alarms().stream()
                .map(a -> new AlarmBand(a.name(), value(a.from()), value(a.to())))
                .toList())
        .withHysteresis(difference(plan.hysteresis()))
        .withSwitches(
            plan.switches().stream()
                .map(
                    s ->
                        new SwitchPoint(
                            s.name(),
                            value(s.at()),
                            difference(s.window()),
                            value(s.up()),
                            value(s.down()),
                            s.activeLow()))
                .toList());
  }

  private Sensor sensor(Sensor sensor) {
    List<Field> fields = sensor.fields().stream().filter(Field::followsQuantity).toList();
    Sensor converted =
        Element.replace(
            sensor,
            fields,
            (field, v) ->
                field.parameter().unit().equals(Parameter.QUANTITY)
                    ? value(v)
                    : scaled(v, to.factor() / from.factor()));
    return converted.convert(from, to, this::value);
  }

  private Value value(Value v) {
    if (v == null) return null;
    Value converted = rounded(from.convert(v.number(), to));
    return converted.withSpread(spread(v.spread(), from.factor() / to.factor()));
  }

  /** A tolerance in percent of the span stays one. */
  private Value tolerance(Definition d) {
    if (d.tolerance() == null) return null;
    double width = Math.abs(value(d.high()).number() - value(d.low()).number());
    Value same = d.tolerance().forSpan(to.difference(), width);
    return same == d.tolerance() ? difference(d.tolerance()) : same;
  }

  private Value difference(Value v) {
    return v == null ? null : scaled(v, from.factor() / to.factor());
  }

  private static Value scaled(Value v, double factor) {
    return rounded(v.number() * factor).withSpread(spread(v.spread(), factor));
  }

  private static Spread spread(Spread s, double factor) {
    if (s == null || s.relative()) return s;
    return new Spread(s.limit() * factor, false, s.temperatureCoefficient(), s.distribution());
  }

  private static Value rounded(double v) {
    return Value.of(Double.parseDouble(Numbers.significant(v, DIGITS)));
  }
}
