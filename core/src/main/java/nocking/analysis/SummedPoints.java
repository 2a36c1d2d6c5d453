package nocking.analysis;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.points.PointSet;
import nocking.points.PointSum;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** Points of a channel that reads the sum of others of its book ({@link PointSum}). */
public final class SummedPoints {
  private SummedPoints() {}

  /**
   * @param tags as somebody says them, {@code SP-V1 + SP-V2}
   * @param into the channel that the sums are for; applied values come in its unit
   * @throws QuantityException naming what is missing, or why nothing adds up
   */
  public static PointSum of(Book book, String tags, Channel into) {
    var sets = new LinkedHashMap<String, PointSet>();
    for (String t : Arrays.stream(tags.split("\\+", -1)).map(String::strip).toList()) {
      if (t.isEmpty()) {
        throw new QuantityException(
            "read '%s', expected tags with + between them, as SP-V1 + SP-V2".formatted(tags));
      }
      Channel c =
          book.byTag(t)
              .orElseThrow(() -> new QuantityException("no channel %s in this book".formatted(t)));
      if (c.id().equals(into.id())) {
        throw new QuantityException("%s is no part of its own sum".formatted(t));
      }
      if (sets.put(c.tag(), inUnit(c, into)) != null) {
        throw new QuantityException("%s stands in the sum twice".formatted(t));
      }
    }
    PointSum sum = PointSum.of(sets);
    if (sum.points().points().isEmpty()) {
      throw new QuantityException(
          "%s have no points that were taken together"
              .formatted(String.join(" and ", sets.keySet())));
    }
    PointSet has = into.calibration().points();
    if (!has.points().isEmpty() && has.raw() != sum.points().raw()) {
      throw new QuantityException(
          "the points of %s are in %s and those of the sum in %s"
              .formatted(
                  into.tag(), has.raw().unit().symbol(), sum.points().raw().unit().symbol()));
    }
    return sum;
  }

  private static PointSet inUnit(Channel c, Channel into) {
    Unit from = c.unit();
    Unit to = into.unit();
    if (!from.dimension().equals(to.dimension())) {
      throw new QuantityException(
          "%s is in %s and %s in %s".formatted(c.tag(), from.symbol(), into.tag(), to.symbol()));
    }
    PointSet own = c.calibration().points();
    if (from.equals(to)) return own;
    List<ReferencePoint> points =
        own.points().stream()
            .map(p -> p.withApplied(converted(p.applied().number(), from, to)))
            .toList();
    return new PointSet(own.raw(), points);
  }

  /** A unit that is converted brings no digits of its own. */
  private static Value converted(double x, Unit from, Unit to) {
    return Value.of(Double.parseDouble(Numbers.significant(from.convert(x, to), 12)));
  }

  /** What was taken in, and what was not. */
  public static String says(PointSum sum, int alike) {
    int n = sum.points().points().size();
    String taken = "%d point%s added up".formatted(n, n == 1 ? "" : "s");
    String known = alike > 0 ? "; %d like points that were there already".formatted(alike) : "";
    String without = sum.without().isEmpty() ? "" : "; " + String.join("; ", sum.without());
    return taken + known + without;
  }
}
