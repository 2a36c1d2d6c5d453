package nocking.finding;

import java.util.Arrays;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.fit.Samples;
import nocking.quantity.Span;
import nocking.view.ChannelView;
import nocking.view.TableResult;

/** Bench pairs that a table is made of do not cover the working range. */
final class TableGoesOn implements Rule {
  /** Share of the working range that may lack. */
  private static final double SHARE = 0.005;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    if (e.channel().receiver().table() == null) return Stream.empty();
    Optional<TableResult> made = e.receiver().table().result();
    return made.flatMap(t -> t.pairs().map(p -> finding(e, t, p))).stream()
        .flatMap(o -> o.stream());
  }

  private static Optional<Finding> finding(ChannelView e, TableResult t, Samples pairs) {
    Span working = e.channel().definition().working();
    double low = t.output().quantity(Arrays.stream(pairs.quantity()).min().orElseThrow());
    double high = t.output().quantity(Arrays.stream(pairs.quantity()).max().orElseThrow());
    boolean below = low - working.low() > SHARE * working.width();
    boolean above = working.high() - high > SHARE * working.width();
    if (!below && !above) return Optional.empty();
    String where =
        below && above
            ? "below %s and above %s".formatted(e.design().amount(low), e.design().amount(high))
            : below ? "below " + e.design().amount(low) : "above " + e.design().amount(high);
    double lack = (below ? low - working.low() : 0) + (above ? working.high() - high : 0);
    String then =
        switch (t.spec().arithmetic().outside()) {
          case EXTEND -> "the slope of the end goes on there; nothing was measured that says so";
          case HOLD -> "the output stands still there";
          case FAULT -> "the receiver shows a fault there";
        };
    return Optional.of(
        Finding.of(
            "table-goes-on",
            Severity.WARNING,
            WorkStep.TABLE,
            "No bench readings " + where,
            "%s of the working range: %s.".formatted(e.design().error(lack), then)));
  }
}
