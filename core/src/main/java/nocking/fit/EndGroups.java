package nocking.fit;

import java.util.HashMap;
import java.util.Map;
import java.util.TreeMap;

/**
 * The inputs of samples, each with the mean of its raw values, in the order of those means: what
 * the line through the ends needs, and what becomes of it when one sample is left out, without
 * going through all of them again.
 */
final class EndGroups {
  private static final class Group {
    private double raw;
    private int count;

    private double mean() {
      return raw / count;
    }
  }

  /** Sum of the quantities that have this mean raw value, and how many they are. */
  private record Level(double quantity, int count) {
    double mean() {
      return quantity / count;
    }
  }

  private final Map<Double, Group> groups = new HashMap<>();
  private final TreeMap<Double, Level> levels = new TreeMap<>();
  private final Samples samples;

  EndGroups(Samples samples) {
    this.samples = samples;
    for (int i = 0; i < samples.size(); i++) {
      Group g = groups.computeIfAbsent(samples.quantity()[i], k -> new Group());
      g.raw += samples.raw()[i];
      g.count++;
    }
    groups.forEach((quantity, g) -> add(g.mean(), quantity, 1));
  }

  private void add(double raw, double quantity, int sign) {
    Level l = levels.getOrDefault(raw, new Level(0, 0));
    if (l.count + sign == 0) levels.remove(raw);
    else levels.put(raw, new Level(l.quantity + sign * quantity, l.count + sign));
  }

  /** True when at least two inputs have different mean raw values, so that these have a line. */
  boolean determined() {
    return levels.size() > 1;
  }

  /** Offset and slope of the line through the lowest and the highest level. */
  double[] line() {
    double low = levels.firstKey();
    double high = levels.lastKey();
    double atLow = levels.firstEntry().getValue().mean();
    double slope = (levels.lastEntry().getValue().mean() - atLow) / (high - low);
    return new double[] {atLow - slope * low, slope};
  }

  private boolean between(double raw) {
    return raw > levels.firstKey() && raw < levels.lastKey();
  }

  /** The same without one sample; null where the rest has no two levels. */
  double[] lineWithout(int i) {
    double quantity = samples.quantity()[i];
    Group g = groups.get(quantity);
    double before = g.mean();
    double after = g.count == 1 ? Double.NaN : (g.raw - samples.raw()[i]) / (g.count - 1);
    if (between(before) && (g.count == 1 || between(after))) return line();
    add(before, quantity, -1);
    if (g.count > 1) add(after, quantity, 1);
    double[] line = determined() ? line() : null;
    if (g.count > 1) add(after, quantity, -1);
    add(before, quantity, 1);
    return line;
  }
}
