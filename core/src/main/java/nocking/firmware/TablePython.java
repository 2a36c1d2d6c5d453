package nocking.firmware;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import nocking.quantity.Numbers;
import nocking.quantity.PlainText;
import nocking.table.StepTable;

/**
 * A table as Python 3 without any library: the very integers that the C gives, or the line in
 * double precision.
 *
 * @param name identifier that the function's name begins with
 * @param title what it belongs to
 * @param unit of the quantity
 */
public record TablePython(String name, TableFirmware firmware, String title, String unit) {

  public String source() {
    StepTable t = firmware.table();
    String raw = Arrays.stream(t.raw()).mapToObj(String::valueOf).collect(Collectors.joining(", "));
    String out =
        firmware.real()
            ? IntStream.range(0, t.count())
                .mapToObj(i -> Double.toString(t.out()[i] / Math.pow(10, t.outDecimals())))
                .collect(Collectors.joining(", "))
            : Arrays.stream(t.out()).mapToObj(String::valueOf).collect(Collectors.joining(", "));
    String first = "RAW[0]";
    String last = "RAW[-1]";
    String ends =
        switch (firmware.outside()) {
          case EXTEND -> "";
          case HOLD -> "    raw = min(max(raw, %s), %s)\n".formatted(first, last);
          case FAULT ->
              "    if raw < %s or raw > %s:\n        return None\n".formatted(first, last);
        };
    String line =
        firmware.real()
            ? "    out = OUT[i] + (OUT[i + 1] - OUT[i]) * ((raw - RAW[i]) / width)\n"
            : """
                # The nearest step, half up.
                out = OUT[i] + ((OUT[i + 1] - OUT[i]) * (raw - RAW[i]) + width // 2) // width
            """;
    return """
        \"""%s: %s.\"""
        from bisect import bisect_right

        RAW = [%s]
        OUT = [%s]


        def %s_lookup(raw):
            raw = min(max(raw, %d), %d)
        %s%s    i = min(max(bisect_right(RAW, raw) - 1, 0), len(RAW) - 2)
            width = RAW[i + 1] - RAW[i]
        %s%s    return out
        """
        .formatted(
            docstring(title),
            firmware.real()
                ? "the quantity in " + docstring(unit)
                : "the quantity in steps of %s %s"
                    .formatted(Numbers.fixed(t.step(), t.outDecimals()), docstring(unit)),
            raw,
            out,
            name,
            firmware.leastRaw(),
            firmware.mostRaw(),
            broken(),
            ends,
            line,
            shown());
  }

  private static String docstring(String text) {
    return PlainText.comment(text).replace('"', '\'');
  }

  /** Raw codes that only a broken wire gives. */
  private String broken() {
    Guards g = firmware.guards();
    var tests = new ArrayList<String>();
    if (g.faultBelow() != null) tests.add("raw < " + g.faultBelow());
    if (g.faultAbove() != null) tests.add("raw > " + g.faultAbove());
    if (tests.isEmpty()) return "";
    return "    if %s:\n        return None\n".formatted(String.join(" or ", tests));
  }

  /** Where the display stands still. */
  private String shown() {
    Guards g = firmware.guards();
    String low = g.least() == null ? "" : "    out = max(out, %s)\n".formatted(output(g.least()));
    String high = g.most() == null ? "" : "    out = min(out, %s)\n".formatted(output(g.most()));
    return low + high;
  }

  private String output(long steps) {
    return firmware.real()
        ? Double.toString(steps / Math.pow(10, firmware.table().outDecimals()))
        : String.valueOf(steps);
  }
}
