package nocking.procedure;

import java.util.ArrayList;
import java.util.List;
import nocking.check.Verdict;

/**
 * What came of a procedure.
 *
 * @param verdict open while it is not at its end
 * @param says in a sentence
 */
public record JobRecord(Verdict verdict, String says, List<Line> lines) {
  /** A line of the record. */
  public record Line(String what, String value, String note) {}

  public JobRecord {
    lines = List.copyOf(lines);
  }

  /** Lines as they come. */
  static final class Lines {
    private final List<Line> lines = new ArrayList<>();

    Lines add(String what, String value) {
      return add(what, value, "");
    }

    Lines add(String what, String value, String note) {
      lines.add(new Line(what, value, note));
      return this;
    }

    JobRecord closed(Verdict verdict, String says) {
      return new JobRecord(verdict, says, lines);
    }
  }
}
