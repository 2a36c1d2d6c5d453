package nocking.parts;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** A resistance that is a string of parts, by how it was typed: {@code 4*180k} or a sum. */
public final class PartString {
  private static final Pattern TIMES = Pattern.compile("\\s*(\\d+)\\s*[*×]\\s*[^+|]+");

  private PartString() {}

  /** Share of the whole that the largest part of a string takes; 1 for a single part. */
  public static double largestShare(Value v) {
    Matcher times = TIMES.matcher(v.typed());
    if (times.matches()) return 1.0 / Math.max(1, Integer.parseInt(times.group(1)));
    List<String> terms = List.of(v.typed().split("\\+"));
    if (terms.size() < 2 || v.typed().contains("|") || v.typed().contains("(")) return 1;
    try {
      return terms.stream().mapToDouble(t -> QuantityParser.value(t, Unit.OHM)).max().orElse(1)
          / v.number();
    } catch (QuantityException e) {
      // Not a plain sum of values: taken as one part.
      return 1;
    }
  }
}
