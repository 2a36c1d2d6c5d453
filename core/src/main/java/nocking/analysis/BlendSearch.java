package nocking.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
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
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.stage.ReferenceBlend;

/**
 * Both wipers of a blend in a channel, for each pair of usual tracks. The design without the rest
 * of the path gives where to begin; the channel's own path, with what stands before and behind,
 * says where to end.
 */
final class BlendSearch {
  private static final int STEPS = 20;
  private static final double TURN = 1e-5;

  private final Channel channel;
  private final SignalPath path;
  private final int index;
  private final Goal goal;

  BlendSearch(Channel channel, SignalPath path, int index, Goal goal) {
    this.channel = channel;
    this.path = path;
    this.index = index;
    this.goal = goal;
  }

  Found found(ReferenceBlend now) {
    Span w = channel.definition().working();
    double low = path.at(w.low()).nodes().get(index).value();
    double high = path.at(w.high()).nodes().get(index).value();
    double swing = (goal.toEnd() - goal.toStart()) / (high - low);
    if (!(swing > 0 && swing < 1)) {
      throw new QuantityException(
          "a blend keeps more than 0 %% and less than 100 %% of a swing; %s V … %s V would be %s %%"
              .formatted(
                  Numbers.trimmed(goal.toStart(), 4),
                  Numbers.trimmed(goal.toEnd(), 4),
                  Numbers.trimmed(100 * swing, 4)));
    }
    double receiver =
        index == channel.design().stages().size() - 1
                && channel.design().converter().inputResistance() != null
            ? channel.design().converter().inputResistance().number()
            : Double.POSITIVE_INFINITY;
    var begin =
        new BlendDesign.Goal(swing, low, goal.toStart(), now.supply().number(), 0, receiver);
    var offers = new ArrayList<Offer>();
    for (BlendDesign.Blend b : BlendDesign.search(begin, BlendDesign.USUAL)) {
      trimmed(b, now).ifPresent(t -> offers.add(offer(b, t)));
    }
    return new Found(List.copyOf(offers), true, "swing");
  }

  /** Newton's steps on both wipers until both ends of the range come out as wanted. */
  private Optional<ReferenceBlend> trimmed(BlendDesign.Blend b, ReferenceBlend now) {
    double a = b.referenceWiper();
    double k = b.blendWiper();
    double close = 1e-9 * now.supply().number();
    for (int i = 0; i < STEPS; i++) {
      double[] off = off(b, a, k, now);
      if (Math.hypot(off[0], off[1]) < close) return Optional.of(stage(b, a, k, now));
      double[] byA = off(b, a + TURN, k, now);
      double[] byK = off(b, a, k + TURN, now);
      double a0 = (byA[0] - off[0]) / TURN;
      double a1 = (byA[1] - off[1]) / TURN;
      double k0 = (byK[0] - off[0]) / TURN;
      double k1 = (byK[1] - off[1]) / TURN;
      double det = a0 * k1 - a1 * k0;
      if (!(Math.abs(det) > 0)) return Optional.empty();
      a -= (off[0] * k1 - off[1] * k0) / det;
      k -= (off[1] * a0 - off[0] * a1) / det;
      if (!(a > 0 && a < 1 - TURN && k > 0 && k < 1 - TURN)) return Optional.empty();
    }
    return Optional.empty();
  }

  private double[] off(BlendDesign.Blend b, double a, double k, ReferenceBlend now) {
    Channel c = channel.design(d -> d.withStage(index, stage(b, a, k, now)));
    SignalPath p = Analysis.of(c).design().path().orElseThrow();
    Span w = c.definition().working();
    return new double[] {
      p.at(w.low()).nodes().get(index + 1).wanted() - goal.toStart(),
      p.at(w.high()).nodes().get(index + 1).wanted() - goal.toEnd()
    };
  }

  private static ReferenceBlend stage(BlendDesign.Blend b, double a, double k, ReferenceBlend now) {
    return b.withWipers(a, k).stage(now.supply());
  }

  private Offer offer(BlendDesign.Blend b, ReferenceBlend stage) {
    double k = stage.referenceWiper().number();
    double free = stage.reference();
    Solution s =
        new Solution(
            List.of(
                new Solution.Named("RA", track(b.referenceTrack())),
                new Solution.Named("RB", track(b.blendTrack()))),
            stage.residualGain(0),
            0,
            b.untrimmed(),
            stage.supply().number() * stage.supply().number() / b.referenceTrack(),
            "wipers at %s %% and %s %%; reference %s free, %s with everything connected; a hundredth of its turn moves the rest by %s"
                .formatted(
                    Numbers.significant(100 * k, 3),
                    Numbers.significant(100 * stage.blendWiper().number(), 3),
                    Numbers.engineering(free, "V", 4),
                    Numbers.engineering(loaded(stage), "V", 4),
                    Numbers.engineering(Math.abs(b.restPerReference()), "V", 2)),
            List.of(stage));
    return new Offer(s, c -> c.design(d -> d.withStage(index, stage)));
  }

  private static Network track(double ohms) {
    return Network.of(new StockPart("", ohms, 20, 0, 0, 1));
  }

  /** Volts at the reference's wiper at rest, in the whole path. */
  private double loaded(ReferenceBlend stage) {
    Channel c = channel.design(d -> d.withStage(index, stage));
    Map<String, Double> volts =
        PathCircuit.of(
                new Measurand(c.definition().kind().symbol(), c.unit()),
                c.design().sensor(),
                c.design().stages(),
                c.design().converter(),
                c.design().rest())
            .solve();
    return volts.get("TP" + (index + 2) + ".ref");
  }
}
