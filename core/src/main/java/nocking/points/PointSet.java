package nocking.points;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The reference points of a channel.
 *
 * @param raw unit of all readings
 */
public record PointSet(RawUnit raw, List<ReferencePoint> points) {
  public static final PointSet EMPTY = new PointSet(RawUnit.VOLTS, List.of());

  public PointSet {
    points = List.copyOf(points);
  }

  public PointSet with(int index, ReferencePoint point) {
    var next = new ArrayList<>(points);
    next.set(index, point);
    return new PointSet(raw, next);
  }

  public PointSet plus(List<ReferencePoint> more) {
    var next = new ArrayList<>(points);
    next.addAll(more);
    return new PointSet(raw, next);
  }

  /** How many of these are here already: the same applied value, readings and direction. */
  public int holds(List<ReferencePoint> others) {
    Set<ReferencePoint.Said> here =
        points.stream().map(ReferencePoint::said).collect(Collectors.toSet());
    return (int) others.stream().filter(o -> here.contains(o.said())).count();
  }

  public PointSet without(int index) {
    var next = new ArrayList<>(points);
    next.remove(index);
    return new PointSet(raw, next);
  }

  /** Points that have readings and are not left out. */
  public List<ReferencePoint> counting() {
    return points.stream().filter(ReferencePoint::counts).toList();
  }
}
