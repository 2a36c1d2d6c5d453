package nocking.fault;

import java.util.List;
import nocking.quantity.Span;

/**
 * One fault in the matrix.
 *
 * @param volts span at the converter over the working range
 * @param shownLow least that the display says over the working range; NaN where it says nothing
 * @param shownHigh most that it says
 * @param floating true when nothing holds the converter's input
 * @param atRest what every place reads at rest without a meter, in the order of {@link
 *     FaultMatrix#places()}
 * @param code converter output at rest
 * @param shownAtRest what the display says at rest
 * @param worst largest error of the display over the working range, with sign; NaN while floating
 * @param verdict whether it can be told from good readings
 * @param below highest of the volts that lie clear below the normal band; NaN where none do
 * @param above lowest of the volts that lie clear above it; NaN where none do
 * @param confusedWith names of other faults that look the same at the converter
 * @param harm what it does beside falsifying the reading
 * @param note what would settle or separate it; empty for nothing
 */
public record FaultRow(
    Fault fault,
    Span volts,
    double shownLow,
    double shownHigh,
    boolean floating,
    List<FaultyPath.Reading> atRest,
    int code,
    double shownAtRest,
    double worst,
    Verdict verdict,
    double below,
    double above,
    List<String> confusedWith,
    Harm harm,
    String note) {

  FaultRow confusedWith(List<String> like) {
    return new FaultRow(
        fault,
        volts,
        shownLow,
        shownHigh,
        floating,
        atRest,
        code,
        shownAtRest,
        worst,
        verdict,
        below,
        above,
        List.copyOf(like),
        harm,
        note);
  }

  /** Whether a fault gives itself away by its volts. */
  public enum Verdict {
    TOLD("detectable"),
    PARTLY("detectable over part of the range"),
    HIDDEN("undetectable, inside the normal band"),
    HARMLESS("does no harm"),
    /** It does harm or none, by a number that nobody gave. */
    HANGS("hangs on what nobody said"),
    FLOATS("floats");

    private final String title;

    Verdict(String title) {
      this.title = title;
    }

    public String title() {
      return title;
    }
  }
}
