package nocking.finding;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.table.MadeTable;
import nocking.table.Placement;
import nocking.table.StepTable;
import nocking.table.TableError;
import nocking.table.TableRequest;
import nocking.view.ChannelView;
import nocking.view.TableOutcome;
import nocking.view.TableResult;

/** There is no table as the receiver wants it, or it misses its tolerance. */
final class TableMisses implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    if (e.channel().receiver().table() == null) return Stream.empty();
    TableOutcome outcome = e.receiver().table();
    if (outcome.result().isEmpty()) {
      // Without a path something graver is said.
      if (e.design().path().isEmpty()) return Stream.empty();
      return Stream.of(
          Finding.of(
              "table-misses",
              Severity.WARNING,
              WorkStep.TABLE,
              "There is no table for the receiver",
              Sentence.capital(outcome.problem()) + "."));
    }
    return outcome.result().filter(t -> !t.holds()).map(TableMisses::misses).stream();
  }

  private static Finding misses(TableResult t) {
    TableError left = t.error();
    String where = Numbers.fixed(left.worstAt(), t.spec().rawDecimals());
    String headline =
        t.count() == 2
            ? "A straight line between the ends misses the tolerance"
            : "The table misses its tolerance";
    String detail =
        "%d cells leave %s at raw %s, against %s."
            .formatted(
                t.count(),
                t.output().error(left.worst()),
                where,
                t.output().tolerance(t.tolerance()));
    if (t.byHand().contains(true) && t.holds(t.worked())) {
      return Finding.of(
              "table-misses",
              Severity.WARNING,
              WorkStep.TABLE,
              headline,
              detail
                  + " Without what was set by hand they leave %s."
                      .formatted(t.output().error(t.untouched().worst())))
          .with(
              new Fix(
                  "Take the cells as they were worked out",
                  c -> c.receiver(r -> r.withTable(r.table().withByHand(List.of())))));
    }
    Optional<StepTable> best = best(t);
    Finding f =
        Finding.of(
            "table-misses", Severity.WARNING, WorkStep.TABLE, headline, detail + more(t, best));
    return best.map(b -> f.with(fix(b))).orElse(f);
  }

  /** The best of the cells that the receiver holds, where it is another one and better. */
  private static Optional<StepTable> best(TableResult t) {
    if (t.request().placement() == Placement.OPTIMAL) return Optional.empty();
    int demanded = t.worked().count() - t.made().table().count();
    int cells = Math.max(2, t.spec().cells() - demanded);
    StepTable best = made(t, cells, Double.NaN).table();
    boolean better = t.left(best).worst() < t.untouched().worst() - 0.05 * t.tolerance();
    return better ? Optional.of(best) : Optional.empty();
  }

  private static MadeTable made(TableResult t, int cells, double tolerance) {
    return new TableRequest(
            Placement.OPTIMAL,
            0,
            new double[0],
            cells,
            tolerance,
            t.request().outDecimals(),
            t.request().rounded())
        .of(t.truth());
  }

  private static String more(TableResult t, Optional<StepTable> best) {
    String places =
        best.map(
                b ->
                    " In the best places %d leave %s."
                        .formatted(b.count(), t.output().error(t.left(b).worst())))
            .orElse("");
    if (best.isPresent() && t.holds(best.get())) return places;
    try {
      MadeTable fewest = made(t, 0, t.tolerance());
      return places
          + (fewest.proven() ? " It takes %d cells." : " %d cells would do.")
              .formatted(fewest.table().count());
    } catch (QuantityException e) {
      return places + " No table holds it: " + e.getMessage() + ".";
    }
  }

  private static Fix fix(StepTable best) {
    return new Fix(
        "Put %d cells in the best places".formatted(best.count()),
        c ->
            c.receiver(
                r ->
                    r.withTable(
                        r.table().with(r.table().goal().withPlacement(Placement.OPTIMAL)))));
  }
}
