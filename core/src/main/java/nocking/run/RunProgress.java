package nocking.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;
import nocking.points.RawUnit;
import nocking.procedure.Deed;
import nocking.procedure.Step;
import nocking.procedure.Taken;
import nocking.quantity.Numbers;
import nocking.quantity.Sentence;
import nocking.run.RunPoint.How;

/**
 * Where a run stands: what follows from its plan, its readings and what was done, in their order.
 * The same readings always give the same points, and those that are done with need no readings any
 * more. Memory does not grow with the readings. Not safe for several threads.
 */
public final class RunProgress {
  /** What is being waited for. */
  public enum Phase {
    /** The reference is not at the set point yet. */
    APPROACHING,
    SETTLING,
    AVERAGING,
    HELD,
    /** Ended before its end. */
    STOPPED,
    DONE
  }

  /** Seconds that a hand needs for the next step. */
  private static final double HAND = 5;

  /** Most readings of a step that has to be done by a time: they only show what it was. */
  private static final int HURRIED = 3;

  private RunPlan plan;
  private List<Target> targets;
  private List<Step> steps;
  private List<Settling> channels;
  private final List<RunPoint> points = new ArrayList<>();
  private final List<String> superseded = new ArrayList<>();
  private final List<Double> came = new ArrayList<>();
  private final List<Double> lags = new ArrayList<>();
  private Average average;
  private int next;
  private Phase phase = Phase.APPROACHING;
  private long since = Long.MIN_VALUE;
  private String forced = "";
  private How how = How.SETTLED;
  private int moved;
  private boolean ready = true;
  private Sweep last;
  private Doubts doubts;
  private Doubt doubt;
  private boolean insisted;

  public RunProgress(RunPlan plan) {
    this.plan = plan;
    doubts = new Doubts(plan);
    for (int i = 0; i < plan.channels().size(); i++) {
      came.add(Double.NaN);
      lags.add(Double.NaN);
    }
    look();
    begin();
  }

  /** Where a run stands of which these lines are in the journal. */
  public static RunProgress after(RunPlan plan, List<RunEntry> journal) {
    var progress = new RunProgress(plan);
    for (RunEntry e : journal) {
      switch (e) {
        case RunPoint p -> progress.close(p);
        case Act a -> progress.take(a);
        case PlanCorrection c -> progress.take(c);
      }
    }
    return progress;
  }

  /** Sees what is to be done after what was done so far. */
  private void look() {
    List<Taken> done = taken();
    targets = Pours.halved(plan) ? Pours.targets(plan, standing()) : plan.targets(done);
    steps = plan.steps(done);
  }

  /** What the steps before the one under way came to; those that were repeated count once. */
  public List<Taken> taken() {
    var list = new ArrayList<Taken>();
    for (RunPoint p : standing()) {
      boolean skipped = p.how() == How.SKIPPED;
      String open =
          p.how() == How.NOT_SETTLED ? p.why() : Objects.requireNonNullElse(p.doubt(), "");
      list.add(new Taken(p.at(), p.place(), p.mean(0), p.standardDeviation(0), skipped, open));
    }
    return list;
  }

  /** The points of what is done with that count, in their order. */
  private List<RunPoint> standing() {
    return IntStream.range(0, points.size())
        .filter(i -> superseded.get(i).isEmpty() && points.get(i).target() < next)
        .mapToObj(points::get)
        .toList();
  }

  /** Begins the point anew. */
  private void begin() {
    double hold = step().map(Step::hold).orElse(0.0);
    channels = settlings(hold);
    ready = step().map(s -> !asks(s)).orElse(true);
    since = Long.MIN_VALUE;
    forced = "";
    how = How.SETTLED;
    moved = 0;
    doubt = null;
    insisted = false;
    doubts.begin();
    countAnew();
    if (!over()) phase = Phase.APPROACHING;
  }

  private List<Settling> settlings(double hold) {
    var list = new ArrayList<Settling>();
    for (int i = 0; i < plan.channels().size(); i++) {
      RunChannel c = plan.channels().get(i);
      var s = new Settling(hold > 0 ? new SettleRule.Dwell(hold) : c.settle(), v -> amount(c, v));
      double before = came.get(i);
      if (Double.isFinite(before)) s.comesFrom(before);
      double lag = lags.get(i);
      if (Double.isFinite(lag)) s.learn(lag);
      list.add(s);
    }
    return list;
  }

  /** An amount of a reading, and about what that is in the unit of the plan. */
  private String amount(RunChannel c, double v) {
    String own = c.raw().small(v, 2);
    boolean told = c.settle() instanceof SettleRule.Rest r && r.sensitivity() != 0;
    if (!told) return own;
    double per = Math.abs(((SettleRule.Rest) c.settle()).sensitivity());
    String applied = (Numbers.significant(v / per, 2) + " " + plan.unit()).strip();
    return "%s (about %s)".formatted(own, applied);
  }

  /** What a point teaches of its channels: where they are now, and how fast they came there. */
  private void learn(RunPoint p) {
    for (int i = 0; i < plan.channels().size(); i++) {
      if (p.readings().get(i).isEmpty()) continue;
      came.set(i, p.mean(i));
      doubts.taken(i, p);
      RunPoint.Arrival a = p.arrival(i).orElse(null);
      if (a != null && a.lag() != null && p.how() == How.SETTLED) lags.set(i, a.lag());
    }
  }

  private void countAnew() {
    average = new Average(plan.channels().size(), wanted());
  }

  /** Takes what was done. */
  public void take(Act act) {
    if (over() && act.kind() != Act.Kind.BEGIN && act.kind() != Act.Kind.REPEAT) return;
    switch (act.kind()) {
      case BEGIN, GO -> {
        phase = next < targets.size() ? Phase.APPROACHING : Phase.DONE;
        begin();
      }
      case HOLD -> {
        begin();
        phase = Phase.HELD;
      }
      case SKIP -> close(without(act.at(), How.SKIPPED, act.why()));
      case READY -> ready(act);
      case REPEAT -> repeat(act.why());
      case TAKE -> {
        // What the hands have not done yet cannot be taken.
        if (!ready) return;
        forced = act.why().isEmpty() ? "taken by hand" : "taken by hand: " + act.why();
        channels.forEach(Settling::sayso);
        // Where something speaks against it, this is the yes to the readings that are there.
        insisted = doubt != null;
        if (insisted && average.full()) phase = Phase.AVERAGING;
        else average();
      }
      case STOP -> phase = Phase.STOPPED;
      case END -> phase = Phase.DONE;
      case NOTE, TROUBLE -> {}
    }
  }

  /** Goes on by a plan that was put right; what was read so far counts by it, too. */
  public void take(PlanCorrection correction) {
    var recount = new Recount(plan, correction.plan());
    points.replaceAll(recount::of);
    plan = correction.plan();
    doubts = new Doubts(plan);
    points.forEach(this::learn);
    look();
    begin();
  }

  /** True where the hands have to say that a step is done. */
  private boolean asks(Step s) {
    return s.byHand() || (s.placed() && plan.reference().byHand());
  }

  private void ready(Act act) {
    if (phase == Phase.HELD) return;
    ready = true;
    boolean reads = step().map(Step::reads).orElse(true);
    if (!reads) close(without(act.at(), How.CONFIRMED, act.why()));
  }

  /** A point that has no readings. */
  private RunPoint without(long at, How how, String why) {
    List<List<Double>> none = plan.channels().stream().map(c -> List.<Double>of()).toList();
    return new RunPoint(at, next, setPoint(), none, how, why);
  }

  /** Where the reference should be; for a step that has no place of its own, where it was. */
  private double setPoint() {
    double at = targets.get(next).setPoint();
    boolean turned = step().map(k -> k.deed() == Deed.LOOSEN).orElse(false);
    if (!Double.isNaN(at) && !(turned && plan.reference().byHand())) return at;
    return points.isEmpty() ? 0 : points.getLast().applied();
  }

  private void repeat(String why) {
    if (points.isEmpty()) return;
    int again = points.size() - 1;
    superseded.set(again, why.isEmpty() ? "taken once more" : "taken once more: " + why);
    next = points.get(again).target();
    look();
    phase = Phase.APPROACHING;
    begin();
  }

  private void average() {
    countAnew();
    phase = Phase.AVERAGING;
  }

  private void close(RunPoint p) {
    points.add(p);
    superseded.add("");
    learn(p);
    next = p.target() + 1;
    look();
    if (next >= targets.size()) phase = Phase.DONE;
    begin();
  }

  /**
   * Takes a sweep.
   *
   * @return the point that it completes
   */
  public Optional<RunPoint> take(Sweep s) {
    last = s;
    if (over() || s.target() != next) return Optional.empty();
    if (phase == Phase.HELD) return Optional.empty();
    if (since == Long.MIN_VALUE) since = s.at();
    boolean there = there(s);
    // What gives up is the settling.
    if (handsAtWork()) since = s.at();
    if (phase == Phase.APPROACHING && there) phase = Phase.SETTLING;
    else if (phase != Phase.APPROACHING && !there && forced.isEmpty()) leave();
    if (phase != Phase.APPROACHING) {
      for (int i = 0; i < channels.size(); i++) {
        channels.get(i).take(s.at(), s.raw().get(i), still(s, i));
      }
    }
    if (insisted && average.full()) return closed(s);
    if (doubtful(s)) return Optional.empty();
    if (plan.typed()) return typed(s);
    return switch (phase) {
      case APPROACHING, SETTLING -> settling(s);
      case AVERAGING -> averaging(s);
      case HELD, STOPPED, DONE -> Optional.empty();
    };
  }

  /** True where a reading can only be a fault: nobody waits for it to settle. */
  private boolean doubtful(Sweep s) {
    boolean read = phase == Phase.SETTLING || phase == Phase.AVERAGING;
    return read && !insisted && judged() && heldBy(doubts.reading(s, points));
  }

  /** What hands are about to change, or what nothing hangs on, may read what it likes. */
  private boolean judged() {
    return plan.procedure() == null || plan.procedure().carries(next, taken());
  }

  private boolean heldBy(Optional<Doubt> why) {
    why.ifPresent(
        d -> {
          doubt = d;
          phase = Phase.HELD;
        });
    return why.isPresent();
  }

  /** Why it is held before a point that is not taken without somebody's yes; empty for nothing. */
  public Optional<Doubt> doubt() {
    return phase == Phase.HELD ? Optional.ofNullable(doubt) : Optional.empty();
  }

  /** What a reading would be if the reference stood at its set point. */
  private double still(Sweep s, int channel) {
    double raw = s.raw().get(channel);
    double at = targets.get(next).setPoint();
    SettleRule rule = plan.channels().get(channel).settle();
    boolean followed =
        rule instanceof SettleRule.Rest && Double.isFinite(at) && Double.isFinite(s.applied());
    return followed ? raw - ((SettleRule.Rest) rule).sensitivity() * (s.applied() - at) : raw;
  }

  /** Who types has seen it settle: each number is a reading, and nothing gives up meanwhile. */
  private Optional<RunPoint> typed(Sweep s) {
    since = s.at();
    boolean nothing = s.raw().stream().anyMatch(v -> !Double.isFinite(v));
    if (phase == Phase.APPROACHING || nothing) return Optional.empty();
    if (phase == Phase.SETTLING) average();
    return averaging(s);
  }

  private boolean there(Sweep s) {
    if (!ready) return false;
    double at = targets.get(next).setPoint();
    // In a procedure the hands say where they are.
    boolean said = plan.procedure() != null && plan.reference().byHand();
    return said || Double.isNaN(at) || Math.abs(s.applied() - at) <= band(at);
  }

  /** What is not poured yet is not there, however small a pour became. */
  private double band(double at) {
    if (plan.kind() != RunPlan.Kind.POURS || points.isEmpty()) return plan.band();
    double pour = Math.abs(at - points.getLast().applied());
    return pour == 0 ? plan.band() : Math.min(plan.band(), pour / 2);
  }

  /** The reference has left its band: what comes next settles anew. */
  private void leave() {
    if (phase == Phase.AVERAGING) moved++;
    channels.forEach(Settling::forget);
    countAnew();
    phase = Phase.APPROACHING;
  }

  private Optional<RunPoint> settling(Sweep s) {
    double reach = wanted() * plan.every();
    if (phase == Phase.SETTLING
        && channels.stream().allMatch(c -> c.ready(reach))
        && stoppedDead().isEmpty()
        && stuck().isEmpty()) {
      average();
      return averaging(s);
    }
    if (hurries(s)) return hurried(s);
    return late(s) ? givenUp(s) : Optional.empty();
  }

  /** True where the next step has to be done by a time that would pass while this one settles. */
  private boolean hurries(Sweep s) {
    Step k = step().orElse(null);
    if (k == null || !k.hasDeadline() || k.hold() > 0 || handsAtWork()) return false;
    double then = next + 1 < steps.size() ? steps.get(next + 1).hold() : 0;
    return s.at() > k.until() - Math.round(1000 * (HAND + then + wanted() * plan.every()));
  }

  private Optional<RunPoint> hurried(Sweep s) {
    how = How.NOT_SETTLED;
    forced =
        "%s s are left for what has to be done in time: %s"
            .formatted(Math.max(0, (step().orElseThrow().until() - s.at()) / 1000), whyNot());
    average();
    return Optional.empty();
  }

  private boolean late(Sweep s) {
    return s.at() - since > 1000 * plan.giveUp();
  }

  private Optional<RunPoint> givenUp(Sweep s) {
    String why = "not settled after %s s: %s".formatted(seconds(plan.giveUp()), whyNot());
    return switch (plan.then()) {
      case TAKE -> {
        how = How.NOT_SETTLED;
        forced = why;
        average();
        yield Optional.empty();
      }
      case SKIP -> {
        RunPoint p = without(s.at(), How.SKIPPED, why);
        close(p);
        yield Optional.of(p);
      }
      case STOP -> {
        phase = Phase.STOPPED;
        yield Optional.empty();
      }
    };
  }

  private static String seconds(double s) {
    return s == Math.rint(s) ? "%.0f".formatted(s) : String.valueOf(s);
  }

  private Optional<RunPoint> averaging(Sweep s) {
    boolean free = forced.isEmpty() && !plan.typed();
    boolean whole = s.raw().stream().allMatch(Double::isFinite);
    double reach = wanted() * plan.every();
    boolean moves = channels.stream().anyMatch(c -> c.moves(reach));
    if (free && (!whole || moves || stoppedDead().isPresent())) {
      moved++;
      countAnew();
      phase = Phase.SETTLING;
      return Optional.empty();
    }
    for (int i = 0; i < channels.size(); i++) average.take(i, s.raw().get(i), still(s, i));
    average.placed(s.applied(), setPoint());
    average.supplied(s.supply());
    average.apart(s.beside() - s.applied());
    if (!average.full()) return Optional.empty();
    if (free && !holds()) return late(s) ? givenUp(s) : Optional.empty();
    boolean held = !insisted && judged() && heldBy(doubts.point(average, points));
    return held ? Optional.empty() : closed(s);
  }

  private Optional<RunPoint> closed(Sweep s) {
    var p = point(s);
    close(p);
    return Optional.of(p);
  }

  private boolean holds() {
    for (int i = 0; i < channels.size(); i++) {
      if (!channels.get(i).holds(average.still(i))) return false;
    }
    return true;
  }

  private RunPoint point(Sweep s) {
    Boolean unknown = !average.placeKnown() && plan.procedure() != null ? Boolean.TRUE : null;
    var arrivals = new ArrayList<RunPoint.Arrival>();
    var missing = new StringBuilder();
    for (int i = 0; i < channels.size(); i++) {
      arrivals.add(arrival(i));
      int n = average.readings().get(i).size();
      if (n < average.sweeps() && !plan.typed()) {
        missing.append(
            "; %s gave %d of %d readings"
                .formatted(plan.channels().get(i).tag(), n, average.sweeps()));
      }
    }
    boolean any = arrivals.stream().anyMatch(a -> a != null);
    return new RunPoint(
        s.at(),
        next,
        average.applied(),
        average.readings(),
        how,
        forced + missing,
        unknown,
        any ? arrivals : null,
        Double.isFinite(average.supply()) ? average.supply() : null,
        insisted ? doubt.says() : null,
        Double.isFinite(average.apart()) ? average.apart() : null);
  }

  /** How near a channel's mean is to where it was going; null where too little was read. */
  private RunPoint.Arrival arrival(int channel) {
    Outlook o = channels.get(channel).outlook();
    double mean = average.still(channel);
    if (!o.known() || !Double.isFinite(mean) || plan.typed()) return null;
    return new RunPoint.Arrival(
        o.end() - mean, o.error(), Double.isFinite(o.lag()) ? o.lag() : null);
  }

  /**
   * The channel that reads, to the last digit, what it read at another set point: nobody looks at
   * its sensor any more.
   */
  public Optional<RunChannel> stuck() {
    RunPoint before =
        points.reversed().stream().filter(p -> p.how() != How.SKIPPED).findFirst().orElse(null);
    if (before == null || target().isEmpty() || plan.procedure() != null) return Optional.empty();
    double apart = targets.get(before.target()).setPoint() - targets.get(next).setPoint();
    if (Math.abs(apart) <= 2 * plan.band()) return Optional.empty();
    for (int i = 0; i < channels.size(); i++) {
      List<Double> then = before.readings().get(i);
      // Counts are coarse: two set points may well have one code.
      boolean same =
          plan.channels().get(i).raw() != RawUnit.COUNTS
              && channels.get(i).frozen()
              && !then.isEmpty()
              && then.getLast() == channels.get(i).mean();
      if (same) return Optional.of(plan.channels().get(i));
    }
    return Optional.empty();
  }

  /** The channel whose meter no longer looks, as far as its readings tell. */
  private Optional<RunChannel> stoppedDead() {
    for (int i = 0; i < channels.size(); i++) {
      if (channels.get(i).stoppedDead()) return Optional.of(plan.channels().get(i));
    }
    return Optional.empty();
  }

  /** Why the point under way has not settled; empty when it has. */
  public String whyNot() {
    if (waitsForHands()) return "the hands are not done yet";
    if (doubt().isPresent()) return doubt.says();
    if (phase == Phase.APPROACHING) return "the reference is not at the set point";
    String settling =
        channels.stream().map(Settling::why).filter(w -> !w.isEmpty()).findFirst().orElse("");
    if (!settling.isEmpty()) return settling;
    if (phase == Phase.AVERAGING && forced.isEmpty() && average.full() && !plan.typed()) {
      return "the mean of %s scatters still; more readings in a point help"
          .formatted(Sentence.count(wanted(), "reading"));
    }
    Optional<RunChannel> dead = stoppedDead();
    if (dead.isPresent()) return "%s: %s".formatted(dead.get().tag(), Settling.HANGS);
    return stuck()
        .map(c -> "%s reads exactly what it read at the last set point".formatted(c.tag()))
        .orElse("");
  }

  public RunPlan plan() {
    return plan;
  }

  public List<Target> targets() {
    return targets;
  }

  /** The step of a procedure that is worked at; empty for set points and after the last. */
  public Optional<Step> step() {
    return next < steps.size() ? Optional.of(steps.get(next)) : Optional.empty();
  }

  /** The steps of a procedure as far as they are known; none for set points. */
  public List<Step> steps() {
    return steps;
  }

  /** True while the hands have not said that they are done. */
  public boolean waitsForHands() {
    return !over() && !ready;
  }

  /** True while hands bring the reference there, or do what a step asks: it takes what it takes. */
  public boolean handsAtWork() {
    return waitsForHands() || (phase == Phase.APPROACHING && plan.reference().byHand());
  }

  /** Index of the target that is worked at; the number of targets after the last. */
  public int next() {
    return next;
  }

  /** What is worked at; empty after the last. */
  public Optional<Target> target() {
    return next < targets.size() ? Optional.of(targets.get(next)) : Optional.empty();
  }

  public Phase phase() {
    return phase;
  }

  /** True when nothing more comes by itself. */
  public boolean over() {
    return phase == Phase.DONE || phase == Phase.STOPPED;
  }

  /** The readings of a channel as they come. */
  public Settling channel(int i) {
    return channels.get(i);
  }

  /** Where the readings of a channel go while the reference stands where it is now. */
  public Outlook outlook(int i) {
    Outlook o = channels.get(i).outlook();
    if (last == null || last.target() != next || target().isEmpty()) return o;
    double moved = last.raw().get(i) - still(last, i);
    return Double.isFinite(moved) ? o.higher(moved) : o;
  }

  /**
   * Sweeps that the point under way takes; what is held is held no longer than it has to be, and
   * what has to be done by a time is not kept waiting by them.
   */
  public int wanted() {
    Step k = step().orElse(null);
    if (k == null) return plan.average();
    if (k.hold() > 0) return 1;
    return k.hasDeadline() ? Math.min(HURRIED, plan.average()) : plan.average();
  }

  /** Sweeps that count for the point under way. */
  public int averaged() {
    return average.sweeps();
  }

  /** How often the point under way moved after it had settled. */
  public int moved() {
    return moved;
  }

  /** The newest sweep; empty before the first. */
  public Optional<Sweep> last() {
    return Optional.ofNullable(last);
  }

  /** Seconds that are likely still needed for this point; NaN while that cannot be told. */
  public double left() {
    return switch (phase) {
      case SETTLING ->
          channels.stream().mapToDouble(Settling::left).max().orElse(0) + wanted() * plan.every();
      case AVERAGING -> (wanted() - average.sweeps()) * plan.every();
      case APPROACHING, HELD -> Double.NaN;
      case STOPPED, DONE -> 0;
    };
  }

  /** Points that are done with, in their order, those that were taken once more among them. */
  public List<RunPoint> points() {
    return List.copyOf(points);
  }

  /** Why a point no longer counts, by its index among the points; empty when it does. */
  public String superseded(int point) {
    return superseded.get(point);
  }
}
