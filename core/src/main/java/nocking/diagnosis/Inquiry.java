package nocking.diagnosis;

import java.util.List;
import java.util.Optional;
import nocking.prior.FaultKind;

/**
 * What an engine makes of everything that was seen so far.
 *
 * @param ranking all faults with their weights
 * @param leading the likeliest explanations; none while nothing was seen
 * @param next what to measure next; empty where nothing would say more
 * @param alike faults that no measurement here tells from the first
 * @param two what two faults at once would explain; empty while that was not looked for
 */
public record Inquiry(
    Ranking ranking,
    List<Explanation> leading,
    Optional<NextMeasurement> next,
    List<String> alike,
    Optional<TwoFaults> two) {
  /** Explanations that are listed. */
  private static final int SHOWN = 8;

  /** Alike ones that a sentence names. */
  private static final int NAMED = 4;

  public Inquiry {
    leading = List.copyOf(leading);
    alike = List.copyOf(alike);
  }

  /** Weighs what was seen; off the interface thread, for it solves circuits. */
  public static Inquiry of(Diagnostician engine, List<MeasuredValue> seen) {
    Ranking r = engine.rank(seen);
    boolean nothing = seen.isEmpty();
    return new Inquiry(
        r,
        nothing ? List.of() : r.leading(SHOWN),
        engine.next(r),
        nothing
            ? List.of()
            : engine.indistinguishable(r.best(), r).stream().map(e -> e.fault().says()).toList(),
        Optional.empty());
  }

  /** The same with what two faults at once would explain. */
  public Inquiry with(TwoFaults pairs) {
    return new Inquiry(ranking, leading, next, alike, Optional.of(pairs));
  }

  /**
   * What can be said in a few sentences.
   *
   * @param tolerance by how much the reading of a sound channel may be off, in the channel's unit
   */
  public String says(double tolerance) {
    if (ranking.observations().isEmpty()) {
      return "Add what the display says at a known input, then what the meter says along the way."
          + " Every fault of the circuit and the usual slips in the numbers are weighed against it.";
    }
    if (ranking.noneFits()) {
      return "None of these faults explains what was seen by itself. "
          + twoAtOnce("Look for a reading that was written down wrong; the nearest are listed.");
    }
    if (ranking.somethingElse()) {
      return "Something that is not on this list is likelier than anything on it. "
          + twoAtOnce("Look for a wrong reference, or a part that is not drawn.");
    }
    if (ranking.nothingWrong(tolerance)) {
      return "Nothing seen so far is wrong: it is all within tolerance.";
    }
    FaultKind kind = ranking.best().fault().kind();
    String family =
        kind == FaultKind.NONE
            ? "What was seen fits a sound channel best."
            : "Look at the " + kind.family().title() + " first.";
    return family + alikeOnes();
  }

  private String alikeOnes() {
    if (alike.isEmpty()) return "";
    return " No measurement here tells the first from: "
        + String.join("; ", alike.stream().limit(NAMED).toList())
        + (alike.size() > NAMED ? " …" : ".");
  }

  private String twoAtOnce(String otherwise) {
    if (two.isEmpty()) return "Looking whether two at once do …";
    return two.get().says().orElse("No two of them stand out either. " + otherwise);
  }
}
