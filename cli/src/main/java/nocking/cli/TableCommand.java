package nocking.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import nocking.book.BookException;
import nocking.book.exchange.ColumnException;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.Output;
import nocking.firmware.TableSource;
import nocking.fit.Samples;
import nocking.path.GeneratedEquation;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.table.Cell;
import nocking.table.LinearTable;
import nocking.table.TableError;
import nocking.table.TableSpec;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.json.JsonMapper;

/** Makes a linearisation table from bench pairs (first column raw, second true). */
@Command(
    name = "table",
    description =
        "Make a table of equal steps from bench pairs: raw and true, the first two columns.")
final class TableCommand extends JsonOption {
  private static final int DIGITS = 5;

  @Parameters(index = "0", paramLabel = "DATA.csv")
  Path file;

  @Option(names = "--cells", paramLabel = "N", description = "Number of break-points, 2 to 1024.")
  Integer cells;

  @Option(names = "--placement", paramLabel = "P", description = "equal", defaultValue = "equal")
  String placement;

  @Option(names = "--tolerance", paramLabel = "T", hidden = true)
  String tolerance;

  @Option(
      names = {"--raw-bits", "--out-bits", "--outside", "--float"},
      arity = "0..1",
      fallbackValue = "",
      hidden = true)
  String firmware;

  @Option(names = "--decimals", paramLabel = "D", description = "Decimals of the output.")
  Integer decimals;

  @Option(names = "--descending", description = "Write the raw column falling.")
  boolean descending;

  @Option(names = "--out", paramLabel = "FILE", description = "Write the table: .csv or .json")
  Path out;

  @Option(names = "--c", paramLabel = "DIR", description = "Write the table as a C header there.")
  Path cFolder;

  @Option(names = "--force", description = "Replace existing files.")
  boolean force;

  @Override
  int run(Answer answer) {
    if (tolerance != null) throw new NotAvailableException("a table for a tolerance");
    if (firmware != null) {
      throw new NotAvailableException("a table with the receiver's own integer arithmetic");
    }
    if (out != null && out.toString().toLowerCase(Locale.ROOT).endsWith(".xlsx")) {
      throw new NotAvailableException("a table as .xlsx");
    }
    if (!placement.equals("equal")) throw new NotAvailableException("the placement " + placement);
    if (cells == null) throw new QuantityException("a table needs --cells N");
    ColumnFile f = ColumnFile.read(file);
    if (f.header().size() < 2 || f.rows().isEmpty()) {
      throw new ColumnException(f.source() + " needs two columns, raw and true, and rows in them");
    }
    Samples pairs = new Samples(f.numbers(0), f.numbers(1));
    var curve = LinearTable.throughPairs(pairs);
    boolean whole = Arrays.stream(pairs.raw()).allMatch(v -> v == Math.rint(v));
    // Whole numbers are counts unless their unit says that they are something else.
    boolean volts = f.unit(0).map(u -> u.dimension().equals(Unit.VOLT.dimension())).orElse(false);
    boolean named = f.unit(0).map(Unit.COUNTS::equals).orElse(false);
    boolean counts = named || whole && !volts;
    if (named && !whole) {
      throw new ColumnException(f.source() + " has counts that are no whole numbers");
    }
    int outDecimals =
        decimals != null
            ? decimals
            : digitsFor(Arrays.stream(pairs.quantity()).map(Math::abs).max().orElse(1));
    var spec =
        new TableSpec(
            cells,
            counts ? RawUnit.COUNTS : RawUnit.VOLTS,
            descending,
            counts ? 0 : digitsFor(pairs.rawSpan().high()),
            outDecimals);
    LinearTable table =
        LinearTable.equalSteps(
            curve, pairs.rawSpan(), spec.cells(), spec.rawDecimals(), spec.outDecimals());
    TableError error = table.against(pairs);
    report(answer, table, spec, error);
    write(table, spec, error, f);
    return 0;
  }

  /** Decimals that give five significant digits at this size. */
  private static int digitsFor(double size) {
    if (size == 0) return DIGITS;
    return Math.clamp(DIGITS - 1 - (int) Math.floor(Math.log10(Math.abs(size))), 0, 9);
  }

  private void report(Answer answer, LinearTable table, TableSpec spec, TableError error) {
    List<Cell> ordered = table.ordered(descending);
    int bytes = ordered.size() * (spec.axis() == RawUnit.COUNTS ? 4 + 8 : 8 + 8);
    answer
        .put("breakpoints", objects(ordered))
        .put("count", ordered.size())
        .put("worstError", error.worst())
        .put("worstAt", error.worstAt())
        .put("rms", error.rms())
        .put("bytes", bytes)
        .put(
            "comparison",
            List.of(
                Answer.object(
                    "placement", "equal", "count", ordered.size(), "worstError", error.worst())));
    answer.table(
        ordered.stream()
            .map(
                c ->
                    List.of(
                        Numbers.fixed(c.raw(), spec.rawDecimals()),
                        Numbers.fixed(c.out(), spec.outDecimals())))
            .toList());
    answer.line(
        "%d break-points, worst error %s at raw %s, rms %s, %d bytes",
        ordered.size(),
        Numbers.significant(error.worst(), 3),
        Numbers.trimmed(error.worstAt(), 6),
        Numbers.significant(error.rms(), 3),
        bytes);
  }

  private static List<Map<String, Object>> objects(List<Cell> cells) {
    return cells.stream().map(c -> Answer.object("raw", c.raw(), "out", c.out())).toList();
  }

  private void write(LinearTable table, TableSpec spec, TableError error, ColumnFile f) {
    String stem = f.source().replaceFirst("\\.[^.]*$", "");
    var source =
        new TableSource(
            GeneratedEquation.identifier(stem),
            "Table of " + f.source(),
            f.unit(1).map(u -> u.symbol()).orElse(""),
            spec.axis(),
            descending,
            spec.rawDecimals(),
            spec.outDecimals(),
            null,
            null);
    if (out != null) {
      String name = out.getFileName().toString().toLowerCase(Locale.ROOT);
      if (name.endsWith(".csv")) Output.write(out, source.csv(table), force);
      else if (name.endsWith(".json")) {
        String json =
            JsonMapper.shared()
                .writeValueAsString(
                    Answer.object("breakpoints", objects(table.ordered(descending))));
        Output.write(out, json + "\n", force);
      } else {
        throw new QuantityException("--out takes a name ending in .csv or .json; read " + out);
      }
    }
    if (cFolder != null) {
      if (!Files.isDirectory(cFolder)) {
        throw new BookException(BookException.Cause.OUTSIDE, cFolder + " is no folder");
      }
      Output.write(cFolder.resolve(source.name() + "_table.h"), source.header(table, error), force);
    }
  }
}
