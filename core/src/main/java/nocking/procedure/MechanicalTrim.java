package nocking.procedure;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.ArrayList;
import java.util.List;
import nocking.check.Verdict;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * A sensor is turned in its mounting until the meter shows a target, and clamped. Clamping shifts
 * it: what it shifts by is learnt, and the next turn aims so far beside the target. Places are
 * degrees of the mounting from where it was found, or what else it is turned by.
 *
 * @param target volts that are wanted with the clamp tight
 * @param window volts to either side of it that are near enough, above 0
 * @param where what is measured meanwhile, for the cue: "closed", "0 %"
 * @param most degrees to either side that the mounting leaves; null where that is not known
 */
@JsonTypeName("mechanical-trim")
public record MechanicalTrim(Value target, Value window, String where, Value most)
    implements Procedure {
  /** Clampings after which it is given up. */
  public static final int ROUNDS = 6;

  /** Readings with a loose clamp after which it is given up. */
  private static final int TURNS = 24;

  /** Degrees of a first turn, from which the next is reckoned. */
  private static final double TRIAL = 2;

  public MechanicalTrim {
    Procedure.needed(target, "the target of the trim");
    if (!(Procedure.needed(window, "the window of the trim") > 0)) {
      throw new QuantityException(
          "the window of the trim reads %s, expected more than 0 V".formatted(window.typed()));
    }
    if (most != null && !(most.number() > 0)) {
      throw new QuantityException(
          "how far the mounting can be turned reads %s, expected more than 0°"
              .formatted(most.typed()));
    }
    where = where == null ? "" : where.strip();
  }

  /** Volts before and after the clamp was tightened. */
  private record Clamping(double loose, double tight) {
    double shift() {
      return tight - loose;
    }
  }

  /** What was learnt so far. */
  private final class Course {
    final List<Taken> loose = new ArrayList<>();
    final List<Clamping> clampings = new ArrayList<>();
    final Taken found;
    Taken last;
    boolean near;
    boolean outOfReach;

    Course(Taken found) {
      this.found = found;
      last = found;
      near = near(found.volts());
    }

    /** By how much tightening shifted it so far. */
    List<Double> shifts() {
      return clampings.stream().map(Clamping::shift).toList();
    }

    /** Volts to aim at with the clamp loose. */
    double aim() {
      return target.number() - mean(shifts());
    }

    /** Readings that tell what a degree does. */
    private List<Taken> told() {
      List<Taken> of = new ArrayList<>(loose);
      of.removeIf(t -> Double.isNaN(t.applied()));
      if (of.size() == 1 && found.read()) of.addFirst(found);
      return of;
    }

    /** Standard deviation of {@link #slope()} by what a reading scatters; NaN if untold. */
    double slopeScatter() {
      List<Taken> of = told();
      double x = of.stream().mapToDouble(Taken::applied).average().orElse(Double.NaN);
      double xx = of.stream().mapToDouble(t -> (t.applied() - x) * (t.applied() - x)).sum();
      double sum =
          of.stream().mapToDouble(t -> Math.pow((t.applied() - x) / xx * t.deviation(), 2)).sum();
      return Math.sqrt(sum);
    }

    /** Volts a degree, by least squares over the readings with a loose clamp; NaN if untold. */
    double slope() {
      List<Taken> of = told();
      double x = of.stream().mapToDouble(Taken::applied).average().orElse(Double.NaN);
      double y = of.stream().mapToDouble(Taken::volts).average().orElse(Double.NaN);
      double xx = of.stream().mapToDouble(t -> (t.applied() - x) * (t.applied() - x)).sum();
      double xy = of.stream().mapToDouble(t -> (t.applied() - x) * (t.volts() - y)).sum();
      return xx > 0 ? xy / xx : Double.NaN;
    }

    /** Where the aim should lie. */
    double place() {
      Taken from =
          loose.reversed().stream()
              .filter(t -> !Double.isNaN(t.applied()))
              .findFirst()
              .orElse(found);
      double slope = slope();
      double at = Double.isNaN(from.applied()) ? 0 : from.applied();
      if (Double.isNaN(slope) || slope == 0) return at + TRIAL;
      return at + (aim() - from.volts()) / slope;
    }

    void turned(Taken t) {
      if (t.read()) loose.add(t);
      last = t;
      boolean told = loose.size() > 1 && !Double.isNaN(t.applied()) && Double.isFinite(slope());
      outOfReach = most != null && told && Math.abs(place()) > most.number();
    }

    boolean there(Taken t) {
      return t.read() && Math.abs(t.volts() - aim()) <= window.number();
    }

    void tightened(Taken t) {
      if (t.read() && last.read()) clampings.add(new Clamping(last.volts(), t.volts()));
      last = t;
      near = near(t.volts());
    }
  }

  private boolean near(double volts) {
    return Verdict.of(volts - target.number(), window.number()) == Verdict.PASS;
  }

  private static double mean(List<Double> v) {
    return v.stream().mapToDouble(x -> x).average().orElse(0);
  }

  private static double scatter(List<Double> v) {
    double m = mean(v);
    double sum = v.stream().mapToDouble(x -> (x - m) * (x - m)).sum();
    return v.size() < 2 ? Double.NaN : Math.sqrt(sum / (v.size() - 1));
  }

  @Override
  public String title() {
    return "mechanical trim";
  }

  @Override
  public List<Step> steps(List<Taken> done) {
    var list = new ArrayList<Step>();
    walk(done, list);
    return list;
  }

  /** Goes through what was done, and adds the steps. */
  private Course walk(List<Taken> done, List<Step> list) {
    list.add(found());
    if (done.isEmpty()) {
      list.add(
          Step.hands("Loosen and turn", "Until the meter shows the aim.", "there", Deed.LOOSEN));
      list.add(tighten(target.number()));
      list.add(seal());
      return null;
    }
    var course = new Course(done.getFirst());
    int i = 1;
    for (int round = 0; !course.near && round < ROUNDS; round++) {
      Taken loose;
      do {
        list.add(turn(course));
        if (i == done.size()) return foreseen(course, list);
        loose = done.get(i++);
        course.turned(loose);
        if (course.outOfReach || course.loose.size() >= TURNS) return course;
      } while (!course.there(loose));
      list.add(tighten(loose.volts()));
      if (i == done.size()) {
        list.add(seal());
        return course;
      }
      course.tightened(done.get(i++));
    }
    if (course.near) list.add(seal());
    return course;
  }

  private Course foreseen(Course course, List<Step> list) {
    list.add(tighten(course.aim()));
    list.add(seal());
    return course;
  }

  private Step found() {
    String at = where.isEmpty() ? "" : "Bring it to " + where + ". ";
    return Step.hands(
            "Leave the clamp tight: as found",
            at + "What the meter shows before anything is moved is part of the record.",
            "It is tight",
            Deed.NONE)
        .going(0);
  }

  private Step turn(Course c) {
    double aim = c.aim();
    List<Double> shifts = c.shifts();
    double aside = aim - target.number();
    String beside =
        shifts.isEmpty()
            ? ""
            : " Aim %s mV %s: it moved by %s when it was tightened%s."
                .formatted(
                    Numbers.fixed(Math.abs(1000 * aside), 1),
                    aside > 0 ? "high" : "low",
                    Known.millivolts(mean(shifts)),
                    shifts.size() < 2
                        ? ""
                        : ", ± %s mV".formatted(Numbers.fixed(1000 * scatter(shifts), 1)));
    double slope = c.slope();
    String by =
        Double.isNaN(slope)
            ? " What a degree does is learnt once it is read how far it was turned."
            : " A degree is worth %s; about %s° from where it was found."
                .formatted(Known.millivolts(slope), Numbers.fixed(c.place(), 1));
    return Step.hands(
            "Turn until the meter shows " + Known.volts(aim),
            "Clamp loose, hand light." + beside + by,
            "It is there",
            Deed.LOOSEN)
        .going(c.place())
        .within(aim - window.number(), aim + window.number());
  }

  private Step tighten(double before) {
    return Step.hands(
            "Tighten the clamp",
            "It showed %s loose. Tighten as it will stay, take the hands off, and let it be read."
                .formatted(Known.volts(before)),
            "It is tight",
            Deed.TIGHTEN)
        .within(target.number() - window.number(), target.number() + window.number());
  }

  private static Step seal() {
    return Step.only(
        "Take the break-out lead out and check the seal",
        "A break-out lead is for the bench, not for service: put the connector together again, see"
            + " that its seal sits, and that the cable is held.",
        "Lead out, seal checked",
        Deed.NONE);
  }

  @Override
  public String caution() {
    return "Lock what the sensor sits on before a hand goes near: what it measures can move.";
  }

  /** What counts is what it shows with the clamp tight at the end. */
  @Override
  public boolean carries(int step, List<Taken> done) {
    int last = done.size() - 1;
    while (last > 0 && !done.get(last).read()) last--;
    return step == last;
  }

  @Override
  public JobRecord read(List<Taken> done, Known known) {
    var list = new ArrayList<Step>();
    Course c = walk(done, list);
    var lines = new JobRecord.Lines();
    double w = known.worth(window.number(), known.working().low());
    lines.add(
        "target",
        Known.volts(target.number()),
        "± %s mV, worth %s"
            .formatted(Numbers.trimmed(1000 * window.number(), 4), known.says(Math.abs(w))));
    if (c == null) return lines.closed(Verdict.OPEN, "Nothing is read yet.");
    lines.add(
        "as found",
        Known.volts(c.found.volts()),
        Known.millivolts(c.found.volts() - target.number()) + " off");
    for (int i = 0; i < c.clampings.size(); i++) {
      Clamping k = c.clampings.get(i);
      lines.add(
          "clamping %d".formatted(i + 1),
          "%s → %s".formatted(Known.volts(k.loose), Known.volts(k.tight)),
          Known.millivolts(k.shift()));
    }
    if (!c.loose.isEmpty() && Double.isFinite(c.slope())) {
      double scatter = c.slopeScatter();
      lines.add(
          "a degree is worth",
          Known.millivolts(c.slope()),
          Double.isFinite(scatter)
              ? "± %s mV, from %d readings"
                  .formatted(Numbers.significant(2000 * scatter, 2), c.told().size())
              : "from %d readings".formatted(c.told().size()));
      if (most != null) {
        double reach = Math.abs(c.slope()) * most.number();
        lines.add(
            "it can be turned",
            "± %s°".formatted(most.typed()),
            "± %s mV".formatted(Numbers.fixed(1000 * reach, 0)));
      }
    }
    List<Double> shifts = c.shifts();
    if (!shifts.isEmpty()) {
      lines.add(
          "tightening shifts it by",
          Known.millivolts(mean(shifts)),
          shifts.size() < 2
              ? "seen once"
              : "± %s mV, seen %d times"
                  .formatted(Numbers.fixed(1000 * scatter(shifts), 1), shifts.size()));
    }
    boolean sealed = c.near && done.size() == list.size() && !done.getLast().skipped();
    if (sealed) lines.add("break-out lead", "out", "seal checked");
    String beyond = c.near ? ends(c.last.volts(), known, lines) : "";
    if (!beyond.isEmpty()) return lines.closed(Verdict.FAIL, beyond);
    return lines.closed(verdict(c, sealed, done.size() < list.size()), says(c, sealed));
  }

  /**
   * What was set at one place moves the whole course: both ends by the design, beside the limits.
   *
   * @return what lies beyond a limit, in a sentence; empty for nothing
   */
  private String ends(double volts, Known known, JobRecord.Lines lines) {
    double low = known.design().applyAsDouble(known.working().low());
    double high = known.design().applyAsDouble(known.working().high());
    double set = Math.abs(target.number() - low) < Math.abs(target.number() - high) ? low : high;
    // Somewhere between the ends the design may well not have the target: then nothing is said.
    if (!(Math.abs(target.number() - set) <= window.number())) return "";
    double other = set == low ? known.working().high() : known.working().low();
    double there = known.design().applyAsDouble(other) + volts - set;
    if (!Double.isFinite(there)) return "";
    boolean converter = !known.converter().contains(there);
    boolean fault = known.faults().map(t -> t.fault(there)).orElse(false);
    lines.add(
        "by the design at " + known.says(other),
        Known.volts(there),
        converter ? "beyond the converter" : fault ? "beyond a fault limit" : "");
    if (!converter && !fault) return "";
    return "Near enough here, but by the design it would read %s at %s, beyond %s."
        .formatted(
            Known.volts(there),
            known.says(other),
            converter
                ? "what the converter takes"
                : "the fault limits (%s)".formatted(known.faults().orElseThrow().says()));
  }

  private Verdict verdict(Course c, boolean sealed, boolean going) {
    if (c.near) return sealed ? Verdict.PASS : Verdict.OPEN;
    return going ? Verdict.OPEN : Verdict.FAIL;
  }

  private String says(Course c, boolean sealed) {
    String off = Known.millivolts(c.last.volts() - target.number());
    if (c.outOfReach) {
      return "It would have to be turned to %s°, and the mounting leaves %s° to either side."
          .formatted(Numbers.fixed(c.place(), 1), most.typed());
    }
    if (c.near && !sealed)
      return "Near enough, %s off; that the lead is out and the seal sits is not said."
          .formatted(off);
    if (c.near) return "Near enough: %s off with the clamp tight.".formatted(off);
    List<Double> shifts = c.shifts();
    double s = scatter(shifts);
    if (shifts.size() >= ROUNDS) {
      return "Not near enough after %d clampings: tightening scatters by %s mV, the window is ± %s mV."
          .formatted(
              shifts.size(),
              Numbers.fixed(1000 * s, 1),
              Numbers.trimmed(1000 * window.number(), 4));
    }
    if (c.loose.size() >= TURNS) {
      return "Given up after %d turns, %s off.".formatted(TURNS, off);
    }
    return "%s off so far.".formatted(off);
  }
}
