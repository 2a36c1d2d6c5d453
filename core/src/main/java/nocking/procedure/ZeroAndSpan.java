package nocking.procedure;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.check.Verdict;
import nocking.fit.Trim;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * Zero at a state of rest that is known without a reference, and span at a second point. What comes
 * of it is a trim on top of the curve, and kept apart from it. The zero is read once more at the
 * end: what the trim leaves there is evidence that it was not made from.
 *
 * @param rest quantity at rest: the atmosphere for a gauge, an empty hopper
 * @param at quantity of the second point, another than {@code rest}; null for a zero trim alone
 * @param how what has to be done for the state of rest: "bleed it to the atmosphere"
 */
@JsonTypeName("zero-and-span")
public record ZeroAndSpan(Value rest, Value at, String how) implements Procedure {
  /** Share of the working range above which a zero is not a trim any more. */
  public static final double MOST_ZERO = 0.1;

  /** Share of the span above which its change is not a trim any more. */
  public static final double MOST_SPAN = 0.1;

  public ZeroAndSpan {
    double zero = Procedure.needed(rest, "the quantity at rest");
    if (at != null && at.number() == zero) {
      throw new QuantityException("rest and second point are the same: " + rest.typed());
    }
    how = how == null ? "" : how.strip();
  }

  @Override
  public String title() {
    return at == null ? "zero trim" : "zero and span trim";
  }

  @Override
  public List<Step> steps(List<Taken> done) {
    var list = new ArrayList<Step>();
    String rested = how.isEmpty() ? "Nothing acts on it: empty, open, at rest." : how;
    list.add(Step.at("Bring it to rest", rested, rest.number()));
    if (at != null) {
      list.add(
          Step.at(
              "Bring it to the second point",
              "The reference says how much it really is.",
              at.number()));
    }
    list.add(
        Step.at(
                "Back to rest, once more",
                "What is read now was not used for the trim: it shows what the trim leaves.",
                rest.number())
            .fromAbove());
    return list;
  }

  @Override
  public String caution() {
    return "Bleed before a fitting is opened; nothing under a load that could come down.";
  }

  /**
   * The trim that follows; empty while a reading or the curve is missing, or where what was read is
   * not plausible.
   */
  public Optional<Trim> trim(List<Taken> done, Known known) {
    return missing(done, known).isEmpty() && implausible(done, known).isEmpty()
        ? Optional.of(made(done, known))
        : Optional.empty();
  }

  private Trim made(List<Taken> done, Known known) {
    Value zero = Value.of(done.get(0).applied());
    Value zeroRead = Value.of(known.quantityOf(done.get(0).volts()));
    if (at == null) return new Trim(zero, zeroRead, null, null);
    return new Trim(
        zero,
        zeroRead,
        Value.of(done.get(1).applied()),
        Value.of(known.quantityOf(done.get(1).volts())));
  }

  /** What is still needed; empty when all is there. */
  private String missing(List<Taken> done, Known known) {
    if (known.quantity().isEmpty()) return "There is no curve that could be trimmed.";
    if (done.isEmpty() || !told(done.get(0), known)) return "The state of rest is not read yet.";
    if (at != null && (done.size() < 2 || !told(done.get(1), known))) {
      return "The second point is not read yet.";
    }
    return "";
  }

  private static boolean told(Taken t, Known known) {
    return t.read() && Double.isFinite(known.quantityOf(t.volts()));
  }

  /** Why what was read is no matter for a trim; empty where it is. */
  private String implausible(List<Taken> done, Known known) {
    for (Taken t : done) {
      if (known.quantity().isPresent() && t.read() && !told(t, known)) {
        return "The curve says nothing for %s: that lies outside what it knows."
            .formatted(Known.volts(t.volts()));
      }
    }
    if (done.isEmpty() || !told(done.get(0), known)) return "";
    double width = known.working().width();
    double zeroRead = known.quantityOf(done.get(0).volts());
    double zero = zeroRead - done.get(0).applied();
    if (Math.abs(zero) > MOST_ZERO * width) {
      return "A zero of %s is %s of the span: that is another sensor or another fault, not a zero."
          .formatted(known.signed(zero), share(Math.abs(zero) / width));
    }
    if (at == null || done.size() < 2 || !told(done.get(1), known)) return "";
    double ratio =
        (done.get(1).applied() - done.get(0).applied())
            / (known.quantityOf(done.get(1).volts()) - zeroRead);
    if (!(Math.abs(ratio - 1) <= MOST_SPAN)) {
      return "A span factor of %s is not a trim: it hides a wrong constant or a mixed-up unit."
          .formatted(Numbers.significant(ratio, 4));
    }
    return "";
  }

  private static String share(double of) {
    return of < 1
        ? Numbers.fixed(100 * of, 0) + " %"
        : Numbers.fixed(of, 1) + " times as much as all";
  }

  /** What is no trim is said at the reading that shows it, before more work is put into it. */
  @Override
  public String forbids(List<Taken> done, Known known) {
    return done.isEmpty() || !unsettled(done).isEmpty() ? "" : implausible(done, known);
  }

  @Override
  public JobRecord read(List<Taken> done, Known known) {
    var lines = new JobRecord.Lines();
    if (!done.isEmpty()) line(lines, "zero, before", done.get(0), known, Optional.empty());
    if (at != null && done.size() > 1) {
      line(lines, "span, before", done.get(1), known, Optional.empty());
    }
    String implausible = implausible(done, known);
    if (!implausible.isEmpty()) return lines.closed(Verdict.FAIL, implausible);
    String missing = missing(done, known);
    if (!missing.isEmpty()) return lines.closed(Verdict.OPEN, missing);
    int all = at == null ? 2 : 3;
    Trim trim = made(done, known);
    lines.add("zero trim", known.signed(-trim.offset()));
    if (at != null) lines.add("span factor", Numbers.significant(trim.factor(), 6));
    if (done.size() < all || !done.get(all - 1).read()) {
      return lines.closed(Verdict.OPEN, "The zero is not yet read once more.");
    }
    Taken again = done.get(all - 1);
    line(lines, "zero, after", again, known, Optional.of(trim));
    double left = trim.of(known.quantityOf(again.volts())) - again.applied();
    Verdict v = Verdict.of(left, known.tolerance());
    String says =
        "The trim leaves %s at rest, read once more%s."
            .formatted(
                known.signed(left),
                v == Verdict.FAIL ? ": more than the tolerance, it does not come back" : "");
    return lines.closed(v, says);
  }

  private static void line(
      JobRecord.Lines lines, String what, Taken t, Known known, Optional<Trim> trim) {
    double reads = known.quantityOf(t.volts());
    double v = trim.map(k -> k.of(reads)).orElse(reads);
    double expected = known.design().applyAsDouble(t.applied());
    lines.add(
        what,
        "%s, reads %s".formatted(Known.volts(t.volts()), known.says(v)),
        "%s, %s against the design"
            .formatted(known.signed(v - t.applied()), Known.millivolts(t.volts() - expected)));
  }
}
