package nocking.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import nocking.book.exchange.TableColumns;
import nocking.firmware.TableFirmware;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.table.BetweenPairs;
import nocking.table.Comparison;
import nocking.table.MadeTable;
import nocking.table.RowSlip;
import nocking.table.StepTable;
import nocking.table.TableError;
import nocking.table.Truth;

/**
 * What is said of a table: its cells, what it leaves, whether a smaller one exists, and the others
 * beside it.
 *
 * @param error at the pairs
 * @param limit tolerance; null for none
 * @param holds true when it is kept at every raw step
 */
record TableReport(
    TableColumns columns,
    Truth truth,
    MadeTable made,
    TableFirmware firmware,
    TableError error,
    Value limit,
    boolean holds,
    boolean descending) {

  /** Rows whose true value slipped by a power of ten. */
  static void slips(Answer answer, TableColumns columns) {
    List<RowSlip> slips = RowSlip.of(columns.pairs());
    answer.put(
        "slips",
        slips.stream()
            .map(
                s ->
                    Answer.object(
                        "row",
                        columns.line(s.index()),
                        "read",
                        s.read(),
                        "expected",
                        s.expected(),
                        "factor",
                        s.factor()))
            .toList());
    for (RowSlip s : slips) {
      answer.line(
          "Row %d reads %s where its neighbours say about %s: a factor of %s.",
          columns.line(s.index()),
          Numbers.trimmed(s.read(), 6),
          Numbers.trimmed(s.expected(), 4),
          Numbers.plain(s.factor()));
    }
  }

  /** Says all of it. */
  void into(Answer answer, String arithmetic) {
    StepTable t = made.table();
    List<Integer> order = order(t);
    Optional<BetweenPairs> between = BetweenPairs.of(t, truth);
    List<Comparison> beside =
        Comparison.beside(
            made.placement(), t, truth, columns.pairs().size(), k -> k.against(columns.pairs()));
    answer
        .put(
            "breakpoints",
            order.stream().map(i -> Answer.object("raw", t.rawOf(i), "out", t.outOf(i))).toList())
        .put("count", t.count())
        .put("worstError", error.worst())
        .put("worstAt", error.worstAt())
        .put("rms", error.rms())
        .put("bytes", beside.getFirst().bytes())
        .put("lookUpSteps", t.lookUpSteps())
        .put("tolerance", limit == null ? null : limit.number())
        .put("holds", limit == null ? null : holds)
        .put("smallestPossible", made.bound() == 0 ? null : made.bound())
        .put("proven", made.bound() == 0 ? null : made.proven())
        .put("roundingAllowance", made.allowance())
        .put("leastPossibleError", made.leastError())
        .put("cellsBeyondData", made.table().beyond(truth))
        .put("between", columns.rows() ? "line" : null)
        .put("betweenPairs", between.map(b -> object(b)).orElse(null))
        .put("arithmetic", arithmetic)
        .put("outside", firmware.outside().key())
        .put("rawBits", firmware.rawBits())
        .put("crc", "%08X".formatted(firmware.crc()))
        .put("comparison", beside.stream().map(TableReport::object).toList());
    answer.table(
        order.stream()
            .map(i -> List.of(columns.raw(t.rawOf(i)), Numbers.fixed(t.outOf(i), t.outDecimals())))
            .toList());
    String u = columns.unit().equals(Unit.ONE) ? "" : " " + columns.unit().difference().symbol();
    answer.line(
        "%d break-points, worst error %s%s at raw %s, rms %s, %d bytes",
        t.count(),
        Numbers.significant(error.worst(), 3),
        u,
        columns.raw(error.worstAt()),
        Numbers.significant(error.rms(), 3),
        beside.getFirst().bytes());
    says(answer, u);
    between.ifPresent(
        b ->
            answer.line(
                "Between the pairs it may be off by about %s%s, near raw %s: pairs there would tell.",
                Numbers.significant(b.error(), 3), u, columns.raw(b.at())));
    if (between.isEmpty() && BetweenPairs.gaps(truth)) {
      answer.line(BetweenPairs.assumed(truth));
    }
    var rows = new ArrayList<List<String>>();
    rows.add(List.of("placement", "cells", "worst", "at raw", "rms", "bytes", ""));
    for (Comparison c : beside) {
      boolean within = limit == null || within(c.error(), limit);
      rows.add(
          List.of(
              c.placement(),
              String.valueOf(c.table().count()),
              Numbers.significant(c.error().worst(), 3),
              columns.raw(c.error().worstAt()),
              Numbers.significant(c.error().rms(), 3),
              String.valueOf(c.bytes()),
              within ? "" : "misses the tolerance"));
    }
    answer.table(rows);
  }

  private void says(Answer answer, String u) {
    int beyond = made.table().beyond(truth);
    if (beyond > 0) {
      answer.line("%d of its cells lie beyond the data, on the line that goes on there.", beyond);
    }
    if (made.bound() > 0) {
      answer.line(
          made.proven()
              ? "No table with fewer holds %s%s%s."
              : "For %s%s%s at least %d are needed; whether fewer than these do is not known.",
          Numbers.trimmed(limit.number(), 6),
          u,
          made.allowance() > 0
              ? ", less %s for rounding".formatted(Numbers.trimmed(made.allowance(), 3))
              : "",
          made.bound());
      return;
    }
    if (!holds) {
      TableError everywhere = made.table().against(truth);
      answer.line(
          "It misses the tolerance of %s%s by %s%s%s.",
          Numbers.trimmed(limit.number(), 6),
          u,
          Numbers.significant(everywhere.worst() - limit.number(), 3),
          u,
          within(error, limit) ? ", between the rows" : "");
    }
    if (!Double.isNaN(made.leastError())) {
      answer.line(
          "No table of so many cells stays below %s%s.",
          Numbers.significant(made.leastError(), 3), u);
    }
  }

  private List<Integer> order(StepTable t) {
    List<Integer> rising = IntStream.range(0, t.count()).boxed().toList();
    return descending ? rising.reversed() : rising;
  }

  /** True when an error is within a tolerance, but for the rounding of arithmetic. */
  static boolean within(TableError e, Value limit) {
    return e.worst() <= limit.number() * (1 + 1e-9) + 1e-12;
  }

  private static Map<String, Object> object(BetweenPairs b) {
    return Answer.object("error", b.error(), "at", b.at(), "unsure", b.unsure());
  }

  private static Map<String, Object> object(Comparison c) {
    return Answer.object(
        "placement", c.placement(),
        "count", c.table().count(),
        "worstError", c.error().worst(),
        "worstAt", c.error().worstAt(),
        "rms", c.error().rms(),
        "bytes", c.bytes());
  }
}
