package nocking.run;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** Set points as they are typed: {@code 0, 5, 12.5} or {@code 0…25 / 5}, from, to and step. */
public final class SetPoints {
  private static final int MOST = 1000;

  private SetPoints() {}

  /**
   * @param unit in which plain numbers count
   * @throws QuantityException one sentence that says what was read and what was expected
   */
  public static List<Value> parse(String text, Unit unit) {
    String t = text.strip();
    if (t.isEmpty()) throw new QuantityException("read nothing, expected set points: 0, 5, 10");
    int slash = t.lastIndexOf('/');
    String[] ends = (slash < 0 ? t : t.substring(0, slash)).split("\\.{2,3}|…|\\s+to\\s+", -1);
    if (ends.length == 1) return list(t, unit);
    if (ends.length > 2 || slash < 0) {
      throw new QuantityException(
          "read '%s', expected set points as a list, 0, 5, 10, or as 0…25 / 5".formatted(t));
    }
    return steps(
        Value.typed(ends[0], unit).number(),
        Value.typed(ends[1], unit).number(),
        Value.typed(t.substring(slash + 1), unit).number(),
        t);
  }

  /** As they would be typed: even steps as such, anything else as a list. */
  public static String text(List<Value> points) {
    int n = points.size();
    if (n > 3) {
      double first = points.getFirst().number();
      double step = points.get(1).number() - first;
      double slack = 1e-9 * Math.abs(step);
      boolean even = true;
      for (int i = 2; i < n; i++) {
        even &= Math.abs(points.get(i).number() - first - i * step) <= slack * n;
      }
      if (even && step != 0) {
        return "%s…%s / %s"
            .formatted(
                points.getFirst().typed(), points.getLast().typed(), round(Math.abs(step)).typed());
      }
    }
    return points.stream().map(Value::typed).collect(Collectors.joining(", "));
  }

  private static List<Value> list(String t, Unit unit) {
    var list = new ArrayList<Value>();
    for (String one : t.split("[,;]", -1)) {
      if (one.isBlank())
        throw new QuantityException("read '%s', a set point is missing".formatted(t));
      list.add(Value.typed(one, unit));
    }
    return List.copyOf(list);
  }

  private static List<Value> steps(double from, double to, double step, String t) {
    double size = Math.abs(step);
    double count = Math.abs(to - from) / size;
    if (!(size > 0) || count > MOST) {
      throw new QuantityException("read '%s', expected at most %d steps".formatted(t, MOST));
    }
    var list = new ArrayList<Value>();
    int whole = (int) Math.floor(count + 1e-9);
    for (int i = 0; i <= whole; i++) list.add(round(from + Math.signum(to - from) * i * size));
    // The far end belongs to the range although no step meets it.
    if (count - whole > 1e-9) list.add(round(to));
    return List.copyOf(list);
  }

  /** 0.1 + 0.2 is 0.3 on a set point's label. */
  private static Value round(double v) {
    return Value.of(new BigDecimal(v, new MathContext(12)).doubleValue());
  }
}
