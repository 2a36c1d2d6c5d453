package nocking.parts;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.ResistorCode;
import nocking.quantity.Span;
import nocking.quantity.Spread;
import nocking.quantity.Value;
import nocking.stage.Divider;
import nocking.stage.Follower;
import nocking.stage.InvertingAmp;
import nocking.stage.InvertingSummer;
import nocking.stage.NonInvertingAmp;
import nocking.stage.OffsetAdder;
import nocking.stage.Stage;

/**
 * Gain and shift with one operational amplifier: V_out = m·V_in + b, by the signs of m and b (the
 * four cases of Mancini, "Op Amps for Everyone", 2002, chapter 4).
 *
 * <ul>
 *   <li>m &gt; 0, b &gt; 0: resistive sum of signal and reference, then a non-inverting amplifier.
 *   <li>m &gt; 0, b &lt; 0: non-inverting amplifier whose R_g ends at a divided reference; the
 *       divider's source resistance counts as a part of R_g.
 *   <li>m &lt; 0, b &gt; 0: inverting amplifier about a divided reference.
 *   <li>m &lt; 0, b &lt; 0: inverting sum of signal and reference.
 * </ul>
 *
 * Ratios are made from pairs of parts; the error is that of the whole, in volts at the worse end of
 * the output span, relative to the span.
 */
public final class GainShift {
  private static final int TRIES = 16;

  /**
   * What is wanted.
   *
   * @param input volts that become the two outputs, in this order
   * @param reference stiff voltage that is there, volts, above 0
   * @param rails of the amplifier
   */
  public record Goal(
      double inLow, double inHigh, double outLow, double outHigh, double reference, Span rails) {
    public Goal {
      if (inLow == inHigh || outLow == outHigh) {
        throw new QuantityException("gain and shift need two different inputs and outputs");
      }
      if (!(reference > 0)) throw new QuantityException("the reference must be above 0 V");
    }

    /** m. */
    public double gain() {
      return (outHigh - outLow) / (inHigh - inLow);
    }

    /** b, volts. */
    public double shift() {
      return outLow - gain() * inLow;
    }

    /** What it comes to in words: {@code Vout = 2.5·Vin − 0.75 V}. */
    public String text() {
      return "Vout = %s·Vin %s %s V"
          .formatted(
              Numbers.significant(gain(), 6),
              shift() < 0 ? "−" : "+",
              Numbers.significant(Math.abs(shift()), 6));
    }
  }

  private record Pair(double a, double b, StockPart partA, StockPart partB) {}

  private final Assortment assortment;
  private final Goal goal;
  private final Candidates.Best best = new Candidates.Best();

  private GainShift(Assortment assortment, Goal goal) {
    this.assortment = assortment;
    this.goal = goal;
  }

  /**
   * The best single-amplifier circuits for a gain and a shift, none of which leaves its rails.
   *
   * @throws QuantityException when the wanted output itself leaves the rails
   */
  public static Candidates search(Assortment assortment, Goal goal) {
    if (!goal.rails.contains(goal.outLow) || !goal.rails.contains(goal.outHigh)) {
      throw new QuantityException(
          "the output wanted, %s … %s V, leaves the rails %s … %s V: no amplifier between them gives it"
              .formatted(
                  Numbers.trimmed(goal.outLow, 5),
                  Numbers.trimmed(goal.outHigh, 5),
                  Numbers.trimmed(goal.rails.low(), 5),
                  Numbers.trimmed(goal.rails.high(), 5)));
    }
    var g = new GainShift(assortment, goal);
    double m = goal.gain();
    double b = goal.shift();
    boolean none = Math.abs(b) < 1e-9 * Math.abs(goal.outHigh - goal.outLow);
    if (m > 0 && none) g.plain();
    else if (m > 0 && b > 0) g.sum();
    else if (m > 0) g.subtract();
    else if (b > 0) g.invert();
    else g.invertingSum(none);
    return g.best.candidates(false);
  }

  /** m &gt; 0, b = 0: an amplifier, or below 1 a divider. */
  private void plain() {
    double m = goal.gain();
    if (m < 1) {
      for (Pair p : pairs(m / (1 - m))) {
        offer(List.of(divider(p)), named(p, "R2", "R1"), "");
      }
      return;
    }
    if (m == 1) {
      offer(List.of(new Follower(rail(0), rail(1))), List.of(), "");
      return;
    }
    for (Pair p : pairs(m - 1)) {
      offer(List.of(nonInverting(p, new Value(0, "0"))), named(p, "Rf", "Rg"), "");
    }
  }

  /** m &gt; 0, b &gt; 0. R₁ in the signal, R₂ from the reference: R₂/R₁ = m·V_ref/b. */
  private void sum() {
    double m = goal.gain();
    double b = goal.shift();
    double gain = m + b / goal.reference;
    for (Pair s : pairs(m * goal.reference / b)) {
      double share = s.a / (s.a + s.b);
      var adder = new OffsetAdder(value(s.partB), value(s.partA), reference());
      double wanted = m / share;
      List<Solution.Named> legs = named(s, "R2", "R1");
      if (wanted < 1 - 1e-9) continue;
      if (Math.abs(gain - 1) < 1e-9) {
        offer(List.of(adder, follower()), legs, "");
        continue;
      }
      for (Pair p : pairs(wanted - 1)) {
        offer(
            List.of(adder, nonInverting(p, new Value(0, "0"))),
            joined(legs, named(p, "Rf", "Rg")),
            "");
      }
    }
    if (gain < 1) reduced(gain);
  }

  /** A gain below 1 with a positive shift: the sum has a third resistor to ground. */
  private void reduced(double gain) {
    double m = goal.gain();
    double b = goal.shift();
    for (Pair s : pairs(m * goal.reference / b)) {
      // The sum alone has the gain 1 in all; the divider behind a follower takes the rest.
      var adder = new OffsetAdder(value(s.partB), value(s.partA), reference());
      double share = s.a / (s.a + s.b);
      double left = m / share;
      if (!(left < 1)) continue;
      for (Pair p : pairs(left / (1 - left))) {
        offer(
            List.of(adder, follower(), divider(p)),
            joined(named(s, "R2", "R1"), named(p, "R4", "R3")),
            "gain below 1: a divider behind the amplifier");
      }
    }
  }

  /**
   * m &gt; 0, b &lt; 0. R_f/R_g = m − 1 and V' = −b/(m − 1); below 2 the signal is divided first.
   */
  private void subtract() {
    double m = goal.gain();
    double b = -goal.shift();
    double ratio = m >= 1.2 ? m - 1 : 1;
    double divided = m >= 1.2 ? 1 : m / 2;
    double towards = b / ratio;
    if (towards >= goal.reference) {
      // Every bit of the reference is needed, and more gain on it: divide the signal further.
      ratio = b / (0.8 * goal.reference);
      towards = 0.8 * goal.reference;
      divided = m / (1 + ratio);
    }
    if (divided > 1) return;
    for (Pair r : pairs(towards / (goal.reference - towards))) {
      double source = r.a * r.b / (r.a + r.b);
      double volts = goal.reference * r.a / (r.a + r.b);
      for (Pair p : pairs(ratio, source)) {
        Value ground =
            toleranced(
                new Value(
                    p.b + source,
                    "%s + (%s || %s)"
                        .formatted(
                            ResistorCode.of(p.b), ResistorCode.of(r.a), ResistorCode.of(r.b))),
                Math.max(p.partB.tolerance(), Math.max(r.partA.tolerance(), r.partB.tolerance())));
        var amp = new NonInvertingAmp(value(p.partA), ground, divided(r, volts), rail(0), rail(1));
        List<Solution.Named> legs = joined(named(r, "R2", "R1"), named(p, "Rf", "Rg"));
        if (divided == 1) {
          offer(List.of(amp), legs, note(volts));
        } else {
          for (Pair d : pairs(divided / (1 - divided))) {
            offer(
                List.of(divider(d), amp),
                joined(named(d, "R4", "R3"), legs),
                note(volts) + ", the signal divided first");
          }
        }
      }
    }
  }

  /** m &lt; 0, b &gt; 0: R_f/R_g = −m and V' = b/(1 − m). */
  private void invert() {
    double gain = -goal.gain();
    double towards = goal.shift() / (1 + gain);
    if (towards >= goal.reference) return;
    for (Pair p : pairs(gain)) {
      for (Pair r : pairs(towards / (goal.reference - towards))) {
        double volts = goal.reference * r.a / (r.a + r.b);
        var amp =
            new InvertingAmp(value(p.partA), value(p.partB), divided(r, volts), rail(0), rail(1));
        offer(List.of(amp), joined(named(r, "R2", "R1"), named(p, "Rf", "Rg")), note(volts));
      }
    }
  }

  /** m &lt; 0, b ≤ 0: R_f/R_g = −m and R_f/R_o = −b/V_ref. */
  private void invertingSum(boolean none) {
    for (Pair p : pairs(-goal.gain())) {
      if (none) {
        var amp =
            new InvertingAmp(value(p.partA), value(p.partB), new Value(0, "0"), rail(0), rail(1));
        offer(List.of(amp), named(p, "Rf", "Rg"), "");
        continue;
      }
      double offset = p.a * goal.reference / -goal.shift();
      for (StockPart o : neighbours(offset)) {
        var amp =
            new InvertingSummer(
                value(p.partA), value(p.partB), value(o), reference(), rail(0), rail(1));
        offer(
            List.of(amp),
            joined(named(p, "Rf", "Rg"), List.of(new Solution.Named("Ro", Network.of(o)))),
            "");
      }
    }
  }

  private String note(double volts) {
    return "reference divided to " + Numbers.engineering(volts, "V", 4);
  }

  /** A reference that two resistors divide, with what their tolerances make of it. */
  private Value divided(Pair r, double volts) {
    double ta = r.partA.tolerance() / 100;
    double tb = r.partB.tolerance() / 100;
    double share = r.a / (r.a + r.b);
    double most = r.a * (1 + ta) / (r.a * (1 + ta) + r.b * (1 - tb));
    double least = r.a * (1 - ta) / (r.a * (1 - ta) + r.b * (1 + tb));
    var value =
        new Value(
            volts,
            "%s*%s/(%s + %s)"
                .formatted(
                    Numbers.plain(goal.reference),
                    ResistorCode.of(r.a),
                    ResistorCode.of(r.b),
                    ResistorCode.of(r.a)));
    return toleranced(value, 100 * Math.max(most / share - 1, 1 - least / share));
  }

  private static Value toleranced(Value v, double percent) {
    return percent > 0 ? v.withSpread(Spread.percent(percent)) : v;
  }

  private Value reference() {
    return Value.of(goal.reference);
  }

  private Value rail(int which) {
    return Value.of(which == 0 ? goal.rails.low() : goal.rails.high());
  }

  private static Value value(StockPart p) {
    return toleranced(new Value(p.ohms(), ResistorCode.of(p.ohms())), p.tolerance());
  }

  private Stage follower() {
    return new Follower(rail(0), rail(1));
  }

  private Divider divider(Pair p) {
    return new Divider(value(p.partB), value(p.partA));
  }

  private NonInvertingAmp nonInverting(Pair p, Value reference) {
    return new NonInvertingAmp(value(p.partA), value(p.partB), reference, rail(0), rail(1));
  }

  private static List<Solution.Named> named(Pair p, String a, String b) {
    return List.of(
        new Solution.Named(a, Network.of(p.partA)), new Solution.Named(b, Network.of(p.partB)));
  }

  private static List<Solution.Named> joined(List<Solution.Named> a, List<Solution.Named> b) {
    var list = new ArrayList<>(a);
    list.addAll(b);
    return list;
  }

  private List<Pair> pairs(double ratio) {
    return pairs(ratio, 0);
  }

  /** Pairs of usual size whose ratio a/(b + behind) comes nearest, the best few. */
  private List<Pair> pairs(double ratio, double behind) {
    var list = new ArrayList<Pair>();
    for (int j = 0; j < assortment.size(); j++) {
      double b = assortment.ohms(j);
      if (b < 900 || b > 200e3) continue;
      int jj = j;
      int at = assortment.atLeast((b + behind) * ratio);
      for (int i : Combination.beside(at, assortment.size(), k -> assortment.enough(k, jj))) {
        double a = assortment.ohms(i);
        if (a < 100 || a > 2.2e6) continue;
        list.add(new Pair(a, b, assortment.part(i), assortment.part(j)));
      }
    }
    list.sort(Comparator.comparingDouble(p -> Math.abs(Math.log(p.a / (p.b + behind) / ratio))));
    return list.subList(0, Math.min(TRIES, list.size()));
  }

  private List<StockPart> neighbours(double ohms) {
    var list = new ArrayList<StockPart>();
    int at = assortment.atLeast(ohms);
    for (int i : Combination.beside(at, assortment.size(), k -> true)) {
      list.add(assortment.part(i));
    }
    return list;
  }

  /** Judges a circuit by its outputs at both ends, unloaded, and keeps it when it is good. */
  private void offer(List<Stage> stages, List<Solution.Named> parts, String note) {
    if (!enough(parts)) return;
    double span = Math.abs(goal.outHigh - goal.outLow);
    Optional<double[]> ends = Circuits.outputs(stages, goal.inLow, goal.inHigh);
    if (ends.isEmpty()) return;
    // A circuit that needs more than its rails is none.
    boolean inside =
        Circuits.insideRails(stages, goal.inLow) && Circuits.insideRails(stages, goal.inHigh);
    if (!inside) return;
    double low = ends.get()[0] - goal.outLow;
    double high = ends.get()[1] - goal.outHigh;
    double error = (Math.abs(low) > Math.abs(high) ? low : high) / span;
    if (!best.wants(error)) return;
    best.offer(
        new Solution(
            parts,
            (ends.get()[1] - ends.get()[0]) / (goal.inHigh - goal.inLow),
            error,
            worst(stages, span),
            Double.NaN,
            note,
            stages));
  }

  private boolean enough(List<Solution.Named> parts) {
    if (!assortment.isStock()) return true;
    List<StockPart> used = parts.stream().flatMap(p -> p.network().parts().stream()).toList();
    return used.stream()
        .allMatch(p -> used.stream().filter(u -> u.equals(p)).count() <= p.quantity());
  }

  /** Largest departure from what is wanted at either end, in any corner of the tolerances. */
  private double worst(List<Stage> stages, double span) {
    double worst = 0;
    for (List<Stage> corner : Corners.of(stages)) {
      Optional<double[]> ends = Circuits.outputs(corner, goal.inLow, goal.inHigh);
      if (ends.isEmpty()) continue;
      worst = Math.max(worst, Math.abs(ends.get()[0] - goal.outLow));
      worst = Math.max(worst, Math.abs(ends.get()[1] - goal.outHigh));
    }
    return worst / span;
  }
}
