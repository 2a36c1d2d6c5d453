package nocking.table;

import java.util.ArrayList;
import java.util.Arrays;
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
 *
 * <p>Where a step has no data its outputs have no limits of their own. A piece p → q with no data
 * on its way, q itself without any, is only ever needed where the piece behind it, q → r, keeps two
 * steps with data or more: had it but one, b, the pieces p → b and b → r would do with any whole
 * output that b allows. So q lies on a line through what the next two steps with data allow, and
 * there are finitely many such outputs.
 */
final class BreakPointSearch {
  /** So many outputs of a step that all of them are tried. */
  static final long ALL = Long.MAX_VALUE >> 8;

  /** Most places that are kept at a time: a hundred bytes each. */
  private static final int MOST = 2_000_000;

  /** Looks at a raw step that take as long as to keep a place. */
  private static final int KEPT = 30;

  private final Corridor corridor;
  private final double hair;

  /** The next step with data behind each step; the number of steps where there is none. */
  private final int[] next;

  private final int[] floors;
  private final long levels;
  private final long[] apart;

  /** Steps that are looked at: those with data, and those on which a break-point may stand. */
  private final int[] stops;

  private final boolean[] stands;
  private final SearchEffort effort;
  private final Set<Long> seen = new HashSet<>();
  private final List<Place> places = new ArrayList<>();
  private boolean full;

  /**
   * @param stop number among the steps that are looked at
   * @param out whole output
   * @param from place that it was reached from; −1 at the first step
   */
  private record Place(int stop, long out, int from) {}

  /**
   * @param floors least index at which the break-point behind 1, 2 … pieces may stand, from the
   *     second on; the last is the end
   * @param stride how many raw steps apart break-points may stand, 1 for all of them
   * @param levels how many outputs of a step are tried
   * @param effort that it may take
   */
  BreakPointSearch(Corridor corridor, int[] floors, int stride, long levels, SearchEffort effort) {
    this.corridor = corridor;
    this.effort = effort;
    hair = corridor.hair();
    this.floors = floors;
    this.levels = levels;
    int n = corridor.size();
    int asking = 0;
    next = new int[n];
    for (int i = n - 1, behind = n; i >= 0; i--) {
      next[i] = behind;
      if (corridor.asks(i)) behind = i;
      if (corridor.hard(i)) asking++;
    }
    // Where data are few their own places are the likeliest.
    boolean few = (long) asking * stride <= n;
    int[] all = new int[n];
    boolean[] may = new boolean[n];
    long[] lattice = new long[n];
    int count = 0;
    long last = 1;
    for (int i = 0; i < n; i++) {
      boolean asks = corridor.asks(i);
      boolean hard = corridor.hard(i);
      boolean stand = i == n - 1 || i % stride == 0 || few && hard;
      // A step without data is as fine as the one before it.
      if (asks) last = Math.max(1, Math.ceilDiv(corridor.outputs(i), levels));
      if (!hard && !stand) continue;
      may[count] = stand;
      lattice[count] = last;
      all[count++] = i;
    }
    stops = Arrays.copyOf(all, count);
    stands = Arrays.copyOf(may, count);
    apart = Arrays.copyOf(lattice, count);
  }

  /** Raw steps and outputs of a path; empty where none was found, or the effort was over. */
  List<long[]> path() {
    see(0, corridor.low()[0], corridor.high()[0], -1);
    int from = 0;
    for (int piece = 1; piece < floors.length; piece++) {
      int to = places.size();
      // The furthest first: they are the likeliest to come to the end.
      for (int p = to - 1; p >= from; p--) {
        int end = look(p, floors[piece]);
        if (end >= 0) return traced(end);
        if (effort.cut()) return List.of();
      }
      if (places.size() == to) return List.of();
      from = to;
      places.subList(from, places.size()).sort((a, b) -> Integer.compare(a.stop, b.stop));
    }
    return List.of();
  }

  /** True when no place was left out for want of room or effort. */
  boolean through() {
    return !full && !effort.cut();
  }

  /** Adds the outputs of a step between two values, those of a lattice where they are many. */
  private boolean see(int stop, double from, double to, int parent) {
    long b = (long) Math.floor(to + hair);
    long a = (long) Math.ceil(from - hair);
    if (b < a) return false;
    // The lattice hangs at the lower limit, so that the limit itself is on it.
    int index = stops[stop];
    long base = corridor.asks(index) ? (long) Math.ceil(corridor.low()[index]) : 0;
    boolean any = false;
    int count = 0;
    for (long v = base + Math.ceilDiv(a - base, apart[stop]) * apart[stop];
        v <= b;
        v += apart[stop]) {
      // A step without data has no limits of its own.
      if (++count > 4 * levels) break;
      if (places.size() == MOST || !effort.spend(KEPT)) {
        full = true;
        break;
      }
      if (!seen.add(((long) index << 40) ^ (v & ((1L << 40) - 1)))) continue;
      places.add(new Place(stop, v, parent));
      any = true;
    }
    return any;
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
    int end = stops.length - 1;
    int index = stops[place.stop];
    double[] low = corridor.low();
    double[] high = corridor.high();
    for (int stop = place.stop + 1; stop <= end; stop++) {
      int z = stops[stop];
      double dz = z - index;
      if (!effort.spend(1)) return -1;
      if (corridor.asks(z)) {
        least = Math.max(least, (low[z] - y) / dz);
        most = Math.min(most, (high[z] - y) / dz);
        if (least > most + hair / dz) return -1;
      }
      if (!stands[stop] || z < floor) continue;
      boolean free = most == Double.POSITIVE_INFINITY;
      boolean any =
          free ? levels == ALL && seeFree(stop, p) : see(stop, y + least * dz, y + most * dz, p);
      if (stop == end && any) return places.size() - 1;
    }
    return -1;
  }

  /** Adds the outputs of a step without data from which a line keeps the next two with data. */
  private boolean seeFree(int stop, int parent) {
    int z = stops[stop];
    int b = next[z];
    if (b >= corridor.size() || next[b] >= corridor.size()) return false;
    int c = next[b];
    double share = (double) (b - z) / (c - b);
    double from = corridor.low()[b] - share * (corridor.high()[c] - corridor.low()[b]);
    double to = corridor.high()[b] + share * (corridor.high()[b] - corridor.low()[c]);
    return see(stop, from, to, parent);
  }

  private List<long[]> traced(int last) {
    var list = new ArrayList<long[]>();
    for (int p = last; p >= 0; p = places.get(p).from) {
      list.add(new long[] {stops[places.get(p).stop], places.get(p).out});
    }
    Collections.reverse(list);
    return list;
  }
}
