package nocking.cli;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.TableColumns;
import nocking.firmware.TableFirmware;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.table.MadeTable;
import nocking.table.Outside;
import nocking.table.Placement;
import nocking.table.StepTable;
import nocking.table.TableError;
import nocking.table.TableRequest;
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

  private String dropped = "";

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
          "--tolerance: read %s, that is %s here, expected more than 0"
              .formatted(tolerance, Numbers.plain(limit.number())));
    }
    answer.put("notCounting", columns.notCounting());
    columns.notCounting().forEach(l -> answer.line("%s: %s", file.getFileName(), l));
    TableReport.slips(answer, columns);
    MadeTable made;
    try {
      made = made(truth, limit, outDecimals);
    } catch (NoTableException e) {
      answer.put("breakpoints", List.of()).put("count", null).put("reason", e.getMessage());
      answer.line(
          e.getMessage().substring(0, 1).toUpperCase(Locale.ROOT)
              + e.getMessage().substring(1)
              + ".");
      return 1;
    }
    TableFirmware firmware =
        TableFirmware.of(
            made.table(),
            outside(),
            rawBits == null ? TableFirmware.bitsFor(made.table()) : rawBits,
            outBits == null ? 32 : outBits,
            !integer());
    TableError error = made.table().against(columns.pairs());
    boolean holds = limit == null || TableReport.within(made.table().against(truth), limit);
    String arithmetic = integer() ? "integer" : real ? "float" : "lines";
    new TableReport(columns, truth, made, firmware, error, limit, holds, descending)
        .into(answer, arithmetic);
    answer.put("dropped", dropped);
    if (!dropped.isEmpty()) answer.line("%s", dropped);
    comesTo(answer, limit, columns.unit(), outDecimals);
    write(
        new TableFiles(columns, firmware, error, limit, descending).of(out, cFolder, pythonFolder),
        force);
    return holds ? 0 : 1;
  }

  /** What a tolerance in steps or in per cents is in the quantity. */
  private static void comesTo(Answer answer, Value limit, Unit unit, int decimals) {
    if (limit == null || limit.typed().matches("[-+.0-9eE]+")) return;
    String u = unit.equals(Unit.ONE) ? "" : " " + unit.difference().symbol();
    boolean steps = limit.typed().toUpperCase(Locale.ROOT).endsWith("LSB");
    String at = steps ? " at %d decimal%s".formatted(decimals, decimals == 1 ? "" : "s") : "";
    answer.line("%s = %s%s%s.", limit.typed(), Numbers.trimmed(limit.number(), 6), u, at);
  }

  /** No table holds the tolerance: that is an answer. */
  private static final class NoTableException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    NoTableException(String why) {
      super(why);
    }
  }

  private MadeTable made(Truth truth, Value limit, int d) {
    TableRequest request = request(limit, d);
    boolean fewest = request.placement() == Placement.OPTIMAL && request.cells() == 0;
    if (fewest && limit == null) {
      throw new QuantityException("a table needs --tolerance T or --cells N");
    }
    if (!fewest && request.placement().counts() && cells == null) {
      throw new QuantityException(
          "a table in %s needs --cells N".formatted(request.placement().title()));
    }
    try {
      return asMany(request, request.of(truth), truth);
    } catch (QuantityException e) {
      throw fewest ? new NoTableException(e.getMessage()) : e;
    }
  }

  /**
   * The table with as many cells as were asked for. Every k-th row takes the last row of all in,
   * too; where it has no cell, it is dropped, and that is said.
   */
  private MadeTable asMany(TableRequest request, MadeTable made, Truth truth) {
    StepTable t = made.table();
    if (cells == null || request.placement().counts() || t.count() == cells) return made;
    if (request.placement() != Placement.EVERY || t.count() != cells + 1) {
      throw new QuantityException(
          "--cells %d: the placement %s gives %d cells here; leave --cells out, or take optimal, equal or pow2"
              .formatted(cells, request.key(), t.count()));
    }
    double[] raws = IntStream.range(0, cells).mapToDouble(t::rawOf).toArray();
    dropped =
        "The last row, raw %s, is none of every %s row and has no cell: behind raw %s the table goes by --outside %s."
            .formatted(
                Numbers.fixed(t.rawOf(cells), t.rawDecimals()),
                Numbers.ordinal(request.every()),
                Numbers.fixed(t.rawOf(cells - 1), t.rawDecimals()),
                outside);
    var shorter =
        new TableRequest(
            Placement.FIXED,
            0,
            raws,
            cells,
            request.tolerance(),
            request.outDecimals(),
            request.rounded());
    MadeTable m = shorter.of(truth);
    return new MadeTable(
        m.table(), request.key(), m.bound(), m.proven(), m.allowance(), m.leastError());
  }

  private TableRequest request(Value limit, int d) {
    String word = placement.replaceFirst(":.*", "");
    boolean bare = word.equals(placement);
    Placement p =
        Arrays.stream(Placement.values())
            .filter(v -> v.key().equals(word))
            .findFirst()
            .orElse(null);
    if (p == null || bare == (p == Placement.EVERY || p == Placement.FIXED)) {
      throw new QuantityException(
          "read placement '%s', expected optimal, equal, pow2, every:K, at-points or fixed:FILE"
              .formatted(placement));
    }
    double[] raws =
        p == Placement.FIXED
            ? ColumnFile.read(Path.of(placement.substring(word.length() + 1))).numbers(0)
            : new double[0];
    return new TableRequest(
        p,
        p == Placement.EVERY ? every() : 0,
        raws,
        cells == null ? 0 : cells,
        limit == null ? Double.NaN : limit.number(),
        d,
        integer());
  }

  /** A receiver counts in integers where its widths are said or code is written for it. */
  private boolean integer() {
    boolean said = rawBits != null || outBits != null || cFolder != null || pythonFolder != null;
    return said && !real;
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

  /** The tolerance in the unit of the true column. */
  private Value limit(Unit unit, Truth truth, int outDecimals) {
    if (tolerance == null) return null;
    String typed = tolerance.strip();
    try {
      if (typed.toUpperCase(Locale.ROOT).endsWith("LSB")) {
        String number = typed.substring(0, typed.length() - 3).strip();
        return new Value(
            Value.typed(number, Unit.ONE).number() * Math.pow(10, -outDecimals), typed);
      }
      return Value.tolerance(typed, unit.difference(), truth.span());
    } catch (QuantityException e) {
      throw new QuantityException("--tolerance: " + e.getMessage());
    }
  }
}
