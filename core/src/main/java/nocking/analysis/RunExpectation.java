package nocking.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Function;
import java.util.stream.DoubleStream;
import nocking.converter.Converter;
import nocking.fault.Fault;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Expectation;
import nocking.run.Instrument;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.Slip;
import nocking.sensor.CurrentLoop;
import nocking.wiring.Meter;
import nocking.wiring.Place;
import nocking.wiring.Thresholds;

/** What a channel should read in a run, where its meter stands, beside what is read there. */
public final class RunExpectation {
  private static final int ROWS = 33;

  /** Share of the working range to either side of it for which something is expected. */
  private static final double BEYOND = 0.1;

  /**
   * Share of what it reads at most by which a channel may be off before it is calibrated: in its
   * zero or in its gain.
   */
  private static final double OFF = 0.1;

  /** Counts from an end of the converter within which a reading tells nothing. */
  private static final double RAIL_COUNTS = 2;

  private static final double RAIL = 0.002;

  /** How many times as far from an end of the converter sound readings have to stay. */
  private static final double ROOM = 4;

  private RunExpectation() {}

  /** A plan whose channels are held against what the book knows of them, where nothing is said. */
  public static RunPlan in(RunPlan plan, Function<String, Optional<Analysis>> channel) {
    boolean steps = plan.procedure() != null;
    var next = new ArrayList<RunChannel>();
    for (RunChannel c : plan.channels()) {
      Optional<Expectation> e =
          c.expected() != null
              ? Optional.of(c.expected())
              : channel
                  .apply(c.channel())
                  .flatMap(a -> steps ? limits(a, c) : expected(a, c, plan));
      next.add(c.withExpected(e.orElse(null)));
    }
    return plan.withChannels(next);
  }

  /** Of a vessel that nobody has measured, pours are to tell the shape. */
  private static Optional<Expectation> expected(Analysis a, RunChannel c, RunPlan plan) {
    Optional<Expectation> e = of(a, c, plan.unit());
    return shapeUnknown(a, plan) ? e.map(Expectation::ofUnknownShape) : e;
  }

  private static boolean shapeUnknown(Analysis a, RunPlan plan) {
    return plan.kind() == RunPlan.Kind.POURS && a.channel().calibration().byDesign();
  }

  /** In a procedure what is read is what is being changed: only a fault is told from it. */
  private static Optional<Expectation> limits(Analysis a, RunChannel c) {
    Optional<DoubleUnaryOperator> volts = volts(a, c.meter());
    if (volts.isEmpty() || !c.meter().atReceiver()) return Optional.empty();
    Converter k = a.channel().design().converter();
    Thresholds t = limits(a, volts.get(), a.channel().definition().working());
    if (t == null) return Optional.empty();
    return Optional.of(
        new Expectation(
            List.of(),
            List.of(),
            OFF * k.reference().number(),
            limit(t, true, k, false),
            limit(t, false, k, false)));
  }

  /**
   * What a channel reads over its working range by the curve that it goes by, and its limits; empty
   * where nothing is known, and where what is applied is another quantity.
   *
   * @param unit of what is applied
   */
  public static Optional<Expectation> of(Analysis a, RunChannel c, String unit) {
    Unit applied = Unit.of(unit);
    if (!applied.dimension().equals(a.channel().unit().dimension())) return Optional.empty();
    if (c.raw().ofSensor()) return ofSensor(a, c, applied);
    Optional<DoubleUnaryOperator> volts = volts(a, c.meter());
    if (volts.isEmpty()) return Optional.empty();
    Converter k = a.channel().design().converter();
    boolean counts = c.raw() == RawUnit.COUNTS;
    Span w = a.channel().definition().working();
    var at = new ArrayList<Double>();
    var raw = new ArrayList<Double>();
    for (double own : places(a, w)) {
      double v = volts.get().applyAsDouble(own);
      if (!Double.isFinite(v)) continue;
      at.add(a.channel().unit().convert(own, applied));
      raw.add(counts ? (double) k.code(v) : v);
    }
    if (at.size() < 2 || at.getFirst() >= at.getLast()) return Optional.empty();
    double low = raw.stream().mapToDouble(v -> v).min().orElseThrow();
    double high = raw.stream().mapToDouble(v -> v).max().orElseThrow();
    double step = counts ? 1 : k.step();
    double most = Math.max(high - low, Math.max(Math.abs(low), Math.abs(high)));
    double allowance = Math.max(OFF * most, 2 * step);
    Thresholds limits = c.meter().atReceiver() ? limits(a, volts.get(), w) : null;
    return Optional.of(
        new Expectation(
            at, raw, allowance, limit(limits, true, k, counts), limit(limits, false, k, counts)));
  }

  /** What the sensor gives by itself, by its card: resistances over decades in shares of them. */
  private static Optional<Expectation> ofSensor(Analysis a, RunChannel c, Unit applied) {
    Optional<RawScale> scale = scale(a, c);
    if (scale.isEmpty()) return Optional.empty();
    var at = new ArrayList<Double>();
    var raw = new ArrayList<Double>();
    for (double own : places(a, a.channel().definition().working())) {
      double v = scale.get().raw(own);
      if (!Double.isFinite(v)) continue;
      at.add(a.channel().unit().convert(own, applied));
      raw.add(v);
    }
    if (at.size() < 2 || at.getFirst() >= at.getLast()) return Optional.empty();
    double most = raw.stream().mapToDouble(Math::abs).max().orElseThrow();
    boolean live = a.channel().design().sensor() instanceof CurrentLoop l && l.liveZero();
    return Optional.of(
        new Expectation(
            at,
            raw,
            OFF * most,
            live ? 1000 * CurrentLoop.FAILURE_LOW : null,
            live ? 1000 * CurrentLoop.FAILURE_HIGH : null,
            c.raw() == RawUnit.OHMS ? OFF : null,
            null));
  }

  private static Optional<RawScale> scale(Analysis a, RunChannel c) {
    return RawScale.of(c.raw(), a.channel().design().converter(), a.design().path());
  }

  private static Double limit(Thresholds t, boolean low, Converter k, boolean counts) {
    Value v = t == null ? null : low ? t.low() : t.high();
    if (v == null) return null;
    return counts ? (double) k.code(v.number()) : v.number();
  }

  private static double[] places(Analysis a, Span w) {
    Span known =
        a.channel()
            .design()
            .sensor()
            .known(a.channel().unit())
            .orElse(new Span(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY));
    double more = BEYOND * w.width();
    double from = Math.max(w.low() - more, Math.min(known.low(), w.low()));
    double to = Math.min(w.high() + more, Math.max(known.high(), w.high()));
    return DoubleStream.iterate(0, i -> i + 1)
        .limit(ROWS)
        .map(i -> from + (to - from) * i / (ROWS - 1))
        .toArray();
  }

  /**
   * The fault limits of the wire plan; where there is none the ends of the converter, as far as no
   * sound reading comes near them. Null for nothing of the kind.
   */
  private static Thresholds limits(Analysis a, DoubleUnaryOperator volts, Span w) {
    Converter k = a.channel().design().converter();
    Thresholds set = a.channel().wiring().plan().thresholds();
    double reference = k.reference().number();
    double rail = Math.max(RAIL_COUNTS * k.step(), RAIL * reference);
    double from = volts.applyAsDouble(w.low());
    double to = volts.applyAsDouble(w.high());
    boolean lowFree = Math.min(from, to) > ROOM * rail;
    boolean highFree = Math.max(from, to) < reference - ROOM * rail;
    Value low = set != null && set.low() != null ? set.low() : lowFree ? Value.of(rail) : null;
    Value high =
        set != null && set.high() != null
            ? set.high()
            : highFree ? Value.of(reference - rail) : null;
    return low == null && high == null ? null : new Thresholds(low, high);
  }

  /**
   * Volts at a meter for a quantity, in the channel's unit: at the receiver by the curve that is
   * gone by, elsewhere by the circuit with the meter in it.
   */
  private static Optional<DoubleUnaryOperator> volts(Analysis a, Instrument meter) {
    if (a.design().path().isEmpty()) return Optional.empty();
    if (meter.atReceiver()) return Optional.of(x -> a.wiring().voltsAt(x).orElse(Double.NaN));
    Place place = meter.stands();
    return a.wiring().subject().map(s -> x -> at(s, place, x));
  }

  private static double at(Subject s, Place place, double x) {
    var r = FaultyPath.of(s, Fault.NONE, x).read(place, Meter.HAND_HELD.inputResistance());
    return r.floats() ? Double.NaN : r.value();
  }

  /** What is read for what is applied, as the plan reads it; NaN where nothing is known of it. */
  private static double reads(Analysis a, RunPlan plan, int channel, double applied) {
    RunChannel c = plan.channels().get(channel);
    boolean same = Unit.of(plan.unit()).dimension().equals(a.channel().unit().dimension());
    if (c.raw() == RawUnit.COUNTS || !same || !Double.isFinite(applied)) return Double.NaN;
    double own = Unit.of(plan.unit()).convert(applied, a.channel().unit());
    if (c.raw().ofSensor()) return scale(a, c).map(s -> s.raw(own)).orElse(Double.NaN);
    return volts(a, c.meter()).map(f -> f.applyAsDouble(own)).orElse(Double.NaN);
  }

  /**
   * What is expected at what is applied, and how far a reading is from it; empty where nothing is.
   *
   * @param channel number of the channel in the plan
   * @param read as the plan reads it
   */
  public static String beside(Analysis a, RunPlan plan, int channel, double applied, double read) {
    double expects = reads(a, plan, channel, applied);
    if (!Double.isFinite(expects) || !Double.isFinite(read) || shapeUnknown(a, plan)) return "";
    RunChannel c = plan.channels().get(channel);
    boolean design = c.raw().ofSensor() || a.channel().calibration().byDesign();
    return "%s expects %s %s, %s off.%s"
        .formatted(
            design ? "The design" : "The curve",
            c.raw().amount(expects),
            where(c.meter()),
            c.raw().signed(read - expects),
            Slip.of(read, expects).map(w -> " " + w).orElse(""));
  }

  private static String where(Instrument meter) {
    return meter.atReceiver() ? "here" : "at " + meter.stands().title();
  }

  /** A slip in the point that was taken last, while it can be taken once more; empty for none. */
  public static String slip(Analysis a, RunPlan plan, int channel, RunPoint last) {
    double mean = last.mean(channel);
    double expects = reads(a, plan, channel, last.applied());
    RawUnit raw = plan.channels().get(channel).raw();
    return Slip.of(mean, expects)
        .map(
            w ->
                "The point before this one reads %s, expected is %s. %s Repeat takes it once more."
                    .formatted(raw.amount(mean), raw.amount(expects), w))
        .orElse("");
  }

  /** Where the meters of a plan stand, as far as what they read there makes no points. */
  public static List<String> elsewhere(RunPlan plan) {
    return plan.channels().stream()
        .filter(c -> !c.meter().atReceiver() && !c.raw().ofSensor())
        .map(c -> "%s is read at %s".formatted(c.tag(), c.meter().stands().title()))
        .toList();
  }
}
