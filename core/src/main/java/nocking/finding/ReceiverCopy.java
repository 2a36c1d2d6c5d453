package nocking.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.quantity.Numbers;
import nocking.table.Cell;
import nocking.table.HeldCopy;
import nocking.table.TableSpec;
import nocking.table.Transfer;
import nocking.table.TypedCell;
import nocking.table.TypingSlip;
import nocking.view.ChannelView;
import nocking.view.TableResult;

/** What the receiver holds is not what was sent, not what it takes, or not what is wanted now. */
final class ReceiverCopy implements Rule {
  /** How much more than the table another one may leave that is as good. */
  private static final double ALIKE = 1.2;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    List<Transfer> all = e.channel().receiver().transfers();
    TableSpec spec = e.channel().receiver().table();
    if (all.isEmpty() || spec == null) return Stream.empty();
    Transfer last = all.getLast();
    var list = new ArrayList<Finding>();
    notAsSent(last, e.receiver().table().result()).ifPresent(list::add);
    Optional<String> refused =
        HeldCopy.refused(last.held(), spec.descending(), spec.demands().refusesEqual());
    refused.ifPresent(
        why ->
            list.add(
                of("receiver-refuses", "The receiver's list is not one that it takes", why + ".")));
    e.receiver()
        .table()
        .result()
        .flatMap(t -> behind(t, last, refused.isPresent()))
        .ifPresent(list::add);
    return list.stream();
  }

  private static Finding of(String rule, String headline, String detail) {
    return Finding.of(rule, Severity.WARNING, WorkStep.TABLE, headline, detail);
  }

  private static Optional<Finding> notAsSent(Transfer t, Optional<TableResult> now) {
    List<TypedCell> differing = t.cells().stream().filter(TypedCell::differs).toList();
    if (differing.isEmpty()) return Optional.empty();
    TypedCell first = differing.getFirst();
    List<Cell> meant = t.cells().stream().map(c -> new Cell(c.raw(), c.out())).toList();
    String slip =
        TypingSlip.of(meant, t.held())
            .map(s -> " It looks as if %s.%s".formatted(s.says(), cost(t, meant, now)))
            .orElse("");
    return Optional.of(
        of(
            "receiver-read-back",
            "The receiver holds something else than was %s".formatted(t.how()),
            "%d cell%s differ%s: cell %d reads back %s at %s, sent was %s at %s.%s"
                .formatted(
                    differing.size(),
                    differing.size() == 1 ? "" : "s",
                    differing.size() == 1 ? "s" : "",
                    t.cells().indexOf(first) + 1,
                    Numbers.plain(first.held().out()),
                    Numbers.plain(first.held().raw()),
                    Numbers.plain(first.out()),
                    Numbers.plain(first.raw()),
                    slip)));
  }

  /** What readings are off by, as far as the receiver can look the list up at all. */
  private static String cost(Transfer t, List<Cell> meant, Optional<TableResult> now) {
    boolean same =
        now.filter(n -> n.spec().axis() == t.axis() && n.output().unit().equals(t.unit()))
            .isPresent();
    if (!same) return "";
    if (!HeldCopy.ordered(t.held()))
      return " Its raw values have no order: what it gives is not known.";
    TableResult n = now.get();
    double leaves = worst(t.held(), n);
    double meantLeaves = worst(meant, n);
    return Double.isFinite(leaves) && Double.isFinite(meantLeaves)
        ? " It leaves %s instead of %s."
            .formatted(n.output().error(leaves), n.output().error(meantLeaves))
        : "";
  }

  private static double worst(List<Cell> list, TableResult n) {
    return HeldCopy.worst(list, n.truth(), n.spec().arithmetic().outside(), n.table().rounding());
  }

  /**
   * @param refused true where the list is none that the receiver takes: then it is good for nothing
   */
  private static Optional<Finding> behind(TableResult now, Transfer t, boolean refused) {
    String date = t.at().length() < 10 ? t.at() : t.at().substring(0, 10);
    if (t.axis() != now.spec().axis() || !t.unit().equals(now.output().unit())) {
      return Optional.of(
          of(
              "receiver-behind",
              "The receiver has a table of another kind",
              "That of %s is %s for %s, this one %s for %s."
                  .formatted(
                      date,
                      t.unit(),
                      t.axis().title(),
                      now.output().unit(),
                      now.spec().axis().title())));
    }
    List<Cell> held = t.held();
    List<Cell> wanted = now.ordered();
    int differing = HeldCopy.differing(held, wanted);
    if (differing == 0) return Optional.empty();
    boolean ordered = HeldCopy.ordered(held);
    double leaves = ordered ? worst(held, now) : Double.NaN;
    // Another way of choosing the cells is no reason to type them anew.
    boolean good =
        !refused
            && ordered
            && leaves <= Math.max(now.error().worst() * ALIKE, orNone(now.tolerance()));
    String differ =
        held.size() == wanted.size()
            ? "%d of %d cells differ.".formatted(differing, wanted.size())
            : "It has %d cells, this one %d.".formatted(held.size(), wanted.size());
    String by =
        !ordered
            ? " Its raw values have no order: what it gives is not known."
            : Double.isInfinite(leaves)
                ? " Over a part of the range it has no reading."
                : " It leaves %s, this one %s."
                    .formatted(now.output().error(leaves), now.output().error(now.error().worst()));
    return Optional.of(
        Finding.of(
            "receiver-behind",
            good ? Severity.ADVICE : Severity.WARNING,
            WorkStep.TABLE,
            "The receiver has the table of " + date + (good ? ", and it will do" : ""),
            differ + by));
  }

  private static double orNone(double tolerance) {
    return Double.isNaN(tolerance) ? 0 : tolerance;
  }
}
