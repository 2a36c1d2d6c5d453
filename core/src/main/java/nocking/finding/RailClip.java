package nocking.finding;

import java.util.ArrayList;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.element.Element;
import nocking.element.Measurand;
import nocking.path.PathState;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.stage.Stage;
import nocking.view.ChannelView;

/** A stage would have to give more than its rails allow somewhere in the working range. */
final class RailClip implements Rule {

  private static final double HEADROOM = 0.02;

  /** A range narrower than one of so many steps is not looked for. */
  private static final int LOOKS = 200;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    return e.design().path().stream().flatMap(p -> clips(e, p).stream());
  }

  private static ArrayList<Finding> clips(ChannelView e, SignalPath path) {
    Span working = e.channel().definition().working();
    var findings = new ArrayList<Finding>();
    for (int i = 0; i < e.channel().design().stages().size(); i++) {
      Optional<Span> rails = e.channel().design().stages().get(i).rails();
      if (rails.isEmpty()) continue;
      boolean low = clipped(path, i + 1, working.low());
      boolean high = clipped(path, i + 1, working.high());
      if (low || high) findings.add(clip(e, path, i, low, high, rails.get()));
    }
    return findings;
  }

  private static boolean clipped(SignalPath path, int node, double x) {
    return path.at(x).nodes().get(node).clipped();
  }

  private static Finding clip(
      ChannelView e, SignalPath path, int stage, boolean low, boolean high, Span rails) {
    Span working = e.channel().definition().working();
    Optional<Span> works = works(path, stage + 1, working);
    String title = e.channel().design().stages().get(stage).title().toLowerCase(Locale.ROOT);
    double end = high ? working.high() : working.low();
    PathState.Node node = path.at(end).nodes().get(stage + 1);
    String headline =
        works.isEmpty()
            ? "Output saturates over the whole range"
            : low && high
                ? "Output works only between %s and %s"
                    .formatted(
                        e.design().amount(works.get().low()), e.design().amount(works.get().high()))
                : "Output saturates %s %s"
                    .formatted(
                        high ? "above" : "below",
                        e.design().amount(high ? works.get().high() : works.get().low()));
    String detail =
        "At %s the %s would need %s; its rail is %s. The reading stands still there."
            .formatted(
                e.design().amount(end),
                title,
                Numbers.engineering(node.wanted(), "V", 3),
                Numbers.engineering(rails.clamp(node.wanted()), "V", 3));
    Finding f =
        Finding.of("rail-clip", Severity.STOP, WorkStep.CONDITION, headline, detail).at(stage);
    return lowerGain(e.channel(), path, stage, rails).map(f::with).orElse(f);
  }

  /** Part of the range in which a node keeps off its rails; empty where it nowhere does. */
  private static Optional<Span> works(SignalPath path, int node, Span working) {
    double first = Double.NaN;
    double last = Double.NaN;
    for (int i = 0; i <= LOOKS; i++) {
      double x = working.at((double) i / LOOKS);
      if (clipped(path, node, x)) continue;
      if (Double.isNaN(first)) first = x;
      last = x;
    }
    if (Double.isNaN(first)) return Optional.empty();
    double step = working.width() / LOOKS;
    double low = first == working.low() ? first : boundary(path, node, first, first - step);
    double high = last == working.high() ? last : boundary(path, node, last, last + step);
    return Optional.of(new Span(low, high));
  }

  /** Input at which the node comes to its rail, by bisection between a sound and a bad one. */
  private static double boundary(SignalPath path, int node, double sound, double bad) {
    double good = sound;
    double clipped = bad;
    for (int i = 0; i < 60; i++) {
      double middle = (good + clipped) / 2;
      if (clipped(path, node, middle)) clipped = middle;
      else good = middle;
    }
    return good;
  }

  /** The largest feedback resistor with which both ends of the range stay inside the rails. */
  private static Optional<Fix> lowerGain(Channel channel, SignalPath path, int stage, Span rails) {
    Stage amp = channel.design().stages().get(stage);
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
            c -> c.design(d -> d.withStage(stage, lowered))));
  }

  private static boolean fits(
      Channel channel, SignalPath path, int stage, double feedback, Span inside) {
    Stage amp = channel.design().stages().get(stage);
    Stage trial = Element.with(amp, amp.field("Rf"), Value.of(feedback));
    SignalPath changed =
        SignalPath.of(
            new Measurand(path.quantitySymbol(), channel.unit()),
            channel.design().sensor(),
            channel.design(d -> d.withStage(stage, trial)).design().stages(),
            channel.design().converter());
    Span working = channel.definition().working();
    return inside.contains(changed.at(working.low()).nodes().get(stage + 1).wanted())
        && inside.contains(changed.at(working.high()).nodes().get(stage + 1).wanted());
  }
}
