package nocking.firmware;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.ToDoubleFunction;
import java.util.stream.Collectors;
import java.util.stream.DoubleStream;
import java.util.stream.Stream;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.Value;
import nocking.table.Cell;
import nocking.table.DisplayLimits;
import nocking.table.LinearTable;
import nocking.table.TableError;
import nocking.wiring.Thresholds;

/**
 * A table as text: CSV with a units row, or a C99 header with two arrays.
 *
 * @param name C identifier that the arrays' names begin with
 * @param title what the table belongs to, for the header comment
 * @param quantityUnit unit of the output column
 * @param axis unit of the raw column
 * @param limits raw values, in the unit of the axis, beyond which a reading is a fault; null for
 *     none
 * @param display least and largest reading that the display shows; null for none
 */
public record TableSource(
    String name,
    String title,
    String quantityUnit,
    RawUnit axis,
    boolean descending,
    int rawDecimals,
    int outDecimals,
    Thresholds limits,
    DisplayLimits display) {

  public String csv(LinearTable table) {
    var out = new StringBuilder("raw,out\n");
    out.append(axis.unit().symbol()).append(',').append(quantityUnit).append('\n');
    for (Cell c : table.ordered(descending)) {
      out.append(Numbers.fixed(c.raw(), rawDecimals))
          .append(',')
          .append(Numbers.fixed(c.out(), outDecimals))
          .append('\n');
    }
    return out.toString();
  }

  /**
   * Header with {@code NAME_raw[]} and {@code NAME_out[]}. Whole counts are {@code int32_t}, or
   * {@code int64_t} where one of them does not fit; volts are {@code double}.
   */
  public String header(LinearTable table, TableError error) {
    String guard = name.toUpperCase(Locale.ROOT) + "_TABLE_H";
    String upper = name.toUpperCase(Locale.ROOT);
    String type = rawType(table);
    List<Cell> cells = table.ordered(descending);
    return """
        /* %s
         * %d break-points, raw in %s %s, out in %s.
         * Straight lines between them leave at most %s %s, at raw %s.
         */
        #ifndef %s
        #define %s

        #include <stdint.h>

        #define %s_CELLS %d

        static const %s %s_raw[%s_CELLS] = {%s};
        static const double %s_out[%s_CELLS] = {%s};
        %s
        #endif
        """
        .formatted(
            comment(title),
            cells.size(),
            axis.unit().symbol(),
            descending ? "falling" : "rising",
            comment(quantityUnit),
            Numbers.significant(error.worst(), 3),
            comment(quantityUnit),
            Numbers.trimmed(error.worstAt(), 6),
            guard,
            guard,
            upper,
            cells.size(),
            type,
            name,
            upper,
            row(cells, Cell::raw, rawDecimals),
            name,
            upper,
            row(cells, Cell::out, outDecimals),
            faults(upper, type) + clamp());
  }

  /** A reading that stands still at the limits of the display; nothing where it has none. */
  private String clamp() {
    if (display == null) return "";
    var text =
        new StringBuilder("\n/* What the display shows: it stands still at its limits. */\n");
    text.append("static inline double %s_display(double reading)\n{\n".formatted(name));
    if (display.low() != null) {
      String low = Numbers.plain(display.low().number());
      text.append("    if (reading < %1$s) return %1$s;\n".formatted(low));
    }
    if (display.high() != null) {
      String high = Numbers.plain(display.high().number());
      text.append("    if (reading > %1$s) return %1$s;\n".formatted(high));
    }
    return text.append("    return reading;\n}\n").toString();
  }

  private String rawType(LinearTable table) {
    if (axis != RawUnit.COUNTS || rawDecimals > 0) return "double";
    DoubleStream raws = table.ordered(false).stream().mapToDouble(Cell::raw);
    DoubleStream bounds =
        limits == null
            ? DoubleStream.empty()
            : Stream.of(limits.low(), limits.high())
                .filter(Objects::nonNull)
                .mapToDouble(Value::number);
    boolean narrow =
        DoubleStream.concat(raws, bounds)
            .allMatch(v -> v >= Integer.MIN_VALUE && v <= Integer.MAX_VALUE);
    return narrow ? "int32_t" : "int64_t";
  }

  /** 1 for a raw value that only a broken wire gives, else 0; nothing where no limits are set. */
  private String faults(String upper, String type) {
    if (limits == null) return "";
    var text = new StringBuilder("\n/* Raw values beyond these can only be a fault. */\n");
    var tests = new ArrayList<String>();
    if (limits.low() != null) {
      text.append("#define %s_FAULT_BELOW %s\n".formatted(upper, limit(limits.low())));
      tests.add("raw < %s_FAULT_BELOW".formatted(upper));
    }
    if (limits.high() != null) {
      text.append("#define %s_FAULT_ABOVE %s\n".formatted(upper, limit(limits.high())));
      tests.add("raw > %s_FAULT_ABOVE".formatted(upper));
    }
    return text.append(
            "static inline int %s_fault(%s raw) { return %s; }\n"
                .formatted(name, type, String.join(" || ", tests)))
        .toString();
  }

  private String limit(Value v) {
    return axis == RawUnit.COUNTS
        ? Numbers.fixed(Math.rint(v.number()), 0)
        : Numbers.plain(v.number());
  }

  private static String comment(String text) {
    return text.replace("*/", "* /").replace('\n', ' ').replace('\r', ' ');
  }

  private static String row(List<Cell> cells, ToDoubleFunction<Cell> of, int decimals) {
    return cells.stream()
        .map(c -> Numbers.fixed(of.applyAsDouble(c), decimals))
        .collect(Collectors.joining(", "));
  }
}
