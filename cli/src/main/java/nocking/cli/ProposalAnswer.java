package nocking.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import nocking.channel.Channel;
import nocking.element.Field;
import nocking.proposal.PathProposal;
import nocking.quantity.Numbers;
import nocking.quantity.Sentence;
import nocking.stage.Stage;

/** What is said of whole conditionings that were proposed. */
final class ProposalAnswer {
  private ProposalAnswer() {}

  /** True when there is one. */
  static boolean give(Answer answer, Channel channel, List<PathProposal> found) {
    answer.put("solutions", found.stream().map(p -> object(channel, p)).toList());
    if (found.isEmpty()) {
      answer.line("No circuit can be made from these parts on this supply.");
      return false;
    }
    String unit = channel.definition().unit();
    var rows = new ArrayList<List<String>>();
    rows.add(
        List.of(
            "path",
            "parts",
            "volts",
            "of the converter",
            "before " + unit,
            "after " + unit,
            "wires told",
            "current",
            ""));
    for (PathProposal p : found) {
      rows.add(
          List.of(
              p.name(),
              String.valueOf(p.parts()),
              Numbers.fixed(p.volts().low(), 3) + " … " + Numbers.fixed(p.volts().high(), 3),
              Numbers.fixed(100 * p.share(), 1) + " %",
              "±" + Numbers.significant(p.before(), 2),
              "±" + Numbers.significant(p.after(), 2),
              p.told() + " of " + p.wires(),
              Numbers.engineering(p.amperes(), "A", 3),
              p.holds() ? "" : "misses the tolerance"));
    }
    answer.table(rows);
    for (PathProposal p : found) {
      answer.line("%s: %s. %s.", p.name(), values(p), Sentence.capital(p.why()));
    }
    return true;
  }

  private static String values(PathProposal p) {
    var words = new ArrayList<String>();
    for (Stage s : p.stages()) words.add(s.title() + " " + s.summary());
    return words.isEmpty() ? "no part" : String.join(", ", words);
  }

  private static Map<String, Object> object(Channel channel, PathProposal p) {
    double width = channel.definition().working().width();
    var parts = new ArrayList<Map<String, Object>>();
    for (int i = 0; i < p.stages().size(); i++) {
      Stage s = p.stages().get(i);
      for (Field f : s.fields()) {
        String unit = f.parameter().unit();
        if (!unit.equals("ohm") && !unit.equals("F") || s.value(f) == null) continue;
        parts.add(
            Answer.object(
                "name",
                (i + 1) + "." + f.symbol(),
                "value",
                s.value(f).number(),
                "unit",
                unit,
                "network",
                s.value(f).typed()));
      }
    }
    return Answer.object(
        "path",
        p.name(),
        "stages",
        p.stages().stream().map(Stage::title).toList(),
        "parts",
        parts,
        "value",
        p.share(),
        "error",
        p.after() / width,
        "worstCase",
        p.before() / width,
        "before",
        p.before(),
        "after",
        p.after(),
        "oneCount",
        p.count(),
        "low",
        p.volts().low(),
        "high",
        p.volts().high(),
        "told",
        p.told(),
        "wires",
        p.wires(),
        "current",
        p.amperes(),
        "holds",
        p.holds(),
        "why",
        p.why());
  }
}
