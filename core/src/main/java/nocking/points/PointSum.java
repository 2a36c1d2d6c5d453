package nocking.points;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * Points of several sensors that were read together, as those of what adds their readings up: two
 * probes at the ends of a tank, of which each moves with its tilt and the sum does not.
 *
 * <p>Points belong together that came of the same step of the same run, or, where they came of
 * none, that have the same applied value and direction, in their order.
 *
 * @param points with the sums of the readings, in the raw unit of all
 * @param without what found no partner, in words
 */
public record PointSum(PointSet points, List<String> without) {
  public PointSum {
    without = List.copyOf(without);
  }

  /**
   * @param sets of two sensors or more, by the tags of their channels; applied values in one unit
   * @throws QuantityException for fewer, or where readings are not in one unit
   */
  public static PointSum of(Map<String, PointSet> sets) {
    if (sets.size() < 2) throw new QuantityException("a sum is of two channels or more");
    List<String> tags = List.copyOf(sets.keySet());
    RawUnit raw = sets.get(tags.getFirst()).raw();
    for (String t : tags) {
      if (sets.get(t).raw() != raw) {
        throw new QuantityException(
            "%s is read in %s and %s in %s; their readings do not add up"
                .formatted(
                    tags.getFirst(), raw.unit().symbol(), t, sets.get(t).raw().unit().symbol()));
      }
    }
    var left = new LinkedHashMap<String, List<ReferencePoint>>();
    sets.forEach((t, s) -> left.put(t, new ArrayList<>(read(s))));
    var sums = new ArrayList<ReferencePoint>();
    for (ReferencePoint first : List.copyOf(left.get(tags.getFirst()))) {
      var together = new ArrayList<ReferencePoint>();
      for (String t : tags) partner(left.get(t), first).ifPresent(together::add);
      if (together.size() < tags.size()) continue;
      for (int i = 0; i < tags.size(); i++) remove(left.get(tags.get(i)), together.get(i));
      sums.add(sum(together));
    }
    return new PointSum(new PointSet(raw, sums), alone(left));
  }

  private static List<ReferencePoint> read(PointSet s) {
    return s.points().stream().filter(p -> !p.readings().isEmpty()).toList();
  }

  private static Optional<ReferencePoint> partner(List<ReferencePoint> among, ReferencePoint of) {
    Predicate<ReferencePoint> belongs =
        of.taken() != null
            ? p -> of.taken().same(p.taken())
            : p ->
                p.taken() == null
                    && p.down() == of.down()
                    && p.applied().number() == of.applied().number();
    return among.stream().filter(belongs).findFirst();
  }

  /** One of them, whatever is equal to it. */
  private static void remove(List<ReferencePoint> from, ReferencePoint p) {
    from.remove(
        IntStream.range(0, from.size()).filter(i -> from.get(i) == p).findFirst().getAsInt());
  }

  private static ReferencePoint sum(List<ReferencePoint> together) {
    ReferencePoint first = together.getFirst();
    int n = first.readings().size();
    boolean even = together.stream().allMatch(p -> p.readings().size() == n);
    List<Value> readings =
        even
            ? IntStream.range(0, n)
                .mapToObj(i -> added(together.stream().map(p -> p.readings().get(i).number())))
                .toList()
            // What was not read at the same moments has no common scatter.
            : List.of(added(together.stream().map(ReferencePoint::mean)));
    String out = reasons(together.stream().map(ReferencePoint::leftOut));
    return new ReferencePoint(first.applied(), readings, first.down(), out, taken(together));
  }

  /** In decimals, so that 1.1 and 2.2 are 3.3. */
  private static Value added(Stream<Double> numbers) {
    return Value.of(
        numbers.map(BigDecimal::valueOf).reduce(BigDecimal.ZERO, BigDecimal::add).doubleValue());
  }

  private static ReferencePoint.Taken taken(List<ReferencePoint> together) {
    ReferencePoint.Taken t = together.getFirst().taken();
    if (t == null) return null;
    String doubt = reasons(together.stream().map(p -> p.taken().doubt()));
    return new ReferencePoint.Taken(t.run(), t.target(), t.at(), doubt);
  }

  private static String reasons(Stream<String> all) {
    String said = all.filter(Objects::nonNull).distinct().collect(Collectors.joining("; "));
    return said.isEmpty() ? null : said;
  }

  private static List<String> alone(Map<String, List<ReferencePoint>> left) {
    var list = new ArrayList<String>();
    left.forEach(
        (t, points) -> {
          if (points.isEmpty()) return;
          String at =
              points.stream()
                  .limit(3)
                  .map(p -> p.applied().typed())
                  .collect(Collectors.joining(", "));
          String more = points.size() > 3 ? " and %d more".formatted(points.size() - 3) : "";
          list.add("%s has no partner at %s%s".formatted(t, at, more));
        });
    return list;
  }
}
