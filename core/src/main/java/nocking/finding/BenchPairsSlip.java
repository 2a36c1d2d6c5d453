package nocking.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.quantity.Numbers;
import nocking.table.BenchPairs;
import nocking.table.RowSlip;
import nocking.table.TableSpec;
import nocking.view.ChannelView;

/** A true value among the bench pairs is ten times what its neighbours say, or a tenth of it. */
final class BenchPairsSlip implements Rule {
  private static final int DIGITS = 12;

  /** The pairs as they were read, whatever raw column the receiver wants. */
  private static final int MOST_DECIMALS = 9;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    TableSpec spec = e.channel().receiver().table();
    BenchPairs bench = e.channel().receiver().bench();
    if (bench == null || spec == null || !spec.goal().bench()) return Stream.empty();
    List<RowSlip> slips = RowSlip.of(bench.held(MOST_DECIMALS));
    return slips.stream().limit(1).map(s -> finding(e, bench, s, slips.size()));
  }

  private static Finding finding(ChannelView e, BenchPairs bench, RowSlip s, int all) {
    double meant = Double.parseDouble(Numbers.significant(s.read() / s.factor(), DIGITS));
    String u = e.channel().definition().unit();
    return Finding.of(
            "bench-slip",
            Severity.WARNING,
            WorkStep.TABLE,
            "Pair %d is out of line".formatted(s.index() + 1),
            "It reads %s where its neighbours say about %s: a factor of %s.%s"
                .formatted(
                    (Numbers.trimmed(s.read(), 6) + " " + u).strip(),
                    Numbers.trimmed(s.expected(), 4),
                    Numbers.plain(s.factor()),
                    all > 1 ? " %d more like it.".formatted(all - 1) : ""))
        .with(
            new Fix(
                "Set pair %d to %s, from %s"
                    .formatted(
                        s.index() + 1, Numbers.trimmed(meant, 6), Numbers.trimmed(s.read(), 6)),
                c ->
                    c.receiver(
                        r ->
                            Optional.ofNullable(r.bench())
                                .map(b -> r.withBench(set(b, s.index(), meant)))
                                .orElse(r))));
  }

  private static BenchPairs set(BenchPairs b, int index, double value) {
    var next = new ArrayList<>(b.truth());
    next.set(index, value);
    return b.withTruth(next);
  }
}
