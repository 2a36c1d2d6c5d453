package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import nocking.book.exchange.ColumnFile;
import nocking.firmware.TableFirmware;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.table.Comparison;
import nocking.table.FewestBreakPoints;
import nocking.table.LeastWorstError;
import nocking.table.Outside;
import nocking.table.Placement;
import nocking.table.Placements;
import nocking.table.RowSlip;
import nocking.table.StepTable;
import nocking.table.TableError;
import nocking.table.Truth;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Makes a linearisation table from bench pairs or a datasheet's rows, raw and true. */
@Command(
    name = "table",
    description = {
      "Make the smallest table for a tolerance, or the best of so many cells, from raw and true",
      "values; say what the usual placements would leave beside it."
    })
final class TableCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "DATA.csv")
  Path file;

  @Option(
      names = "--tolerance",
      paramLabel = "T",
      description =
          "In the quantity, in %% of what the data span, or in steps of the output: 1.5LSB.")
  String tolerance;

  @Option(names = "--cells", paramLabel = "N", description = "Number of break-points, 2 to 1024.")
  Integer cells;

  @Option(
      names = "--placement",
      paramLabel = "P",
      defaultValue = "optimal",
      description =
          "optimal (default), equal, pow2, every:K, at-points, or fixed:FILE with the raw values"
              + " in its first column.")
  String placement;

  @Option(names = "--x", paramLabel = "COL", description = "Column of the raw value.")
  String x;

  @Option(names = "--y", paramLabel = "COL", description = "Column of the true value.")
  String y;

  @Option(names = "--raw-unit", paramLabel = "U", description = "V, counts or ohm.")
  String rawUnit;

  @Option(names = "--raw-bits", paramLabel = "B", description = "Width of the raw codes.")
  Integer rawBits;

  @Option(
      names = "--out-bits",
      paramLabel = "B",
      description = "Width of the outputs, with a sign (default: 32).")
  Integer outBits;

  @Option(
      names = "--outside",
      paramLabel = "O",
      defaultValue = "extend",
      description = "Outside the ends: extend (default), hold or fault.")
  String outside;

  @Option(names = "--float", description = "Look up with floating point instead of integers.")
  boolean real;

  @Option(names = "--decimals", paramLabel = "D", description = "Decimals of the output.")
  Integer decimals;

  @Option(names = "--descending", description = "Write the raw column falling.")
  boolean descending;

  @Option(names = "--out", paramLabel = "FILE", description = "Write it: .csv, .json or .xlsx")
  Path out;

  @Option(names = "--c", paramLabel = "DIR", description = "Write C99 there, header and source.")
  Path cFolder;

  @Option(names = "--python", paramLabel = "DIR", description = "Write Python there.")
  Path pythonFolder;

  @Option(names = "--force", description = "Replace existing files.")
  boolean force;

  @Override
  int run(Answer answer) {
    if (cells != null && (cells < 2 || cells > 1024)) {
      throw new QuantityException("--cells: read %d, expected 2 to 1024".formatted(cells));
    }
    TableColumns columns = TableColumns.of(ColumnFile.read(file), x, y, rawUnit);
    Truth truth = columns.truth();
    int outDecimals = decimals != null ? decimals : columns.outDecimals();
    if (outDecimals < 0 || outDecimals > 9) {
      throw new QuantityException("--decimals: read %d, expected 0 to 9".formatted(outDecimals));
    }
    Value limit = limit(columns.unit(), truth, outDecimals);
    if (limit != null && !(limit.number() > 0)) {
      throw new QuantityException(
          "--tolerance: read %s, expected more than 0".formatted(tolerance));
    }
    slips(answer, columns);
    Made made;
    try {
      made = made(truth, limit, outDecimals);
    } catch (NoTableException e) {
      answer.put("breakpoints", List.of()).put("count", null).put("reason", e.getMessage());
      answer.line(
          e.getMessage().substring(0, 1).toUpperCase(java.util.Locale.ROOT)
              + e.getMessage().substring(1)
              + ".");
      return 1;
    }
    TableFirmware firmware =
        TableFirmware.of(
            made.table, outside(), rawBits(made.table), outBits == null ? 32 : outBits, !integer());
    TableError error = made.table.against(columns.pairs());
    boolean holds = limit == null || within(made.table.against(truth), limit);
    report(answer, columns, truth, made, firmware, error, limit, holds);
    new TableFiles(columns, firmware, error, limit, descending, force)
        .write(out, cFolder, pythonFolder);
    return holds ? 0 : 1;
  }

  /**
   * A table and what is known of how small it is.
   *
   * @param bound cells below which no table holds the tolerance; 0 where nothing is known
   * @param leastError error below which no table of so many cells stays; NaN where nothing is known
   */
  private record Made(
      StepTable table, String placement, int bound, boolean proven, double leastError) {}

  /** No table holds the tolerance: that is an answer. */
  private static final class NoTableException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    NoTableException(String why) {
      super(why);
    }
  }

  private Made made(Truth truth, Value limit, int d) {
    boolean rounded = integer();
    if (placement.startsWith("every:")) {
      StepTable t = Placements.everyRow(truth, every(), d, rounded);
      return new Made(t, placement, 0, false, Double.NaN);
    }
    if (placement.equals("at-points")) {
      return new Made(Placements.everyRow(truth, 1, d, rounded), placement, 0, false, Double.NaN);
    }
    if (placement.startsWith("fixed:")) {
      ColumnFile axis = ColumnFile.read(Path.of(placement.substring("fixed:".length())));
      StepTable t = Placements.at(truth, axis.numbers(0), d, rounded);
      return new Made(t, placement, 0, false, Double.NaN);
    }
    Placement p = Placement.of(placement);
    if (p == Placement.OPTIMAL && limit != null && cells == null) {
      try {
        FewestBreakPoints f = FewestBreakPoints.of(truth, limit.number(), d, rounded);
        return new Made(f.table(), placement, f.bound(), f.proven(), Double.NaN);
      } catch (QuantityException e) {
        throw new NoTableException(e.getMessage());
      }
    }
    if (cells == null) {
      throw new QuantityException(
          p == Placement.OPTIMAL
              ? "a table needs --tolerance T or --cells N"
              : "a table in %s needs --cells N".formatted(p.title()));
    }
    return switch (p) {
      case OPTIMAL -> {
        LeastWorstError w = LeastWorstError.of(truth, cells, d, rounded);
        yield new Made(w.table(), placement, 0, false, w.bound());
      }
      case EQUAL ->
          new Made(
              Placements.equalSteps(truth, cells, d, rounded), placement, 0, false, Double.NaN);
      case POW2 ->
          new Made(
              Placements.powersOfTwo(truth, cells, d, rounded), placement, 0, false, Double.NaN);
    };
  }

  /** A receiver counts in integers where its widths are said or code is written for it. */
  private boolean integer() {
    boolean said = rawBits != null || outBits != null || cFolder != null || pythonFolder != null;
    return said && !real;
  }

  private static boolean within(TableError e, Value limit) {
    return e.worst() <= limit.number() * (1 + 1e-9) + 1e-12;
  }

  private int every() {
    String k = placement.substring("every:".length());
    if (!k.matches("[1-9]\\d{0,5}")) {
      throw new QuantityException(
          "read placement '%s', expected every:K with K from 1".formatted(placement));
    }
    return Integer.parseInt(k);
  }

  private Outside outside() {
    return Arrays.stream(Outside.values())
        .filter(o -> o.key().equals(outside))
        .findFirst()
        .orElseThrow(
            () ->
                new QuantityException(
                    "read --outside '%s', expected extend, hold or fault".formatted(outside)));
  }

  /** The declared width, or the least that holds the raw steps of the table. */
  private int rawBits(StepTable t) {
    if (rawBits != null) return rawBits;
    long most = Math.max(t.raw()[t.count() - 1], -(long) t.raw()[0] - 1);
    int bits = Math.max(8, Long.SIZE - Long.numberOfLeadingZeros(Math.max(1, most)));
    return t.raw()[0] < 0 ? bits + 1 : bits;
  }

  /** The tolerance in the unit of the true column. */
  private Value limit(Unit unit, Truth truth, int outDecimals) {
    if (tolerance == null) return null;
    String typed = tolerance.strip();
    try {
      if (typed.toUpperCase(java.util.Locale.ROOT).endsWith("LSB")) {
        String number = typed.substring(0, typed.length() - 3).strip();
        return new Value(
            Value.typed(number, Unit.ONE).number() * Math.pow(10, -outDecimals), typed);
      }
      return Value.tolerance(typed, unit.difference(), truth.span());
    } catch (QuantityException e) {
      throw new QuantityException("--tolerance: " + e.getMessage());
    }
  }

  private static void slips(Answer answer, TableColumns columns) {
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

  private void report(
      Answer answer,
      TableColumns columns,
      Truth truth,
      Made made,
      TableFirmware firmware,
      TableError error,
      Value limit,
      boolean holds) {
    StepTable t = made.table;
    List<Integer> order = order(t);
    List<Comparison> beside =
        Comparison.beside(
            made.placement, t, truth, columns.pairs().size(), k -> k.against(columns.pairs()));
    answer
        .put(
            "breakpoints",
            order.stream().map(i -> Answer.object("raw", raw(t, i), "out", out(t, i))).toList())
        .put("count", t.count())
        .put("worstError", error.worst())
        .put("worstAt", error.worstAt())
        .put("rms", error.rms())
        .put("bytes", beside.getFirst().bytes())
        .put("lookUpSteps", t.lookUpSteps())
        .put("tolerance", limit == null ? null : limit.number())
        .put("holds", limit == null ? null : holds)
        .put("smallestPossible", made.bound == 0 ? null : made.bound)
        .put("proven", made.bound == 0 ? null : made.proven)
        .put("leastPossibleError", made.leastError)
        .put("between", columns.rows() ? "line" : null)
        .put("arithmetic", integer() ? "integer" : real ? "float" : "lines")
        .put("outside", outside)
        .put("rawBits", firmware.rawBits())
        .put("crc", "%08X".formatted(firmware.crc()))
        .put("comparison", beside.stream().map(TableCommand::object).toList());
    answer.table(
        order.stream()
            .map(i -> List.of(columns.raw(raw(t, i)), Numbers.fixed(out(t, i), t.outDecimals())))
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
    says(answer, made, limit, u, error, holds);
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

  private static void says(
      Answer answer, Made made, Value limit, String u, TableError error, boolean holds) {
    if (made.bound > 0) {
      answer.line(
          made.proven
              ? "No table with fewer holds %s%s."
              : "For %s%s at least %d are needed; whether fewer than these do is not known.",
          Numbers.trimmed(limit.number(), 6),
          u,
          made.bound);
      return;
    }
    if (!holds) {
      answer.line(
          "It misses the tolerance of %s%s by %s%s.",
          Numbers.trimmed(limit.number(), 6),
          u,
          Numbers.significant(error.worst() - limit.number(), 3),
          u);
    }
    if (!Double.isNaN(made.leastError)) {
      answer.line(
          "No table of so many cells stays below %s%s.",
          Numbers.significant(made.leastError, 3), u);
    }
  }

  private List<Integer> order(StepTable t) {
    List<Integer> rising = IntStream.range(0, t.count()).boxed().toList();
    return descending ? rising.reversed() : rising;
  }

  static double raw(StepTable t, int i) {
    return t.raw()[i] / Math.pow(10, t.rawDecimals());
  }

  static double out(StepTable t, int i) {
    return t.out()[i] / Math.pow(10, t.outDecimals());
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
