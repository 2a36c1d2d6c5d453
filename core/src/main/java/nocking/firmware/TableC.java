package nocking.firmware;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import nocking.quantity.Numbers;
import nocking.quantity.PlainText;
import nocking.table.StepTable;

/**
 * A table as C99, header and source: look-up and self-test, with integers alone or with single
 * precision. What they give is what {@link TableFirmware} gives.
 *
 * @param name C identifier that all names begin with
 * @param about lines for the head of the header: what it belongs to, date, error, revision
 * @param unit of the quantity, for the comments
 * @param decoders names of headers that go with it and give the state of a raw code
 */
public record TableC(
    String name, TableFirmware firmware, List<String> about, String unit, List<String> decoders) {

  /** A table without any decoder. */
  public TableC(String name, TableFirmware firmware, List<String> about, String unit) {
    this(name, firmware, about, unit, List.of());
  }

  private String upper() {
    return name.toUpperCase(Locale.ROOT);
  }

  private StepTable table() {
    return firmware.table();
  }

  /** Narrowest of the exact types that holds all values. */
  private static String type(long low, long high) {
    if (low >= 0 && high <= 0xFFFF) return "uint16_t";
    if (low >= Short.MIN_VALUE && high <= Short.MAX_VALUE) return "int16_t";
    return "int32_t";
  }

  private String rawType() {
    return type(firmware.first(), firmware.last());
  }

  private String outType() {
    LongStream all = Arrays.stream(table().out());
    return firmware.real()
        ? "float"
        : type(all.min().orElseThrow(), Arrays.stream(table().out()).max().orElseThrow());
  }

  public String header() {
    String u = upper();
    String lines =
        about.stream().map(l -> " * " + PlainText.comment(l) + "\n").collect(Collectors.joining());
    String step = Numbers.fixed(table().step(), table().outDecimals());
    String fault =
        !firmware.givesFaults()
            ? ""
            : firmware.real()
                ? "/* Where there is no reading the look-up gives NAN. */\n"
                : "/* Where there is no reading the look-up gives this. */\n#define %s_FAULT INT32_MIN\n"
                    .formatted(u);
    return """
        /*
        %s * Raw codes %d ... %d, straight lines between the cells; outside them: %s.
        %s%s */
        #ifndef %s_TABLE_H
        #define %s_TABLE_H

        #include <stdint.h>
        %s
        #define %s_CELLS %dU
        #define %s_CRC 0x%08XU
        %s
        extern const %s %s_raw[%s_CELLS];
        extern const %s %s_out[%s_CELLS];

        /* %s */
        %s %s_lookup(int32_t raw);

        /* 0 when cells and arithmetic are as they were generated, else the number of the check. */
        int %s_selftest(void);

        #endif
        """
        .formatted(
            lines,
            firmware.leastRaw(),
            firmware.mostRaw(),
            outsideWords(),
            guards(),
            arithmetic(),
            u,
            u,
            decoders.stream().map("#include \"%s\"\n"::formatted).collect(Collectors.joining()),
            u,
            table().count(),
            u,
            firmware.crc(),
            fault,
            rawType(),
            name,
            u,
            outType(),
            name,
            u,
            firmware.real()
                ? "The quantity in " + PlainText.comment(unit) + "."
                : "The quantity in steps of %s %s.".formatted(step, PlainText.comment(unit)),
            firmware.real() ? "float" : "int32_t",
            name,
            name);
  }

  private String outsideWords() {
    return switch (firmware.outside()) {
      case EXTEND -> "the end slope goes on";
      case HOLD -> "the end value stands";
      case FAULT -> "a fault code";
    };
  }

  /** What is built in beside the table. */
  private String guards() {
    Guards g = firmware.guards();
    var lines = new StringBuilder();
    if (g.faultBelow() != null) {
      lines.append(" * Raw codes below %d can only be a broken wire.\n".formatted(g.faultBelow()));
    }
    if (g.faultAbove() != null) {
      lines.append(" * Raw codes above %d can only be a broken wire.\n".formatted(g.faultAbove()));
    }
    if (g.least() != null) {
      lines.append(
          " * Nothing below %s %s is given.\n"
              .formatted(quantity(g.least()), PlainText.comment(unit)));
    }
    if (g.most() != null) {
      lines.append(
          " * Nothing above %s %s is given.\n"
              .formatted(quantity(g.most()), PlainText.comment(unit)));
    }
    return lines.toString();
  }

  private String quantity(long steps) {
    return Numbers.fixed(steps * table().step(), table().outDecimals());
  }

  private String arithmetic() {
    if (firmware.real()) return " * Single precision; every operation rounds to nearest.\n";
    TableFirmware.Proof p = firmware.proof();
    return """
         * Results are rounded to the nearest step, half up. The largest product over all codes is
         * %d, at raw %d: it is computed in %d bits. Results are %d ... %d.
        """
        .formatted(p.product(), p.productAt(), p.narrow() ? 32 : 64, p.low(), p.high());
  }

  private String cells(IntStream raw) {
    return raw.mapToObj(String::valueOf).collect(Collectors.joining(", "));
  }

  private String outs() {
    if (!firmware.real()) {
      return Arrays.stream(table().out()).mapToObj(TableC::whole).collect(Collectors.joining(", "));
    }
    return IntStream.range(0, table().count())
        .mapToObj(i -> literal(firmware.out(i)))
        .collect(Collectors.joining(", "));
  }

  /** The least 32-bit integer cannot be written as one number. */
  private static String whole(long v) {
    return v == Integer.MIN_VALUE ? "INT32_MIN" : String.valueOf(v);
  }

  private static String literal(float v) {
    String s = Float.toString(v);
    return (s.contains(".") || s.contains("E") ? s : s + ".0") + "F";
  }

  public String source() {
    String real = firmware.real() ? realLookUp() : integerLookUp();
    boolean nan = firmware.real() && firmware.givesFaults();
    return """
        #include "%s_table.h"
        %s
        const %s %s_raw[%s_CELLS] = {%s};
        const %s %s_out[%s_CELLS] = {%s};

        %s
        %s"""
        .formatted(
            name,
            nan ? "\n#include <math.h>\n" : "",
            rawType(),
            name,
            upper(),
            cells(Arrays.stream(table().raw())),
            outType(),
            name,
            upper(),
            outs(),
            real,
            selfTest());
  }

  /** What stands before the search: codes beyond the width, and the ends. */
  private String ends(String held, String fault) {
    String first = "(int32_t)%s_raw[0]".formatted(name);
    String last = "(int32_t)%s_raw[%s_CELLS - 1U]".formatted(name, upper());
    String end =
        switch (firmware.outside()) {
          case EXTEND -> "";
          case HOLD ->
              "    if (raw < %1$s) raw = %1$s;\n    if (raw > %2$s) raw = %2$s;\n"
                  .formatted(first, last);
          case FAULT -> "    if (raw < %s || raw > %s) return %s;\n".formatted(first, last, fault);
        };
    return held + broken(fault) + end;
  }

  private String broken(String fault) {
    Guards g = firmware.guards();
    String below = g.faultBelow() == null ? "" : "raw < %d".formatted(g.faultBelow());
    String above = g.faultAbove() == null ? "" : "raw > %d".formatted(g.faultAbove());
    if (!g.faults()) return "";
    String test = below + (below.isEmpty() || above.isEmpty() ? "" : " || ") + above;
    return "    if (%s) return %s;\n".formatted(test, fault);
  }

  /** Holds a result where the display stands still; nothing where it does not. */
  private String shown(String result, String least, String most) {
    Guards g = firmware.guards();
    String low =
        g.least() == null ? "" : "    if (%1$s < %2$s) %1$s = %2$s;\n".formatted(result, least);
    String high =
        g.most() == null ? "" : "    if (%1$s > %2$s) %1$s = %2$s;\n".formatted(result, most);
    return low + high;
  }

  private String held() {
    return "    if (raw < %1$d) raw = %1$d;\n    if (raw > %2$d) raw = %2$d;\n"
        .formatted(firmware.leastRaw(), firmware.mostRaw());
  }

  /** Steps of a power of two are found by a shift, all others by halves. */
  private String search() {
    int[] r = table().raw();
    int step = r[1] - r[0];
    boolean even = Integer.bitCount(step) == 1;
    for (int i = 1; i < r.length; i++) even &= (long) r[i] - r[i - 1] == step;
    if (even && r.length > 2) {
      return """
              if (raw < (int32_t)%1$s_raw[1]) low = 0U;
              else low = (uint32_t)(raw - (int32_t)%1$s_raw[0]) >> %2$d;
              if (low > %3$s_CELLS - 2U) low = %3$s_CELLS - 2U;
          """
          .formatted(name, Integer.numberOfTrailingZeros(step), upper());
    }
    return """
            high = %2$s_CELLS - 1U;
            while (high - low > 1U) {
                const uint32_t middle = (low + high) / 2U;
                if ((int32_t)%1$s_raw[middle] <= raw) low = middle;
                else high = middle;
            }
        """
        .formatted(name, upper());
  }

  private String variables() {
    return search().contains("high")
        ? "    uint32_t low = 0U;\n    uint32_t high;\n"
        : "    uint32_t low;\n";
  }

  private String integerLookUp() {
    String t = firmware.proof().narrow() ? "int32_t" : "int64_t";
    String fault = upper() + "_FAULT";
    return """
        int32_t %1$s_lookup(int32_t raw)
        {
        %2$s    %3$s width;
            %3$s product;
            %3$s share;

        %4$s%5$s    width = (%3$s)%1$s_raw[low + 1U] - (%3$s)%1$s_raw[low];
            product = ((%3$s)%1$s_out[low + 1U] - (%3$s)%1$s_out[low]) * ((%3$s)raw - (%3$s)%1$s_raw[low]);
            /* Rounded half up; C99 divides towards zero. */
            product += width / 2;
            share = product / width;
            if (product %% width < 0) share--;
            share += (%3$s)%1$s_out[low];
        %6$s    return (int32_t)share;
        }
        """
        .formatted(
            name,
            variables(),
            t,
            ends(held(), fault),
            search(),
            shown("share", limit(firmware.guards().least()), limit(firmware.guards().most())));
  }

  private static String limit(Long steps) {
    return steps == null ? "" : whole(steps);
  }

  private String single(Long steps) {
    return steps == null ? "" : literal(firmware.single(steps));
  }

  private String realLookUp() {
    return """
        float %1$s_lookup(int32_t raw)
        {
        %2$s    float share;

        %3$s%4$s    share = (float)(raw - (int32_t)%1$s_raw[low]) / (float)((int32_t)%1$s_raw[low + 1U] - (int32_t)%1$s_raw[low]);
            share = %1$s_out[low] + (%1$s_out[low + 1U] - %1$s_out[low]) * share;
        %5$s    return share;
        }
        """
        .formatted(
            name,
            variables(),
            ends(held(), "NAN"),
            search(),
            shown("share", single(firmware.guards().least()), single(firmware.guards().most())));
  }

  /** Raw codes at which the self-test looks: between cells, at the ends and beyond them. */
  private int[] checks() {
    int[] r = table().raw();
    int n = r.length;
    return IntStream.concat(
            IntStream.of(firmware.leastRaw(), firmware.mostRaw(), r[0], r[n - 1]),
            IntStream.range(0, Math.min(8, n - 1))
                .map(i -> i * (n - 1) / Math.min(8, n - 1))
                .map(i -> (int) (((long) r[i] + r[i + 1]) / 2)))
        .distinct()
        .filter(c -> !(firmware.real() && Float.isNaN(firmware.lookReal(c))))
        .toArray();
  }

  private String selfTest() {
    int[] at = checks();
    String expected =
        IntStream.of(at)
            .mapToObj(
                c -> firmware.real() ? literal(firmware.lookReal(c)) : whole(firmware.look(c)))
            .collect(Collectors.joining(", "));
    String crc =
        firmware.real()
            ? ""
            : """

                for (i = 0U; i < %2$s_CELLS; i++) {
                    const uint32_t words[2] = {(uint32_t)(int32_t)%1$s_raw[i], (uint32_t)(int32_t)%1$s_out[i]};
                    for (k = 0U; k < 8U; k++) {
                        crc ^= (words[k / 4U] >> (8U * (k %% 4U))) & 0xFFU;
                        for (bit = 0U; bit < 8U; bit++) crc = (crc >> 1) ^ ((crc & 1U) != 0U ? 0xEDB88320U : 0U);
                    }
                }
                if ((crc ^ 0xFFFFFFFFU) != %2$s_CRC) return 1;
            """
                .formatted(name, upper());
    return """
        int %1$s_selftest(void)
        {
            static const int32_t at[%2$d] = {%3$s};
            static const %4$s expected[%2$d] = {%5$s};
            uint32_t i;
        %6$s%7$s
            for (i = 0U; i < %2$dU; i++) {
                if (%8$s) return 2 + (int)i;
            }
            return 0;
        }
        """
        .formatted(
            name,
            at.length,
            cells(IntStream.of(at)),
            firmware.real() ? "float" : "int32_t",
            expected,
            firmware.real()
                ? ""
                : "    uint32_t k;\n    uint32_t bit;\n    uint32_t crc = 0xFFFFFFFFU;\n",
            crc,
            firmware.real()
                ? "%1$s_lookup(at[i]) < expected[i] || %1$s_lookup(at[i]) > expected[i]"
                    .formatted(name)
                : "%s_lookup(at[i]) != expected[i]".formatted(name));
  }
}
