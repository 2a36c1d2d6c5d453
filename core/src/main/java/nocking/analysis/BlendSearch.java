package nocking.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.analysis.PartSearch.Found;
import nocking.analysis.PartSearch.Goal;
import nocking.analysis.PartSearch.Offer;
import nocking.channel.Channel;
import nocking.element.Measurand;
import nocking.parts.BlendDesign;
import nocking.parts.Network;
import nocking.parts.Solution;
import nocking.parts.StockPart;
import nocking.path.PathCircuit;
import nocking.path.SensorCurve;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.ResistorCode;
import nocking.quantity.Value;
import nocking.stage.ReferenceBlend;

/**
 * Both wipers of a blend in a channel, for each pair of usual tracks. The design without the rest
 * of the path gives where to begin; the channel's own path, with what stands before and behind,
 * says where to end.
 */
final class BlendSearch {
  private static final int STEPS = 20;
  private static final double TURN = 1e-5;
  private static final double[] TRACKS = {
    1 - BlendDesign.TRACK_WITHIN, 1 + BlendDesign.TRACK_WITHIN
  };

  private final Channel channel;
  private final SignalPath path;
  private final int index;
  private final Goal goal;
  private final ReferenceBlend now;

  BlendSearch(Channel channel, SignalPath path, int index, Goal goal, ReferenceBlend now) {
    this.channel = channel;
    this.path = path;
    this.index = index;
    this.goal = goal;
    this.now = now;
  }

  Found found() {
    double swing = (goal.toEnd() - goal.toStart()) / (before(high()) - before(low()));
    if (!(swing > 0 && swing < 1)) {
      throw new QuantityException(
          "a blend keeps more than 0 %% and less than 100 %% of a swing; %s V … %s V would be %s %%"
              .formatted(
                  Numbers.trimmed(goal.toStart(), 4),
                  Numbers.trimmed(goal.toEnd(), 4),
                  Numbers.trimmed(100 * swing, 4)));
    }
    Value input = channel.design().converter().inputResistance();
    boolean last = index == channel.design().stages().size() - 1;
    double receiver = last && input != null ? input.number() : Double.POSITIVE_INFINITY;
    var begin =
        new BlendDesign.Goal(
            swing, before(low()), goal.toStart(), now.supply().number(), source(low()), receiver);
    var offers = new ArrayList<Offer>();
    for (BlendDesign.Blend b : BlendDesign.search(begin, BlendDesign.USUAL)) {
      trimmed(b).ifPresent(t -> offers.add(offer(t)));
    }
    return new Found(List.copyOf(offers), true, "swing");
  }

  private SensorCurve curve() {
    return SensorCurve.of(measured(), channel.design().sensor());
  }

  private Measurand measured() {
    return new Measurand(channel.definition().kind().symbol(), channel.unit());
  }

  /** Volts before the blend: a sensor's own without load, what another stage gives as it is. */
  private double before(double x) {
    return index == 0 ? curve().at(x) : path.at(x).nodes().get(index).value();
  }

  private double source(double x) {
    return index == 0
        ? curve().sourceAt(x)
        : channel.design().stages().get(index - 1).outputResistance();
  }

  /** Newton's steps on both wipers until both ends of the range come out as wanted. */
  private Optional<Tracks> trimmed(BlendDesign.Blend b) {
    var t = new Tracks(b.referenceTrack(), b.referenceWiper(), b.blendTrack(), b.blendWiper());
    double close = 1e-9 * now.supply().number();
    for (int i = 0; i < STEPS; i++) {
      double[] off = off(t);
      if (Math.hypot(off[0], off[1]) < close) return Optional.of(t);
      double[] byA = off(t.turned(TURN, 0));
      double[] byB = off(t.turned(0, TURN));
      double a0 = (byA[0] - off[0]) / TURN;
      double a1 = (byA[1] - off[1]) / TURN;
      double b0 = (byB[0] - off[0]) / TURN;
      double b1 = (byB[1] - off[1]) / TURN;
      double det = a0 * b1 - a1 * b0;
      if (!(Math.abs(det) > 0)) return Optional.empty();
      t = t.turned(-(off[0] * b1 - off[1] * b0) / det, -(off[1] * a0 - off[0] * a1) / det);
      if (!t.possible()) return Optional.empty();
    }
    return Optional.empty();
  }

  /** Two potentiometers with their wipers. */
  private record Tracks(double referenceOhms, double a, double blendOhms, double b) {
    Tracks turned(double byA, double byB) {
      return new Tracks(referenceOhms, a + byA, blendOhms, b + byB);
    }

    Tracks scaled(double reference, double blend) {
      return new Tracks(referenceOhms * reference, a, blendOhms * blend, b);
    }

    boolean possible() {
      return a > 0 && a < 1 - TURN && b > 0 && b < 1 - TURN;
    }

    ReferenceBlend stage(Value supply) {
      return new ReferenceBlend(
          supply,
          new Value(referenceOhms, ResistorCode.of(referenceOhms)),
          percent(a),
          new Value(blendOhms, ResistorCode.of(blendOhms)),
          percent(b));
    }

    private static Value percent(double k) {
      return new Value(k, Numbers.significant(100 * k, 6) + "%");
    }
  }

  private Channel with(Tracks t) {
    return channel.design(d -> d.withStage(index, t.stage(now.supply())));
  }

  /** Volts behind the blend at an input, in the channel's own path. */
  private double output(Tracks t, double x) {
    SignalPath p = Analysis.of(with(t)).design().path().orElseThrow();
    return p.at(x).nodes().get(index + 1).wanted();
  }

  private double[] off(Tracks t) {
    return new double[] {output(t, low()) - goal.toStart(), output(t, high()) - goal.toEnd()};
  }

  private double swing(Tracks t) {
    return output(t, high()) - output(t, low());
  }

  /** Largest relative change of the swing with tracks off as they may be and the wipers left. */
  private double untrimmed(Tracks t) {
    double swing = swing(t);
    double most = 0;
    for (double reference : TRACKS) {
      for (double blend : TRACKS) {
        most = Math.max(most, Math.abs(swing(t.scaled(reference, blend)) / swing - 1));
      }
    }
    return most;
  }

  private Offer offer(Tracks t) {
    ReferenceBlend stage = t.stage(now.supply());
    double rest = channel.design().rest();
    double nudge = t.a + BlendDesign.NUDGE < 1 ? BlendDesign.NUDGE : -BlendDesign.NUDGE;
    double moved = Math.abs(output(t.turned(nudge, 0), rest) - output(t, rest));
    Solution s =
        new Solution(
            List.of(
                new Solution.Named("RA", track(t.referenceOhms)),
                new Solution.Named("RB", track(t.blendOhms))),
            swing(t) / (before(high()) - before(low())),
            0,
            untrimmed(t),
            stage.supply().number() * stage.supply().number() / t.referenceOhms,
            "wipers at %s %% and %s %%; reference %s free, %s with everything connected; a hundredth of its turn moves the rest by %s"
                .formatted(
                    Numbers.significant(100 * t.a, 3),
                    Numbers.significant(100 * t.b, 3),
                    Numbers.engineering(stage.reference(), "V", 4),
                    Numbers.engineering(loaded(t), "V", 4),
                    Numbers.engineering(moved, "V", 2)),
            List.of(stage));
    return new Offer(s, c -> c.design(d -> d.withStage(index, stage)));
  }

  private double low() {
    return channel.definition().working().low();
  }

  private double high() {
    return channel.definition().working().high();
  }

  private static Network track(double ohms) {
    return Network.of(new StockPart("", ohms, 100 * BlendDesign.TRACK_WITHIN, 0, 0, 1));
  }

  /** Volts at the reference's wiper at rest, in the whole path. */
  private double loaded(Tracks t) {
    Channel c = with(t);
    return PathCircuit.of(
            measured(),
            c.design().sensor(),
            c.design().stages(),
            c.design().converter(),
            c.design().rest())
        .solve()
        .get(PathCircuit.node(index + 1) + ".ref");
  }
}
