package nocking.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.channel.Design;
import nocking.channel.DocumentException;
import nocking.channel.QuantityKind;
import nocking.channel.RunJson;
import nocking.check.Verdict;
import nocking.converter.Converter;
import nocking.path.SignalPath;
import nocking.procedure.JobRecord;
import nocking.procedure.Known;
import nocking.procedure.LearntEnds;
import nocking.procedure.MechanicalTrim;
import nocking.procedure.Procedure;
import nocking.procedure.Stations;
import nocking.procedure.Taken;
import nocking.procedure.TaughtEnds;
import nocking.procedure.ZeroAndSpan;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Course;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.RunProgress;
import nocking.run.SettleRule;
import nocking.run.StoredRun;
import nocking.sensor.TwoPointSensor;
import nocking.wiring.Thresholds;

/** Procedures as they would usually be done on a channel, and what they have to know of it. */
public final class Jobs {
  private static final double TEACH_HOLD = 3;
  private static final double TEACH_RESET = 10;
  private static final double TEACH_TIME_OUT = 120;

  /** Share of the travel by which an end can usually be moved. */
  private static final double TEACH_MOST = 0.25;

  /** Share of the step between stations that slack may take. */
  private static final double SLACK = 0.1;

  /** Readings that make a step of what catches or is clamped: hands wait for them. */
  private static final int FEW = 4;

  /** Readings that make a step of what may swing: a swing shows only to who looks long enough. */
  private static final int SOME = 8;

  /** Seconds between two readings of what catches or is clamped. */
  private static final double PACE = 0.5;

  /** Degrees by which a mounting may be from where it is turned to. */
  private static final double MOUNT_BAND = 0.2;

  /** Share of a station by which a lever that has caught may be from its number. */
  private static final double STATION_BAND = 0.2;

  private Jobs() {}

  /** What is known of a channel; empty while its path makes no sense. */
  public static Optional<Known> known(Analysis a) {
    return a.design().path().map(p -> known(a, p));
  }

  private static Known known(Analysis a, SignalPath path) {
    Definition d = a.channel().definition();
    Converter k = a.channel().design().converter();
    Optional<Thresholds> faults = Optional.ofNullable(a.channel().wiring().plan().thresholds());
    Optional<DoubleUnaryOperator> untrimmed = a.calibration().untrimmed().map(c -> c.function());
    return new Known(
        d.unit(),
        a.design().decimals(),
        d.working(),
        d.toleranceOrNaN(),
        new Span(0, k.reference().number()),
        path::output,
        untrimmed,
        faults);
  }

  /**
   * What came of a procedure. The record that was made at its end holds, whatever the channel has
   * become since.
   */
  public static JobRecord record(StoredRun run, Analysis a) {
    if (!run.closing().isEmpty()) {
      try {
        return RunJson.readRecord(run.closing(), "the record of " + run.plan().title());
      } catch (DocumentException e) {
        return new JobRecord(Verdict.OPEN, e.getMessage(), List.of());
      }
    }
    RunProgress progress = run.progress();
    return record(progress.plan(), progress.taken(), a);
  }

  /** What has come of a procedure so far. */
  public static JobRecord record(RunPlan plan, List<Taken> taken, Analysis a) {
    return known(a)
        .map(k -> plan.procedure().record(taken, k))
        .orElseGet(() -> new JobRecord(Verdict.OPEN, a.whyNoCircuit(), List.of()));
  }

  /** What is written down beside the end of a run; empty for one of set points. */
  public static String closing(RunProgress p, Analysis a) {
    return p.plan().procedure() == null ? "" : RunJson.compact(record(p.plan(), p.taken(), a));
  }

  /** What forbids to go on with a procedure after what was read; empty for nothing. */
  public static String forbids(RunProgress p, Analysis a) {
    Procedure job = p.plan().procedure();
    return job == null ? "" : known(a).map(k -> job.forbids(p.taken(), k)).orElse("");
  }

  /**
   * Refuses a procedure whose meter does not stand where its volts are meant.
   *
   * @throws QuantityException naming the meter and its place
   */
  public static void requireReceiver(RunPlan plan) {
    if (plan.procedure() == null) return;
    for (RunChannel c : plan.channels()) {
      if (c.meter().atReceiver()) continue;
      throw new QuantityException(
          "%s reads %s at %s; the volts of this procedure are those of the signal at the receiver"
              .formatted(c.meter().name(), c.tag(), c.meter().stands().title()));
    }
  }

  /** The procedures that can be done on a channel, as they would usually be. */
  public static List<Procedure> of(Analysis a) {
    var list = new ArrayList<Procedure>();
    Optional<SignalPath> path = a.design().path();
    if (path.isEmpty()) return list;
    Design d = a.channel().design();
    if (d.stations().size() > 1) {
      possible(() -> stations(d, path.get())).ifPresent(list::add);
      return list;
    }
    boolean travels = d.definition().kind().travels();
    if (travels) {
      possible(() -> trim(a, path.get())).ifPresent(list::add);
      possible(() -> new LearntEnds(d.definition().low(), d.definition().high()))
          .ifPresent(list::add);
    }
    if (travels && d.sensor() instanceof TwoPointSensor)
      possible(() -> taught(a, path.get())).ifPresent(list::add);
    // A mains that is on is at no rest that anybody knows without a reference.
    boolean rests = d.definition().kind() != QuantityKind.VOLTAGE || d.rest() == 0;
    if (rests) possible(() -> zeroAndSpan(d)).ifPresent(list::add);
    return list;
  }

  /** What cannot be done with the numbers of the channel is not offered. */
  private static Optional<Procedure> possible(Supplier<Procedure> draft) {
    try {
      return Optional.of(draft.get());
    } catch (QuantityException e) {
      return Optional.empty();
    }
  }

  private static Procedure stations(Design d, SignalPath path) {
    List<Double> volts =
        IntStream.rangeClosed(1, d.stations().size()).mapToObj(i -> path.output(i)).toList();
    double least = Double.POSITIVE_INFINITY;
    for (int i = 1; i < volts.size(); i++) {
      least = Math.min(least, Math.abs(volts.get(i) - volts.get(i - 1)));
    }
    return new Stations(d.stations(), rounded(SLACK * least, 2));
  }

  /** Trimmed at rest, to a third of what the tolerance is worth there. */
  private static Procedure trim(Analysis a, SignalPath path) {
    Design d = a.channel().design();
    double rest = d.rest();
    double tolerance = RunDraft.tolerance(a);
    double volts = path.output(rest);
    double worth = Math.abs(path.output(d.definition().working().at(0.5)) - volts);
    double perUnit = worth / Math.abs(d.definition().working().at(0.5) - rest);
    return new MechanicalTrim(
        rounded(volts, 4),
        rounded(tolerance / 3 * (Double.isFinite(perUnit) ? perUnit : 1), 2),
        Numbers.trimmed(rest, 5) + " " + d.definition().unit(),
        Value.of(12));
  }

  private static Procedure taught(Analysis a, SignalPath path) {
    Definition d = a.channel().definition();
    Span rated = a.channel().design().sensor().rated(a.channel().unit());
    Span w = d.working();
    var whole = new Span(Math.min(rated.low(), w.low()), Math.max(rated.high(), w.high()));
    double inwards = TEACH_MOST * whole.width();
    return new TaughtEnds(
        Value.of(whole.low()),
        Value.of(whole.high()),
        Value.of(Math.min(w.low(), whole.low() + inwards)),
        Value.of(Math.max(w.high(), whole.high() - inwards)),
        Value.of(TEACH_MOST),
        Value.of(TEACH_MOST),
        Value.of(TEACH_HOLD),
        Value.of(TEACH_TIME_OUT),
        null,
        rounded(path.output(rated.low()), 4),
        rounded(path.output(rated.high()), 4),
        Value.of(TEACH_RESET));
  }

  private static Procedure zeroAndSpan(Design d) {
    Span w = d.definition().working();
    double rest = d.rest();
    double far = Math.abs(w.high() - rest) >= Math.abs(w.low() - rest) ? w.high() : w.low();
    return new ZeroAndSpan(Value.of(rest), Value.of(far), "");
  }

  private static Value rounded(double v, int digits) {
    if (!Double.isFinite(v)) throw new QuantityException("the path gives no output here");
    return Value.of(Double.parseDouble(Numbers.significant(v, digits)));
  }

  /** The unit in which a procedure is placed. */
  public static Unit unit(Procedure p, Channel c) {
    return p instanceof MechanicalTrim ? Unit.of("°") : c.unit();
  }

  /** How a channel settles: what a hand catches or clamps comes to rest as fast as the hand. */
  private static RunChannel settling(RunChannel c, Procedure p) {
    if (!(c.settle() instanceof SettleRule.Rest r)) return c;
    return switch (p) {
      // How a sensor is mounted is not what it measures.
      case MechanicalTrim _ -> c.withSettle(r.withoutReference());
      case Stations _ -> c.withSettle(r.withLag(UsualLag.HAND));
      case TaughtEnds _, LearntEnds _, ZeroAndSpan _ -> c;
    };
  }

  /** True for what stands still as soon as it has caught or is clamped. */
  private static boolean caught(Procedure p) {
    return switch (p) {
      case MechanicalTrim _, Stations _ -> true;
      case TaughtEnds _, LearntEnds _, ZeroAndSpan _ -> false;
    };
  }

  private static int readings(Procedure p) {
    return caught(p) ? FEW : SOME;
  }

  /** The plan of a procedure in the place of one of set points. */
  public static RunPlan plan(RunPlan p, Procedure procedure, Channel c) {
    double band =
        switch (procedure) {
          case MechanicalTrim _ -> MOUNT_BAND;
          case Stations _ -> STATION_BAND;
          default -> p.band();
        };
    return p.withProcedure(procedure)
        .withUnit(unit(procedure, c).symbol())
        .withChannels(p.channels().stream().map(k -> settling(k, procedure)).toList())
        .withBand(band)
        .withAverage(Math.min(p.average(), readings(procedure)))
        .withEvery(caught(procedure) ? Math.min(p.every(), PACE) : p.every())
        .withCourse(Course.UP)
        .withRepeats(1);
  }
}
