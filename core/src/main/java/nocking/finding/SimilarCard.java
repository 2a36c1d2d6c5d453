package nocking.finding;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.channel.WorkStep;
import nocking.element.Measurand;
import nocking.misfit.Cause;
import nocking.misfit.PointsMisfit;
import nocking.path.SignalPath;
import nocking.points.ReferencePoint;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.view.ChannelView;

/**
 * The points do not fit this channel's sensor, but they do fit another card that measures the same:
 * a similar sensor is fitted and the former one's curve was left.
 */
final class SimilarCard implements Rule {
  /** Fewer points fit too much by chance. */
  private static final int LEAST_POINTS = 3;

  /** By so much better must another card explain the points. */
  private static final double BETTER = 5;

  /** Share of the working range that is allowed where no tolerance is stated. */
  private static final double ALLOWED = 0.01;

  private record Candidate(SensorCard card, double worst) {}

  @Override
  public Stream<Finding> examine(ChannelView e) {
    List<ReferencePoint> points = e.channel().calibration().points().counting();
    if (e.design().path().isEmpty() || e.cards().isEmpty()) return Stream.empty();
    boolean card =
        e.calibration()
            .misfit()
            .flatMap(PointsMisfit::clear)
            .filter(k -> k.kind() == Cause.Kind.CARD)
            .isPresent();
    if (!card) return Stream.empty();
    if (points.stream().map(p -> p.applied().number()).distinct().count() < LEAST_POINTS) {
      return Stream.empty();
    }
    double allowed = allowedVolts(e.channel(), e.design().path().get());
    double own = worst(e, e.design().path().get(), points);
    if (!(own > allowed)) return Stream.empty();
    return e.cards().stream()
        .flatMap(k -> candidate(e, k, points).stream())
        .filter(c -> c.worst <= allowed && c.worst * BETTER < own)
        .min(Comparator.comparingDouble(Candidate::worst))
        .map(c -> finding(e, c, own))
        .stream();
  }

  /** What the tolerance is worth in volts at the converter. */
  private static double allowedVolts(Channel c, SignalPath path) {
    Span w = c.definition().working();
    double stated = c.definition().toleranceOrNaN();
    double share = Double.isNaN(stated) ? ALLOWED : stated / w.width();
    return share * Math.abs(path.output(w.high()) - path.output(w.low()));
  }

  /** Largest departure of a reading from what a path would give, volts; NaN where it has none. */
  private static double worst(ChannelView e, SignalPath path, List<ReferencePoint> points) {
    double worst = 0;
    for (ReferencePoint p : points) {
      worst =
          Math.max(worst, Math.abs(e.calibration().volts(p) - path.output(p.applied().number())));
    }
    return worst;
  }

  private static Optional<Candidate> candidate(
      ChannelView e, SensorCard card, List<ReferencePoint> points) {
    Channel c = e.channel();
    boolean same =
        card.kind() == c.definition().kind()
            && Unit.of(card.unit()).dimension().equals(c.unit().dimension());
    if (!same) return Optional.empty();
    try {
      Channel with = card.putInto(c);
      var measurand = new Measurand(e.design().path().get().quantitySymbol(), c.unit());
      SignalPath path =
          SignalPath.of(
              measurand, with.design().sensor(), with.design().stages(), with.design().converter());
      return Optional.of(new Candidate(card, worst(e, path, points)));
    } catch (QuantityException noPath) {
      // A card that makes no sense before these stages is no explanation.
      return Optional.empty();
    }
  }

  private static Finding finding(ChannelView e, Candidate c, double own) {
    Span w = e.channel().definition().working();
    SignalPath path = e.design().path().get();
    double slope = w.width() / Math.abs(path.output(w.high()) - path.output(w.low()));
    return Finding.of(
            "similar-card",
            Severity.WARNING,
            WorkStep.DEFINE,
            "The points look like the card " + c.card.name(),
            "This channel's sensor misses them by up to %s, that card by at most %s. Is the other sensor fitted?"
                .formatted(e.design().error(own * slope), e.design().error(c.worst * slope)))
        .with(new Fix("Take the card " + c.card.name(), c.card::putInto));
  }
}
