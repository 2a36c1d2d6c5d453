package nocking.analysis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import nocking.channel.Definition;
import nocking.placement.Nominal;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Ticks;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Conditions;
import nocking.run.Course;
import nocking.run.Instrument;
import nocking.run.Pours;
import nocking.run.Purpose;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.SettleRule;
import nocking.run.Unsettled;

/** What a run on a channel would usually be: a first draft of its plan. */
public final class RunDraft {
  /** Share of the tolerance that a point may be from where it is going. */
  private static final double SHARE = 0.2;

  /** Share of the tolerance that a straight line between two pours may take. */
  private static final double LINES = 0.5;

  private static final double WITHOUT_TOLERANCE = 0.005;
  private static final int STEPS = 7;
  private static final int PLACES = 16;

  /** Share of the steepest slope below which a place counts as flat. */
  private static final double FLAT = 0.05;

  /** Readings that make a point where a meter gives them. */
  public static final int AVERAGE = 10;

  private static final double GIVE_UP = 720;

  private RunDraft() {}

  /** Tolerance of a channel, or half a percent of its range where it has none. */
  public static double tolerance(Analysis a) {
    Definition d = a.channel().definition();
    return d.tolerance() == null ? WITHOUT_TOLERANCE * d.working().width() : d.tolerance().number();
  }

  /** The channel as it is known before it is measured; empty while its path makes no sense. */
  public static Optional<Nominal> nominal(Analysis a) {
    double scatter = a.channel().design().converter().step() / Math.sqrt(AVERAGE);
    return a.design()
        .path()
        .map(p -> new Nominal(a.channel().definition().working(), p::output, scatter));
  }

  /**
   * How a channel would be read, as near to its end as its tolerance asks for.
   *
   * @param applied unit of the plan
   */
  public static RunChannel channel(Analysis a, Instrument meter, Unit applied) {
    RawUnit raw =
        Stream.of(RawUnit.OHMS, RawUnit.MILLIAMPERES)
            .filter(u -> meter.reads(u.unit()))
            .findFirst()
            .orElse(RawUnit.VOLTS);
    // What a meter tells apart of ohms is its own; of volts the converter's step is what counts.
    double step = raw.ofSensor() ? 0 : a.channel().design().converter().step();
    UsualLag lag = UsualLag.of(a.channel());
    double within = SHARE * tolerance(a) * leastSlope(a, raw);
    return new RunChannel(
        a.channel().id(),
        a.channel().tag(),
        raw,
        meter,
        new SettleRule.Rest(
            Math.max(within, step / 2), lag.seconds(), lag.creep(), sensitivity(a, raw, applied)),
        "");
  }

  /**
   * What is read more for one more of what is applied, in the middle of the working range, with its
   * sign; 0 where the path or the unit does not tell.
   */
  private static double sensitivity(Analysis a, RawUnit raw, Unit applied) {
    Unit own = a.channel().unit();
    if (!own.dimension().equals(applied.dimension())) return 0;
    double one = applied.difference().convert(1, own.difference());
    double s =
        reads(a, raw).map(f -> one * slope(f, a.channel().definition().working(), 0.5)).orElse(0.0);
    return Double.isFinite(s) ? s : 0;
  }

  /**
   * The least that is read more for one more of the quantity in the working range; where the curve
   * is flat beside what it is elsewhere, no nearness would do, and it does not count.
   */
  private static double leastSlope(Analysis a, RawUnit raw) {
    Span range = a.channel().definition().working();
    double whole = a.channel().design().converter().reference().number() / range.width();
    Optional<DoubleUnaryOperator> reads = reads(a, raw);
    if (reads.isEmpty()) return whole;
    double[] slopes =
        IntStream.rangeClosed(0, PLACES)
            .mapToDouble(i -> Math.abs(slope(reads.get(), range, (double) i / PLACES)))
            .filter(Double::isFinite)
            .toArray();
    double flat = FLAT * Arrays.stream(slopes).max().orElse(0);
    return Arrays.stream(slopes).filter(s -> s > flat).min().orElse(whole);
  }

  /** What is read where so much is applied, by the design. */
  private static Optional<DoubleUnaryOperator> reads(Analysis a, RawUnit raw) {
    return RawScale.of(raw, a.channel().design().converter(), a.design().path())
        .filter(s -> a.design().path().isPresent())
        .map(s -> s::raw);
  }

  private static double slope(DoubleUnaryOperator reads, Span range, double share) {
    double h = range.width() / 200;
    double x = range.low() + h + share * (range.width() - 2 * h);
    return (reads.applyAsDouble(x + h) - reads.applyAsDouble(x - h)) / (2 * h);
  }

  /** A plan for channels that are read together, up and down in even steps. */
  public static RunPlan plan(
      List<Analysis> channels, Instrument reference, List<Instrument> meters) {
    Analysis first = channels.getFirst();
    Definition d = first.channel().definition();
    var read = new ArrayList<RunChannel>();
    for (int i = 0; i < channels.size(); i++) {
      read.add(channel(channels.get(i), meters.get(i), first.channel().unit()));
    }
    return new RunPlan(
        "%s %s".formatted(d.tag(), d.name()).strip(),
        RunPlan.Kind.POINTS,
        first.channel().unit().symbol(),
        read,
        reference,
        evenSteps(d.working()),
        Course.UP_DOWN,
        1,
        1,
        meters.getFirst().byHand() ? 1 : AVERAGE,
        1,
        GIVE_UP,
        Math.max(tolerance(first), d.working().width() / 100),
        Unsettled.TAKE,
        Purpose.DEVELOPMENT,
        Conditions.NONE,
        null,
        null,
        null,
        null);
  }

  /**
   * The plan with its set points as totals of measured pours: upwards only, the total read by eye
   * or set by a pump. It waits until the waves that are seen leave over what the plan asks for, and
   * pours are halved where the vessel bends; where points of an earlier filling tell it, from the
   * first pour on.
   */
  public static RunPlan pours(RunPlan p, Analysis a) {
    Unit unit = Unit.of(p.unit());
    double straight =
        a.channel().unit().difference().convert(LINES * tolerance(a), unit.difference());
    List<Value> up =
        p.setPoints().stream().sorted(Comparator.comparingDouble(Value::number)).toList();
    List<Pours.Seen> seen =
        a.channel().calibration().points().counting().stream()
            .map(k -> seen(k, a.channel().unit(), unit))
            .toList();
    List<Value> totals = Pours.finer(up, seen, straight);
    double least = Double.POSITIVE_INFINITY;
    for (int i = 1; i < totals.size(); i++) {
      double pour = totals.get(i).number() - totals.get(i - 1).number();
      if (pour > 0) least = Math.min(least, pour);
    }
    // What hands pour is what it is; a pump goes to where it is sent.
    boolean hands = p.reference().byHand() && Double.isFinite(least);
    double band = hands ? least / 2 : p.band();
    return p.withKind(RunPlan.Kind.POURS)
        .withCourse(Course.UP)
        .withBand(band)
        .withSetPoints(totals)
        .withStraight(Value.of(Double.parseDouble(Numbers.significant(straight, 3))));
  }

  private static Pours.Seen seen(ReferencePoint k, Unit own, Unit unit) {
    double s = k.standardDeviation();
    double scatter = Double.isNaN(s) ? 0 : s / Math.sqrt(k.readings().size());
    return new Pours.Seen(own.convert(k.applied().number(), unit), k.mean(), scatter);
  }

  private static List<Value> evenSteps(Span range) {
    double[] round = Ticks.of(range, STEPS);
    boolean ends =
        round.length > 1
            && round[0] - range.low() < 1e-9 * range.width()
            && range.high() - round[round.length - 1] < 1e-9 * range.width();
    if (ends) return Arrays.stream(round).mapToObj(Value::of).toList();
    var list = new ArrayList<Value>();
    for (int i = 0; i < STEPS - 1; i++) list.add(Value.of(range.at(i / (STEPS - 2.0))));
    return List.copyOf(list);
  }
}
