package nocking.table;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * A path of so many pieces through a corridor whose break-points stand on raw steps and have whole
 * outputs: places are reached in rounds, one piece further in each, by the cone of lines that see
 * them. Only such places count from which the pieces that are left can come to the end at all,
 * which {@link LeastLinks} knows from the other side.
 *
 * <p>With every step and every output as a place this is the exhaustive search; with some of them
 * what it finds is a table all the same.
 */
final class BreakPointSearch {
  private static final double HAIR = 1e-9;

  private final Corridor corridor;
  private final int[] floors;
  private final int stride;
  private final long levels;
  private final Set<Long> seen = new HashSet<>();
  private final List<Place> places = new ArrayList<>();

  /**
   * @param index of the raw step from the first on
   * @param out whole output
   * @param from place that it was reached from; −1 at the first step
   */
  private record Place(int index, long out, int from) {}

  /**
   * @param floors least index at which the break-point behind 1, 2 … pieces may stand, from the
   *     second on; the last is the end
   * @param stride how many raw steps apart break-points may stand, 1 for all of them
   * @param levels how many outputs of a step are tried
   */
  BreakPointSearch(Corridor corridor, int[] floors, int stride, long levels) {
    this.corridor = corridor;
    this.floors = floors;
    this.stride = stride;
    this.levels = levels;
  }

  /** Raw steps and outputs of a path; empty where none was found. */
  List<long[]> path() {
    outputs(0, corridor.low()[0], corridor.high()[0]).forEach(out -> add(0, out, -1));
    int from = 0;
    for (int piece = 1; piece < floors.length; piece++) {
      int to = places.size();
      // The furthest first: they are the likeliest to come to the end.
      for (int p = to - 1; p >= from; p--) {
        int end = look(p, floors[piece]);
        if (end >= 0) return traced(end);
      }
      if (places.size() == to) return List.of();
      from = to;
      places.subList(from, places.size()).sort((a, b) -> Integer.compare(a.index, b.index));
    }
    return List.of();
  }

  private boolean add(int index, long out, int from) {
    if (!seen.add(((long) index << 40) ^ (out & ((1L << 40) - 1)))) return false;
    places.add(new Place(index, out, from));
    return true;
  }

  /** Outputs of a step between two values, on a lattice where they are too many. */
  private List<Long> outputs(int index, double from, double to) {
    long a = (long) Math.ceil(from - HAIR);
    long b = (long) Math.floor(to + HAIR);
    if (b < a) return List.of();
    long apart = Math.max(1, Math.ceilDiv(corridor.outputs(index), levels));
    // The lattice hangs at the lower limit, so that the limit itself is on it.
    long base = corridor.asks(index) ? (long) Math.ceil(corridor.low()[index]) : 0;
    var list = new ArrayList<Long>();
    for (long v = base + Math.ceilDiv(a - base, apart) * apart; v <= b; v += apart) {
      list.add(v);
      // A step without data has no limits of its own.
      if (list.size() > 4 * levels) break;
    }
    return list;
  }

  /**
   * Adds what is seen from a place.
   *
   * @return the place at the end, where it is seen; else −1
   */
  private int look(int p, int floor) {
    Place place = places.get(p);
    double y = place.out;
    double least = Double.NEGATIVE_INFINITY;
    double most = Double.POSITIVE_INFINITY;
    int end = corridor.size() - 1;
    double[] low = corridor.low();
    double[] high = corridor.high();
    for (int z = place.index + 1; z <= end; z++) {
      double dz = z - place.index;
      if (corridor.asks(z)) {
        least = Math.max(least, (low[z] - y) / dz);
        most = Math.min(most, (high[z] - y) / dz);
        if (least > most + HAIR / dz) return -1;
      }
      boolean stands = z == end || z >= floor && z % stride == 0;
      if (!stands || most == Double.POSITIVE_INFINITY) continue;
      for (long out : outputs(z, y + least * dz, y + most * dz)) {
        boolean added = add(z, out, p);
        if (z == end && added) return places.size() - 1;
      }
    }
    return -1;
  }

  private List<long[]> traced(int last) {
    var list = new ArrayList<long[]>();
    for (int p = last; p >= 0; p = places.get(p).from) {
      list.add(new long[] {places.get(p).index, places.get(p).out});
    }
    Collections.reverse(list);
    return list;
  }
}
