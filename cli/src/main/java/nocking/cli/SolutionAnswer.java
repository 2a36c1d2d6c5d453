package nocking.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import nocking.parts.Candidates;
import nocking.parts.PartSize;
import nocking.parts.Solution;
import nocking.quantity.Numbers;
import nocking.quantity.ResistorCode;

/** What is said of the parts that a search has found. */
final class SolutionAnswer {
  private SolutionAnswer() {}

  private static Map<String, Object> object(Solution s) {
    var list =
        s.parts().stream()
            .map(
                p ->
                    Answer.object(
                        "name",
                        p.name(),
                        "value",
                        p.network().ohms(),
                        "network",
                        p.network().text()))
            .toList();
    return Answer.object(
        "parts",
        list,
        "value",
        s.value(),
        "error",
        s.error(),
        "worstCase",
        s.worstCase(),
        "watts",
        s.watts(),
        "size",
        Double.isNaN(s.watts()) ? Double.NaN : PartSize.forWatts(s.watts()).orElse(Double.NaN),
        "note",
        s.note());
  }

  /**
   * @param instead what would do where nothing does; empty where nobody knows
   * @return true when there is one
   */
  static boolean give(Answer answer, Candidates candidates, String instead) {
    answer
        .put("solutions", candidates.solutions().stream().map(SolutionAnswer::object).toList())
        .put("exact", candidates.exact());
    if (!candidates.found()) {
      answer.put("instead", instead);
      answer.line(
          "%s",
          instead.isEmpty()
              ? "Nothing does it: widen the window, allow more parts or another series."
              : "Nothing does it; " + instead + ".");
      return false;
    }
    var rows = new ArrayList<List<String>>();
    rows.add(List.of("parts", "value", "error", "worst case", "hottest part", ""));
    for (Solution s : candidates.solutions()) {
      rows.add(
          List.of(
              s.text(),
              s.value() >= 1000 ? ResistorCode.of(s.value()) : Numbers.trimmed(s.value(), 6),
              Numbers.signed(100 * s.error(), 3) + " %",
              "±" + Numbers.fixed(100 * s.worstCase(), 2) + " %",
              Double.isNaN(s.watts()) ? "–" : Numbers.engineering(s.watts(), "W", 2),
              s.note()));
    }
    answer.table(rows);
    answer.line(
        candidates.exact()
            ? "Nothing in this assortment comes nearer."
            : "The search did not look at every circuit: something nearer may exist.");
    return true;
  }
}
