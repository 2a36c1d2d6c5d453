package nocking.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.channel.Adopted;
import nocking.channel.Channel;
import nocking.check.Verdict;
import nocking.fit.FitException;
import nocking.fit.FitModel;
import nocking.fit.Samples;
import nocking.fit.Trim;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.procedure.Known;
import nocking.procedure.LearntEnds;
import nocking.procedure.MechanicalTrim;
import nocking.procedure.Procedure;
import nocking.procedure.Stations;
import nocking.procedure.Taken;
import nocking.procedure.TaughtEnds;
import nocking.procedure.ZeroAndSpan;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.sensor.TwoPointSensor;

/** What a procedure changes in its channel, each in one revision. */
public final class JobAdoption {
  private static final int DIGITS = 5;

  private JobAdoption() {}

  /**
   * A change that follows from a record.
   *
   * @param label what its button says
   * @param change of the channel
   */
  public record Offer(String label, UnaryOperator<Channel> change) {}

  /**
   * What can be taken over into the channel; none where the record does not allow it, or where it
   * is there already.
   *
   * @param run id of the run in its book
   */
  public static List<Offer> offers(Procedure p, List<Taken> done, Analysis a, String run) {
    Optional<Known> known = Jobs.known(a);
    if (known.isEmpty() || !p.unsettled(done).isEmpty()) return List.of();
    Verdict verdict = p.record(done, known.get()).verdict();
    boolean judged = p instanceof TaughtEnds || p instanceof ZeroAndSpan;
    boolean read = done.stream().noneMatch(Taken::skipped);
    // Without a tolerance nothing is judged, and what was read holds all the same.
    boolean holds = judged && read && Double.isNaN(known.get().tolerance());
    if (verdict != Verdict.PASS && !(verdict == Verdict.OPEN && holds)) return List.of();
    return switch (p) {
      case MechanicalTrim _ -> List.of();
      case TaughtEnds t -> taught(t, done, a);
      case LearntEnds e -> ends(e, done, known.get(), a.channel(), run);
      case Stations s -> stations(s, done, a.channel());
      case ZeroAndSpan z -> trim(z, done, known.get(), a.channel());
    };
  }

  private static boolean whole(Procedure p, List<Taken> done) {
    return done.size() == p.steps(done).size();
  }

  private static Value rounded(double v) {
    return Value.of(Double.parseDouble(Numbers.significant(v, DIGITS)));
  }

  /** The sensor's new ends; what its output is at them stays. */
  private static List<Offer> taught(TaughtEnds t, List<Taken> done, Analysis a) {
    if (!whole(t, done)) return List.of();
    if (!(a.channel().design().sensor() instanceof TwoPointSensor s)) return List.of();
    Span ends = t.taught();
    boolean rises = s.lowAt().number() < s.highAt().number();
    Value low = Value.of(ends.low());
    Value high = Value.of(ends.high());
    var next =
        new TwoPointSensor(
            rises ? low : high,
            s.lowOutput(),
            rises ? high : low,
            s.highOutput(),
            s.sourceResistance());
    if (next.equals(s)) return List.of();
    // A curve that was measured before belongs to the ends before.
    return List.of(
        new Offer(
            "Take the new transfer over",
            c ->
                c.design(d -> d.withSensor(next)).calibration(k -> k.withAdopted(Adopted.DESIGN))));
  }

  private static List<Offer> ends(
      LearntEnds e, List<Taken> done, Known known, Channel channel, String run) {
    boolean there =
        channel.calibration().points().points().stream()
            .anyMatch(p -> p.taken() != null && p.taken().run().equals(run));
    // Ends are volts; points of the sensor alone would have to be thrown away for them.
    boolean other = channel.calibration().points().raw().ofSensor();
    if (there || other || !whole(e, done)) return List.of();
    End closed =
        new End(e.closed(), done.get(0), new ReferencePoint.Taken(run, 1, done.get(0).at()));
    End open = new End(e.open(), done.get(1), new ReferencePoint.Taken(run, 2, done.get(1).at()));
    boolean mirrored = e.mirrored(done, known);
    String label = mirrored ? "Go by these ends, mirrored" : "Go by these ends";
    return List.of(new Offer(label, c -> line(c, closed, open)));
  }

  /** An end of the travel as it was read. */
  private record End(Value at, Taken read, ReferencePoint.Taken taken) {}

  /** The line through two ends is adopted; they stand among the points, and others do not count. */
  private static Channel line(Channel c, End a, End b) {
    PointSet set = c.calibration().points();
    RawUnit raw = set.points().isEmpty() ? RawUnit.VOLTS : set.raw();
    var points = new ArrayList<ReferencePoint>();
    for (ReferencePoint p : set.points()) {
      points.add(p.counts() ? p.withLeftOut("from before the ends were learnt") : p);
    }
    points.add(end(c, raw, a));
    points.add(end(c, raw, b));
    var samples =
        new Samples(
            new double[] {a.read.volts(), b.read.volts()},
            new double[] {a.at.number(), b.at.number()});
    FitModel model = FitModel.of("ends").orElseThrow();
    try {
      var adopted = new Adopted(model.key(), model.fit(samples).coefficients(), 2);
      return c.calibration(k -> k.withPoints(new PointSet(raw, points)).withAdopted(adopted));
    } catch (FitException e) {
      return c;
    }
  }

  private static ReferencePoint end(Channel c, RawUnit raw, End end) {
    double volts = end.read.volts();
    Value reading =
        raw == RawUnit.VOLTS
            ? Value.of(Double.parseDouble(Numbers.significant(volts, 7)))
            : Value.of(c.design().converter().code(volts));
    return new ReferencePoint(end.at, List.of(reading), false, null, end.taken);
  }

  /** Where the stations were seen is added to what was seen before. */
  private static List<Offer> stations(Stations s, List<Taken> done, Channel channel) {
    if (!whole(s, done) || seen(channel, s, done)) return List.of();
    return List.of(new Offer("Into the bands", c -> c.wiring(w -> w.withBands(seen(s, done, c)))));
  }

  private static boolean seen(Channel c, Stations s, List<Taken> done) {
    // One that happens to read as it did before is no sign; all of them are.
    return s.names().stream()
        .allMatch(
            name -> {
              double up = rounded(s.up(done, s.names().indexOf(name))).number();
              return c.wiring().bands().positions().stream()
                  .filter(p -> p.name().equals(name))
                  .anyMatch(p -> p.up().stream().anyMatch(v -> v.number() == up));
            });
  }

  private static BandPlan seen(Stations s, List<Taken> done, Channel c) {
    BandPlan bands = c.wiring().bands();
    var list = new ArrayList<BandPosition>();
    for (int i = 0; i < s.names().size(); i++) {
      String name = s.names().get(i);
      double up = s.up(done, i);
      double down = s.down(done, i);
      BandPosition before =
          bands.positions().stream()
              .filter(p -> p.name().equals(name))
              .findFirst()
              .orElse(BandPosition.of(name, rounded(up)));
      list.add(before.withSettles(plus(before.up(), up), plus(before.down(), down)));
    }
    // Positions that are no stations of the lever stay as they are.
    for (BandPosition p : bands.positions()) {
      if (!s.names().contains(p.name())) list.add(p);
    }
    return bands.withPositions(list);
  }

  private static List<Value> plus(List<Value> before, double volts) {
    if (!Double.isFinite(volts)) return before;
    var next = new ArrayList<>(before);
    next.add(rounded(volts));
    return next;
  }

  private static List<Offer> trim(ZeroAndSpan z, List<Taken> done, Known known, Channel channel) {
    Optional<Trim> trim = z.trim(done, known);
    boolean there = trim.isPresent() && trim.get().equals(channel.calibration().trim());
    if (trim.isEmpty() || there || !whole(z, done)) return List.of();
    return List.of(new Offer("Trim by it", c -> c.calibration(k -> k.withTrim(trim.get()))));
  }
}
