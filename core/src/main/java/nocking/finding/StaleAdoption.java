package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.fit.Curve;
import nocking.fit.Fit;
import nocking.quantity.Sentence;
import nocking.quantity.Span;
import nocking.view.ChannelView;

/** Points have changed since the model was adopted. */
final class StaleAdoption implements Rule {
  private static final int LOOKS = 16;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    var adopted = e.channel().calibration().adopted();
    if (e.channel().calibration().designAdopted() || e.calibration().untrimmed().isEmpty()) {
      return Stream.empty();
    }
    if (e.calibration().refitted().isEmpty()) {
      return Stream.of(
          Finding.of(
              "stale-adoption",
              Severity.WARNING,
              WorkStep.FIT,
              "The adopted model has no points any more",
              "It was fitted to %s no longer in the channel."
                  .formatted(Sentence.count(adopted.points(), "point"))));
    }
    double moved =
        difference(e, e.calibration().untrimmed().get(), e.calibration().refitted().get());
    double count =
        e.design()
            .path()
            .map(p -> p.countsWorth(e.channel().definition().working().middle()))
            .orElse(1e-9);
    if (moved <= count / 100) return Stream.empty();
    return Stream.of(
        Finding.of(
                "stale-adoption",
                Severity.WARNING,
                WorkStep.FIT,
                "Points have changed since the fit was adopted",
                "Fitted anew it would read up to %s different.".formatted(e.design().error(moved)))
            .with(new Fix("Adopt it anew", c -> e.calibration().adopting(adopted.model()))));
  }

  /** Over the raw values of the points: no curve has to be turned round for it. */
  private static double difference(ChannelView e, Curve adopted, Fit anew) {
    Span raw = e.calibration().samples().rawSpan();
    var before = adopted.function();
    var now = anew.curve().function();
    double worst = 0;
    for (int i = 0; i <= LOOKS; i++) {
      double at = raw.at((double) i / LOOKS);
      worst = Math.max(worst, Math.abs(now.applyAsDouble(at) - before.applyAsDouble(at)));
    }
    return worst;
  }
}
