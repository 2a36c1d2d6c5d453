package nocking.proposal;

import java.util.ArrayList;
import java.util.List;
import nocking.channel.Channel;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Measurand;
import nocking.path.PathCircuit;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.stage.Stage;

/** A path with every part at either limit of its tolerance, solved node by node. */
final class Corners {
  private static final double SLACK = 1e-9;

  private record Part(int stage, Field field, double share) {}

  private Corners() {}

  /**
   * True where the last node stays between 0 V and a limit at both ends of the working range in
   * every corner.
   *
   * @param top volts
   */
  static boolean hold(Channel channel, List<Stage> stages, double top) {
    var parts = new ArrayList<Part>();
    for (int i = 0; i < stages.size(); i++) {
      Stage s = stages.get(i);
      for (Field f : s.fields()) {
        Value v = s.value(f);
        if (v == null || v.spread() == null || v.number() == 0) continue;
        parts.add(new Part(i, f, v.spread().limitOf(v.number()) / Math.abs(v.number())));
      }
    }
    Span w = channel.definition().working();
    for (int corner = 0; corner < 1 << parts.size(); corner++) {
      List<Stage> there = at(stages, parts, corner);
      for (double x : new double[] {w.low(), w.high()}) {
        double volts = last(channel, there, x);
        if (!(volts >= -SLACK && volts <= top + SLACK)) return false;
      }
    }
    return true;
  }

  private static List<Stage> at(List<Stage> stages, List<Part> parts, int corner) {
    var there = new ArrayList<>(stages);
    for (int k = 0; k < parts.size(); k++) {
      Part p = parts.get(k);
      double factor = (corner >> k & 1) == 0 ? 1 - p.share : 1 + p.share;
      Stage s = there.get(p.stage);
      there.set(p.stage, Element.with(s, p.field, Value.of(s.value(p.field).number() * factor)));
    }
    return there;
  }

  /** Volts at the converter as if no output had rails. */
  private static double last(Channel channel, List<Stage> stages, double x) {
    return PathCircuit.of(
            new Measurand(channel.definition().kind().symbol(), channel.unit()),
            channel.design().sensor(),
            stages,
            channel.design().converter(),
            x)
        .solve()
        .get(PathCircuit.node(stages.size()));
  }
}
