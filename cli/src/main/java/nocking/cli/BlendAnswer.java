package nocking.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import nocking.parts.BlendDesign;
import nocking.quantity.Numbers;
import nocking.quantity.ResistorCode;

/** What is said of the ways to blend a signal about a reference. */
final class BlendAnswer {
  private BlendAnswer() {}

  /** True when there is one. */
  static boolean give(Answer answer, BlendDesign.Goal goal, List<BlendDesign.Blend> found) {
    answer.put("solutions", found.stream().map(b -> object(goal, b)).toList()).put("exact", true);
    if (found.isEmpty()) {
      answer.line(
          "No pair of these tracks does it: another rest, swing, supply or track is needed.");
      return false;
    }
    var rows = new ArrayList<List<String>>();
    rows.add(
        List.of(
            "RA",
            "RB",
            "wiper A",
            "wiper B",
            "A free",
            "A loaded",
            "unplugged",
            "rest / 1 % A",
            "swing / 1 % B",
            "from the sensor",
            "it sees",
            "worst case untrimmed"));
    for (BlendDesign.Blend b : found) {
      rows.add(
          List.of(
              ResistorCode.of(b.referenceTrack()),
              ResistorCode.of(b.blendTrack()),
              Numbers.fixed(100 * b.referenceWiper(), 2) + " %",
              Numbers.fixed(100 * b.blendWiper(), 2) + " %",
              Numbers.fixed(b.referenceFree(), 4) + " V",
              Numbers.fixed(b.referenceLoaded(), 4) + " V",
              Numbers.engineering(b.unplugged(), "V", 3),
              Numbers.engineering(b.restPerReference(), "V", 3),
              Numbers.signed(100 * b.swingPerBlend(), 3) + " %",
              Numbers.engineering(b.drawn(), "A", 3),
              Numbers.compact(b.seen(), "Ω", 3),
              "±" + Numbers.fixed(100 * b.untrimmed(), 1) + " %"));
    }
    answer.table(rows);
    answer.line("The one that the receiver moves least stands first.");
    answer.line(
        "Set A to its free volts with B taken off, connect B and the receiver, turn B until the swing is right, then A until the rest is.");
    answer.line(
        "Never bend a signal that a machine acts on for safety without the competent person's approval and the maker's consent.");
    return true;
  }

  private static Map<String, Object> object(BlendDesign.Goal goal, BlendDesign.Blend b) {
    return Answer.object(
        "parts",
        List.of(part("RA", b.referenceTrack()), part("RB", b.blendTrack())),
        "value",
        goal.swing(),
        "error",
        0.0,
        "worstCase",
        b.untrimmed(),
        "wipers",
        Answer.object("reference", b.referenceWiper(), "blend", b.blendWiper()),
        "referenceFree",
        b.referenceFree(),
        "referenceLoaded",
        b.referenceLoaded(),
        "rest",
        goal.rest(),
        "unplugged",
        b.unplugged(),
        "drawn",
        b.drawn(),
        "seen",
        b.seen(),
        "restPerReference",
        b.restPerReference(),
        "swingPerBlend",
        b.swingPerBlend());
  }

  private static Map<String, Object> part(String name, double ohms) {
    return Answer.object("name", name, "value", ohms, "network", ResistorCode.of(ohms));
  }
}
