package nocking.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.points.PointSet;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunPoint.How;
import nocking.run.RunProgress;
import nocking.run.StoredRun;

/** Takes the points of a run over into the channels that were read. */
public final class RunAdoption {
  private static final int DIGITS = 7;

  private RunAdoption() {}

  /**
   * The channel with the points of a run that it does not have yet. What did not settle, was taken
   * once more, or was taken with something against it and nobody there to say yes, is left out with
   * its reason.
   *
   * @param run id of the run in its book
   */
  public static Channel into(Channel c, String run, RunProgress progress) {
    RunPlan plan = progress.plan();
    int own = -1;
    for (int i = 0; i < plan.channels().size(); i++) {
      if (plan.channels().get(i).channel().equals(c.id())) own = i;
    }
    if (own < 0 || plan.procedure() != null || !takes(c, plan, own)) return c;
    PointSet set = c.calibration().points();
    RawUnit ran = plan.channels().get(own).raw();
    RawUnit raw = set.points().isEmpty() ? ran : set.raw();
    var more = new ArrayList<ReferencePoint>();
    for (int i = 0; i < progress.points().size(); i++) {
      RunPoint p = progress.points().get(i);
      if (p.how() == How.SKIPPED || p.readings().get(own).isEmpty()) continue;
      String doubt = p.doubt(plan.channels().get(own).tag()).orElse(null);
      var taken = new ReferencePoint.Taken(run, p.target() + 1, p.at(), doubt);
      if (set.points().stream().anyMatch(k -> taken.same(k.taken()))) continue;
      String out = progress.superseded(i);
      if (out.isEmpty() && p.how() == How.NOT_SETTLED) out = p.why();
      if (out.isEmpty() && doubt != null && p.unasked()) {
        out = "taken although " + doubt + "; nobody was asked";
      }
      more.add(
          new ReferencePoint(
              applied(p.applied(), plan, c),
              readings(p.readings().get(own), ran, raw, c.design().converter()),
              progress.targets().get(p.target()).down(),
              out.isEmpty() ? null : out,
              taken));
    }
    if (more.isEmpty()) return c;
    var next = new ArrayList<>(set.points());
    next.addAll(more);
    return c.calibration(k -> k.withPoints(new PointSet(raw, next)));
  }

  /**
   * Refuses a run that could not give a channel a single point.
   *
   * @throws QuantityException naming the channel, and what it is read in or applied to
   */
  public static void requireOneQuantity(RunPlan plan, Book book) {
    if (plan.procedure() != null) return;
    Unit applied = Unit.of(plan.unit());
    for (RunChannel c : plan.channels()) {
      Optional<String> forbids = book.byId(c.channel()).flatMap(k -> beside(k, c.raw()));
      if (forbids.isPresent()) {
        throw new QuantityException(forbids.get() + ": no point of this run would be one of it");
      }
      Unit own = book.byId(c.channel()).map(Channel::unit).orElse(applied);
      if (own.dimension().equals(applied.dimension())) continue;
      throw new QuantityException(
          "%s measures in %s, and what is applied is in %s: no point of this run would be one of it"
              .formatted(c.tag(), own.symbol(), applied.symbol()));
    }
  }

  /** A point is what was applied, and what the converter got of it or the sensor itself gave. */
  private static boolean takes(Channel c, RunPlan plan, int own) {
    RunChannel read = plan.channels().get(own);
    return Unit.of(plan.unit()).dimension().equals(c.unit().dimension())
        && (read.raw().ofSensor() || read.meter().atReceiver())
        && beside(c, read.raw()).isEmpty();
  }

  /** What forbids readings in a unit among the points of a channel; empty when nothing does. */
  private static Optional<String> beside(Channel c, RawUnit ran) {
    PointSet set = c.calibration().points();
    boolean of =
        !ran.ofSensor() || RawScale.own(c.design().sensor()).filter(ran::equals).isPresent();
    if (!of) {
      return Optional.of(
          "%s is read in %s, and its sensor gives nothing of the kind"
              .formatted(c.tag(), ran.title()));
    }
    boolean apart = ran != set.raw() && (ran.ofSensor() || set.raw().ofSensor());
    if (set.points().isEmpty() || !apart) return Optional.empty();
    return Optional.of(
        "%s has points in %s, and this run reads %s: what the circuit did and what the sensor does alone are not put together"
            .formatted(c.tag(), set.raw().title(), ran.title()));
  }

  /**
   * The unlocked channels of a book in which nothing stands of a run that is over and has points
   * for them: it ended, and what came of it was not put in.
   */
  public static List<Channel> lacking(StoredRun run, Book book) {
    RunProgress progress = run.progress();
    if (!progress.over()) return List.of();
    return run.plan().channels().stream()
        .map(c -> book.byId(c.channel()))
        .flatMap(Optional::stream)
        .filter(c -> !c.journal().locked() && !has(c, run.id()))
        .filter(c -> has(into(c, run.id(), progress), run.id()))
        .toList();
  }

  private static boolean has(Channel c, String run) {
    return c.calibration().points().points().stream()
        .anyMatch(p -> p.taken() != null && p.taken().run().equals(run));
  }

  /** A hundredth of the band that it had to be in is more than a reference can tell. */
  private static Value applied(double v, RunPlan plan, Channel c) {
    double own = Unit.of(plan.unit()).convert(v, c.unit());
    return typed(Numbers.fixed(own, Numbers.decimalsFor(plan.band() / 100)));
  }

  /** Digits are those that the scatter of the readings leaves, and one more. */
  private static List<Value> readings(List<Double> raw, RawUnit ran, RawUnit in, Converter k) {
    List<Double> own =
        raw.stream()
            .map(v -> ran == in ? v : in == RawUnit.VOLTS ? k.volts(v) : (double) k.code(v))
            .toList();
    double mean = own.stream().mapToDouble(v -> v).average().orElse(0);
    double spread =
        Math.sqrt(own.stream().mapToDouble(v -> (v - mean) * (v - mean)).average().orElse(0));
    return own.stream()
        .map(
            v ->
                spread > 0
                    ? Numbers.fixed(v, Numbers.decimalsFor(spread / 4))
                    : Numbers.significant(v, DIGITS))
        .map(RunAdoption::typed)
        .toList();
  }

  private static Value typed(String text) {
    return new Value(Double.parseDouble(text), text);
  }
}
