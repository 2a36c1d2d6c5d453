package nocking.finding;

import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.StoredCurve;
import nocking.channel.WorkStep;
import nocking.quantity.Sentence;
import nocking.quantity.Span;
import nocking.view.Belief;
import nocking.view.ChannelView;

/** The receiver goes by a curve of its own: what it makes of the quantity meanwhile. */
final class ReceiverBelieves implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    StoredCurve stored = e.channel().receiver().stored();
    if (stored == null) return Stream.empty();
    Optional<String> problem = e.receiver().storedProblem();
    if (problem.isPresent()) {
      return Stream.of(
          finding(
              Severity.STOP,
              "The receiver's own curve cannot be worked out",
              "%s: %s.".formatted(Sentence.capital(stored.origin()), problem.get())));
    }
    return e.receiver().belief().map(b -> judged(e, stored, b)).stream();
  }

  private static Finding judged(ChannelView e, StoredCurve stored, Belief b) {
    double tolerance = e.channel().definition().toleranceOrNaN();
    Span working = e.channel().definition().working();
    double least =
        Double.isNaN(tolerance)
            ? e.design().path().map(p -> p.countsWorth(working.middle())).orElse(0.0)
            : tolerance;
    String goesBy = "It goes by its own curve (%s)".formatted(stored.origin());
    if (b.worst() <= least) {
      return finding(
          Severity.ADVICE,
          "The receiver's own curve agrees with the path",
          "%s and is off by %s at most.".formatted(goesBy, e.design().error(b.worst())));
    }
    if (Double.isNaN(b.believedThere())) {
      return finding(
          Severity.WARNING,
          "The receiver shows nothing at " + e.design().amount(b.worstAt()),
          goesBy + ", which ends before the working range does.");
    }
    return finding(
        Severity.WARNING,
        "The receiver believes %s at %s"
            .formatted(e.design().amount(b.believedThere()), e.design().amount(b.worstAt())),
        "%s: %s. Off by %s at most%s."
            .formatted(
                goesBy,
                b.says(e.design()),
                e.design().error(b.worst()),
                Double.isNaN(tolerance)
                    ? ""
                    : ", against a tolerance of " + e.design().error(tolerance)));
  }

  private static Finding finding(Severity severity, String headline, String detail) {
    return Finding.of("receiver-believes", severity, WorkStep.CONDITION, headline, detail)
        .with(
            new Fix(
                "The receiver has this channel's curve now",
                c -> c.receiver(r -> r.withStored(null))));
  }
}
