package nocking.finding;

import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.table.Strokes;
import nocking.view.ChannelView;
import nocking.view.TableResult;

/** The bench pairs of a table were read up and down, and the ways differ. */
final class StrokesDiffer implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    if (e.channel().receiver().table() == null) return Stream.empty();
    Optional<TableResult> made = e.receiver().table().result();
    if (made.isEmpty() || made.get().pairs().isEmpty()) return Stream.empty();
    TableResult t = made.get();
    return Strokes.of(t.pairs().get(), raw -> t.output().of(t.reading(raw)))
        .map(s -> finding(e, t, s))
        .stream();
  }

  private static Finding finding(ChannelView e, TableResult t, Strokes s) {
    return Finding.of(
        "strokes-differ",
        Severity.ADVICE,
        WorkStep.TABLE,
        "The way down sits %s %s"
            .formatted(
                t.output().error(Math.abs(s.difference())),
                s.difference() < 0 ? "lower" : "higher"),
        "At the same raw value, between %s and %s. One table cannot follow both ways: it goes between them."
            .formatted(
                e.design().amount(t.output().quantity(s.low())),
                e.design().amount(t.output().quantity(s.high()))));
  }
}
