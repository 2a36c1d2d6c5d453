package nocking.finding;

import java.util.ArrayList;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.element.Element;
import nocking.element.Measurand;
import nocking.path.ReadOut;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.stage.Stage;

/** A stage would have to give more than its rails allow somewhere in the working range. */
final class RailClip implements Rule {

  private static final double HEADROOM = 0.02;

  @Override
  public Stream<Finding> examine(Evidence e) {
    return e.path().stream().flatMap(p -> clips(e, p).stream());
  }

  private static ArrayList<Finding> clips(Evidence e, SignalPath path) {
    Span working = e.channel().definition().working();
    var findings = new ArrayList<Finding>();
    for (int i = 0; i < e.channel().stages().size(); i++) {
      Optional<Span> rails = e.channel().stages().get(i).rails();
      if (rails.isEmpty()) continue;
      for (double end : new double[] {working.low(), working.high()}) {
        ReadOut.Node node = path.at(end).nodes().get(i + 1);
        if (node.clipped()) {
          findings.add(clip(e, path, i, end, node, rails.get()));
          break;
        }
      }
    }
    return findings;
  }

  private static Finding clip(
      Evidence e, SignalPath path, int stage, double end, ReadOut.Node node, Span rails) {
    Span working = e.channel().definition().working();
    double from = boundary(path, stage + 1, working, end);
    boolean above = end == working.high();
    String headline = "Output clips %s %s".formatted(above ? "above" : "below", e.amount(from));
    String detail =
        "At %s the %s would need %s; its rail is %s. The reading stands still there."
            .formatted(
                e.amount(end),
                e.channel().stages().get(stage).title().toLowerCase(Locale.ROOT),
                Numbers.engineering(node.wanted(), "V", 3),
                Numbers.engineering(rails.clamp(node.wanted()), "V", 3));
    Finding f =
        Finding.of("rail-clip", Severity.STOP, WorkStep.CONDITION, headline, detail).at(stage);
    return lowerGain(e.channel(), path, stage, rails).map(f::with).orElse(f);
  }

  /**
   * Input at which the node leaves its rail, by bisection between the sound end and the bad one.
   */
  private static double boundary(SignalPath path, int node, Span working, double bad) {
    double sound = bad == working.high() ? working.low() : working.high();
    double clipped = bad;
    for (int i = 0; i < 60; i++) {
      double middle = (sound + clipped) / 2;
      if (path.at(middle).nodes().get(node).clipped()) clipped = middle;
      else sound = middle;
    }
    return clipped;
  }

  /** The largest feedback resistor with which both ends of the range stay inside the rails. */
  private static Optional<Fix> lowerGain(Channel channel, SignalPath path, int stage, Span rails) {
    Stage amp = channel.stages().get(stage);
    if (amp.fields().stream().noneMatch(f -> f.symbol().equals("Rf"))) return Optional.empty();
    Span inside =
        new Span(rails.low() + HEADROOM * rails.width(), rails.high() - HEADROOM * rails.width());
    double high = amp.number("Rf");
    double low = 0;
    for (int i = 0; i < 60; i++) {
      double middle = (low + high) / 2;
      if (fits(channel, path, stage, middle, inside)) low = middle;
      else high = middle;
    }
    if (low < 1e-3 * amp.number("Rf")) return Optional.empty();
    Value feedback = Value.of(Double.parseDouble(Numbers.significant(low * 0.9995, 3)));
    Stage lowered = Element.with(amp, amp.field("Rf"), amp.value(amp.field("Rf")).to(feedback));
    return Optional.of(
        new Fix(
            "Lower the " + lowered.gain().replace("gain ", "gain to "),
            c -> c.withStage(stage, lowered)));
  }

  private static boolean fits(
      Channel channel, SignalPath path, int stage, double feedback, Span inside) {
    Stage amp = channel.stages().get(stage);
    Stage trial = Element.with(amp, amp.field("Rf"), Value.of(feedback));
    SignalPath changed =
        SignalPath.of(
            new Measurand(path.quantitySymbol(), channel.unit()),
            channel.sensor(),
            channel.withStage(stage, trial).stages(),
            channel.converter());
    Span working = channel.definition().working();
    return inside.contains(changed.at(working.low()).nodes().get(stage + 1).wanted())
        && inside.contains(changed.at(working.high()).nodes().get(stage + 1).wanted());
  }
}
