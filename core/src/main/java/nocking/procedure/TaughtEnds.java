package nocking.procedure;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.ArrayList;
import java.util.List;
import nocking.check.Verdict;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;

/**
 * A sensor whose ends are taught: brought to an end, its teach wire is held to ground for a time.
 * Places are in the unit of the channel, times in seconds.
 *
 * @param travelLow low end of the full travel, where the factory has it
 * @param travelHigh high end of the full travel, above {@code travelLow}
 * @param low where the low end is to be; null where that end is not taught
 * @param high where the high end is to be; null where that end is not taught
 * @param lowMost share of the travel by which the low end may be moved inwards, 0 … 1; 0 for not
 * @param highMost share of the travel by which the high end may be moved inwards, 0 … 1; 0 for not
 * @param hold seconds for which the wire is held, above 0
 * @param timeOut seconds after the first end within which the second must be taught; null for no
 *     such time
 * @param meanwhile volts at the meter until both ends are taught; null where it is not known
 * @param lowVolts volts at the meter at the low end
 * @param highVolts volts at the meter at the high end
 * @param reset seconds for which the wire is held to get the factory state back; null where it is
 *     not done before
 */
@JsonTypeName("taught-ends")
public record TaughtEnds(
    Value travelLow,
    Value travelHigh,
    Value low,
    Value high,
    Value lowMost,
    Value highMost,
    Value hold,
    Value timeOut,
    Value meanwhile,
    Value lowVolts,
    Value highVolts,
    Value reset)
    implements Procedure {
  /** Volts by which an output that should stand still may be off. */
  private static final double STANDS = 0.05;

  /** Seconds. */
  private static final double AN_HOUR = 3600;

  /** Places at which it is verified. */
  private static final int VERIFIED = 3;

  public TaughtEnds {
    double from = Procedure.needed(travelLow, "the low end of the travel");
    double to = Procedure.needed(travelHigh, "the high end of the travel");
    if (!(from < to)) {
      throw new QuantityException(
          "the travel must rise: read %s … %s".formatted(travelLow.typed(), travelHigh.typed()));
    }
    if (low == null && high == null) throw new QuantityException("no end is to be taught");
    double width = to - from;
    if (low != null) {
      within("low", low, from, from + share(lowMost) * width);
    }
    if (high != null) {
      within("high", high, to - share(highMost) * width, to);
    }
    double a = low == null ? from : low.number();
    double b = high == null ? to : high.number();
    if (!(a < b)) {
      throw new QuantityException(
          "the taught ends must rise: read %s … %s"
              .formatted(Numbers.trimmed(a, 6), Numbers.trimmed(b, 6)));
    }
    positive(hold, "the time to hold the wire");
    if (timeOut != null) positive(timeOut, "the time within which it is taught");
    if (reset != null) positive(reset, "the time to hold for the factory state");
    if (Procedure.needed(lowVolts, "the output at the low end")
        == Procedure.needed(highVolts, "the output at the high end")) {
      throw new QuantityException("the output is the same at both ends");
    }
  }

  public TaughtEnds withTravel(Value from, Value to) {
    return new TaughtEnds(
        from, to, low, high, lowMost, highMost, hold, timeOut, meanwhile, lowVolts, highVolts,
        reset);
  }

  /** With the ends that are taught; null for one that is not. */
  public TaughtEnds withEnds(Value from, Value to) {
    return new TaughtEnds(
        travelLow,
        travelHigh,
        from,
        to,
        lowMost,
        highMost,
        hold,
        timeOut,
        meanwhile,
        lowVolts,
        highVolts,
        reset);
  }

  public TaughtEnds withMost(Value ofLow, Value ofHigh) {
    return new TaughtEnds(
        travelLow,
        travelHigh,
        low,
        high,
        ofLow,
        ofHigh,
        hold,
        timeOut,
        meanwhile,
        lowVolts,
        highVolts,
        reset);
  }

  public TaughtEnds withTimes(Value held, Value within, Value toReset) {
    return new TaughtEnds(
        travelLow,
        travelHigh,
        low,
        high,
        lowMost,
        highMost,
        held,
        within,
        meanwhile,
        lowVolts,
        highVolts,
        toReset);
  }

  /** With the volts at the meter until both ends are taught; null for unknown. */
  public TaughtEnds withMeanwhile(Value volts) {
    return new TaughtEnds(
        travelLow,
        travelHigh,
        low,
        high,
        lowMost,
        highMost,
        hold,
        timeOut,
        volts,
        lowVolts,
        highVolts,
        reset);
  }

  private static void positive(Value v, String what) {
    double seconds = Procedure.needed(v, what);
    if (!(seconds > 0 && seconds <= AN_HOUR)) {
      throw new QuantityException(
          "%s reads %s, expected more than 0 s and an hour at most".formatted(what, v.typed()));
    }
  }

  private static double share(Value v) {
    double s = v == null ? 0 : v.number();
    if (!(s >= 0 && s <= 1)) {
      throw new QuantityException(
          "the part of the travel by which an end may be moved reads %s, expected 0 … 1"
              .formatted(v.typed()));
    }
    return s;
  }

  private static void within(String end, Value at, double from, double to) {
    if (at.number() >= from - 1e-9 && at.number() <= to + 1e-9) return;
    throw new QuantityException(
        from == to
            ? "the %s end may not be taught; it stays at %s"
                .formatted(end, Numbers.trimmed(from, 6))
            : "the %s end may be taught from %s to %s; read %s"
                .formatted(end, Numbers.trimmed(from, 6), Numbers.trimmed(to, 6), at.typed()));
  }

  /** Where the output goes from end to end once it is taught. */
  public Span taught() {
    return new Span(
        low == null ? travelLow.number() : low.number(),
        high == null ? travelHigh.number() : high.number());
  }

  /** Volts at a place by the new transfer. */
  public double volts(double at) {
    double share = (at - taught().low()) / taught().width();
    return lowVolts.number() + share * (highVolts.number() - lowVolts.number());
  }

  @Override
  public String title() {
    return "taught end-points";
  }

  @Override
  public List<Step> steps(List<Taken> done) {
    var list = new ArrayList<Step>();
    if (reset != null) {
      list.add(
          ground(
              "Teach wire to ground: factory state",
              reset,
              "Held so long, it forgets what it was taught."));
      list.add(release());
    }
    int first = -1;
    if (low != null) {
      first = list.size() + 1;
      end(list, "low", low);
    }
    if (high != null) {
      int second = list.size();
      end(list, "high", high);
      if (first >= 0 && timeOut != null && done.size() > first) {
        long by = done.get(first).at() + Math.round(1000 * timeOut.number());
        for (int i = second; i < second + 2; i++) list.set(i, list.get(i).by(by));
      }
    }
    for (double share : new double[] {0, 0.5, 1}) {
      double at = taught().at(share);
      list.add(
          Step.at(
              "Verify at " + Numbers.trimmed(at, 5),
              "The new transfer gives %s here.".formatted(Known.volts(volts(at))),
              at));
    }
    return list;
  }

  private void end(List<Step> list, String which, Value at) {
    list.add(
        Step.at(
            "Bring it to the new %s end".formatted(which),
            "What the output is before it is taught is part of the record.",
            at.number()));
    String output =
        meanwhile == null
            ? "What the output does meanwhile is not known."
            : "The output stands at %s until it is taught."
                .formatted(Known.volts(meanwhile.number()));
    String late =
        timeOut == null || low == null || high == null
            ? ""
            : " Both ends within %s s, or it falls back to the factory state."
                .formatted(timeOut.typed());
    list.add(ground("Teach wire to ground", hold, output + late).going(at.number()));
    list.add(release());
  }

  private static Step ground(String title, Value seconds, String detail) {
    return Step.hands(
            title,
            "Hold it there for %s s, no longer than it takes. %s"
                .formatted(seconds.typed(), detail),
            "It is on ground",
            Deed.GROUND)
        .held(seconds.number());
  }

  private static Step release() {
    return Step.only(
        "Take the teach wire off ground",
        "Insulate its end: it must touch neither ground nor the supply.",
        "It is off",
        Deed.RELEASE);
  }

  @Override
  public String caution() {
    return "A teach wire goes to ground only, never to the positive supply, not even for a moment,"
        + " unless its maker says otherwise. Lock what moves before a hand reaches in.";
  }

  /** What counts is what it does at the three places where it is verified. */
  @Override
  public boolean carries(int step, List<Taken> done) {
    return step >= steps(done).size() - VERIFIED;
  }

  @Override
  public JobRecord read(List<Taken> done, Known known) {
    var lines = new JobRecord.Lines();
    lines.add(
        "full travel",
        "%s … %s".formatted(known.says(travelLow.number()), known.says(travelHigh.number())));
    int i = reset == null ? 0 : 2;
    Verdict stands = Verdict.PASS;
    var held = new ArrayList<Taken>();
    for (Value end : ends()) {
      if (done.size() <= i + 1) break;
      Taken ground = done.get(i + 1);
      held.add(ground);
      // With the last end taught the output follows its new transfer at once.
      boolean waits = held.size() < ends().size();
      double off = meanwhile == null || !waits ? 0 : ground.volts() - meanwhile.number();
      if (Math.abs(off) > STANDS) stands = Verdict.FAIL;
      lines.add(
          "taught at " + known.says(done.get(i).applied()),
          Known.volts(done.get(i).volts()) + " before",
          ground.skipped()
              ? "not taught: the step was left out"
              : "%s while it was held%s"
                  .formatted(
                      Known.volts(ground.volts()),
                      Math.abs(off) > STANDS
                          ? ", expected " + Known.volts(meanwhile.number())
                          : ""));
      i += 3;
    }
    boolean late =
        held.size() == 2
            && timeOut != null
            && held.get(1).at() - held.get(0).at() > 1000 * timeOut.number();
    if (late) {
      return lines.closed(
          Verdict.FAIL,
          "The second end came after %s s: the sensor has fallen back to the factory state."
              .formatted(Numbers.fixed((held.get(1).at() - held.get(0).at()) * 1e-3, 0)));
    }
    if (done.size() < i + 3) return lines.closed(Verdict.OPEN, "It is not verified yet.");
    return verified(done.subList(i, i + 3), stands, known, lines);
  }

  private List<Value> ends() {
    var list = new ArrayList<Value>();
    if (low != null) list.add(low);
    if (high != null) list.add(high);
    return list;
  }

  private JobRecord verified(
      List<Taken> three, Verdict stands, Known known, JobRecord.Lines lines) {
    Verdict all = Verdict.PASS;
    double worst = 0;
    double perVolt = taught().width() / (highVolts.number() - lowVolts.number());
    for (Taken t : three) {
      double off = t.volts() - volts(t.applied());
      double error = off * perVolt;
      Verdict v = Verdict.of(error, known.tolerance());
      if (v == Verdict.FAIL || (v == Verdict.OPEN && all == Verdict.PASS)) all = v;
      if (Math.abs(error) > Math.abs(worst)) worst = error;
      lines.add(
          "verified at " + known.says(t.applied()),
          Known.volts(t.volts()),
          "%s, %s".formatted(Known.millivolts(off), known.signed(error)));
    }
    lines.add(
        "new transfer",
        "%s … %s".formatted(Known.volts(lowVolts.number()), Known.volts(highVolts.number())),
        "for %s … %s".formatted(known.says(taught().low()), known.says(taught().high())));
    if (all == Verdict.PASS && stands == Verdict.FAIL) {
      return lines.closed(
          Verdict.PASS,
          "It follows the new transfer to %s, but the output did not stand as expected while it was"
                  .formatted(known.signed(worst))
              + " taught.");
    }
    if (three.stream().anyMatch(t -> !t.read())) {
      return lines.closed(Verdict.OPEN, "It is not verified at all three places.");
    }
    String says =
        all == Verdict.FAIL
            ? "It does not follow the new transfer: %s off. Teach it anew from the factory state."
                .formatted(known.signed(worst))
            : "It follows the new transfer, %s off at most%s."
                .formatted(
                    known.signed(worst), all == Verdict.OPEN ? "; no tolerance is stated" : "");
    return lines.closed(all, says);
  }
}
