package nocking.firmware;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import nocking.quantity.Numbers;
import nocking.quantity.PlainText;

/**
 * A polynomial in integers as C99: one function and its self-test. What it gives is what {@link
 * FixedPoint} gives, bit for bit.
 *
 * @param name C identifier that all names begin with
 * @param about lines for the head: what it belongs to, date, revision
 * @param unit of the quantity, for the comments
 */
public record FixedPointC(String name, FixedPoint fixed, List<String> about, String unit) {
  private static final int CHECKS = 9;

  private String literal(long v) {
    return fixed.narrow() ? String.valueOf(v) : "INT64_C(%d)".formatted(v);
  }

  public String source() {
    String t = fixed.narrow() ? "int32_t" : "int64_t";
    long[] d = fixed.constants();
    var lines = new StringBuilder();
    for (int k = d.length - 2; k >= 0; k--) {
      lines.append(
          "    a = a * t / %s + %s;\n"
              .formatted(
                  literal(1L << fixed.shift()),
                  d[k] < 0 ? "(" + literal(d[k]) + ")" : literal(d[k])));
    }
    String round =
        fixed.places() == 0
            ? ""
            : """
                  /* The nearest step, half up; C99 divides towards zero. */
                  a += %1$s;
                  return (int32_t)(a / %2$s - (a %% %2$s < 0 ? 1 : 0));
              """
                .formatted(literal(1L << (fixed.places() - 1)), literal(1L << fixed.places()));
    return """
        /*
        %s * The quantity in steps of %s %s for raw codes %d ... %d, which it is held to.
         * Over all of them it is off by %s %s at most, rounding included, at raw %d.
         * Every product fits %d bits.
         */
        #include <stdint.h>

        int32_t %s_value(int32_t raw)
        {
            %s t;
            %s a = %s;

            if (raw < %d) raw = %d;
            if (raw > %d) raw = %d;
            t = (%s)raw - %d;
        %s%s}

        /* 0 when the arithmetic is as it was generated, else the number of the check. */
        int %s_value_selftest(void);
        %s"""
        .formatted(
            about.stream()
                .map(l -> " * " + PlainText.comment(l) + "\n")
                .collect(Collectors.joining()),
            Numbers.fixed(Math.pow(10, -fixed.outDecimals()), fixed.outDecimals()),
            PlainText.comment(unit),
            fixed.first(),
            fixed.last(),
            Numbers.significant(fixed.worst(), 3),
            PlainText.comment(unit),
            fixed.worstAt(),
            fixed.narrow() ? 32 : 64,
            name,
            t,
            t,
            literal(d[d.length - 1]),
            fixed.first(),
            fixed.first(),
            fixed.last(),
            fixed.last(),
            t,
            fixed.middle(),
            lines,
            fixed.places() == 0 ? "    return (int32_t)a;\n" : round,
            name,
            selfTest());
  }

  private String selfTest() {
    List<Integer> at =
        IntStream.range(0, CHECKS)
            .map(
                i ->
                    fixed.first()
                        + (int) ((long) (fixed.last() - fixed.first()) * i / (CHECKS - 1)))
            .boxed()
            .toList();
    return """
        int %1$s_value_selftest(void)
        {
            static const int32_t at[%2$d] = {%3$s};
            static const int32_t expected[%2$d] = {%4$s};
            int i;

            for (i = 0; i < %2$d; i++) {
                if (%1$s_value(at[i]) != expected[i]) return 1 + i;
            }
            return 0;
        }
        """
        .formatted(
            name,
            at.size(),
            at.stream().map(String::valueOf).collect(Collectors.joining(", ")),
            at.stream().map(c -> String.valueOf(fixed.steps(c))).collect(Collectors.joining(", ")));
  }
}
