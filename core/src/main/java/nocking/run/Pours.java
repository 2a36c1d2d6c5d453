package nocking.run;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.stream.IntStream;
import nocking.quantity.Value;

/**
 * The totals of measured pours, which cannot be gone back to: a pour is halved before it is poured,
 * where what was read so far bends more than a straight line between two pours may be off by.
 *
 * <p>Between two points a parabola is off from its chord by a quarter of its second divided
 * difference times the square of their distance (Abramowitz and Stegun 25.2.2, halfway); the
 * difference is that of the three points nearest by. One that their scatter explains halves
 * nothing, and neither does one that is not known: the first two pours are as planned.
 */
public final class Pours {
  /** Most times that a pour is halved. */
  private static final int HALVINGS = 3;

  /** Standard uncertainties that a bend has to stand clear of. */
  private static final double CLEAR = 3;

  /** What is believed at most of how much more it bends from one pour to the next. */
  private static final double MOST_GROWTH = 3;

  /** Points of which the bend ahead is told. */
  private static final int LATELY = 8;

  /** A little less than one, for what was rounded. */
  private static final double SHY = 0.999;

  /**
   * What was read at a total.
   *
   * @param total in the unit of the pours
   * @param reads mean of the readings
   * @param scatter standard uncertainty of that mean; 0 where it is not known
   */
  public record Seen(double total, double reads, double scatter) {
    private boolean apart(Seen other) {
      double doubt = CLEAR * Math.hypot(scatter, other.scatter);
      return Math.abs(reads - other.reads) > doubt && total != other.total;
    }
  }

  private Pours() {}

  /**
   * The totals as planned, with those between that the bend of earlier points asks for.
   *
   * @param planned in ascending order
   * @param seen of one channel
   * @param straight what a straight line may be off by, above 0
   */
  public static List<Value> finer(List<Value> planned, List<Seen> seen, double straight) {
    var all = new ArrayList<Value>();
    double from = 0;
    for (Value v : planned) {
      int parts = v.number() > from ? parts(seen, from, v.number(), straight) : 1;
      for (int i = 1; i < parts; i++) all.add(Value.of(from + i * (v.number() - from) / parts));
      all.add(v);
      from = v.number();
    }
    return List.copyOf(all);
  }

  /** True for pours upwards that are halved where it bends. */
  static boolean halved(RunPlan p) {
    return p.kind() == RunPlan.Kind.POURS
        && p.straight() != null
        && p.course() == Course.UP
        && p.repeats() == 1;
  }

  /**
   * What is gone to, as far as it is known: the same points always ask for the same pours, and more
   * of them change nothing of what was gone to before.
   *
   * @param done for each target that is done with the point that counts, in their order
   */
  static List<Target> targets(RunPlan p, List<RunPoint> done) {
    Deque<Double> ahead = new ArrayDeque<>();
    p.targets().forEach(t -> ahead.add(t.setPoint()));
    var course = new ArrayList<Double>();
    double in = 0;
    double least = 0;
    boolean fresh = true;
    for (int k = 0; k <= done.size() && !ahead.isEmpty(); k++) {
      double next = ahead.peek();
      if (fresh) least = SHY * (next - in) / (1 << HALVINGS);
      List<RunPoint> lately = done.subList(Math.max(0, k - LATELY), k);
      int parts = 1;
      for (int c = 0; c < p.channels().size(); c++) {
        parts = Math.max(parts, parts(seen(lately, c), in, next, p.straight().number()));
      }
      while (parts > 1 && (next - in) / parts < least) parts /= 2;
      fresh = parts == 1;
      double to = fresh ? ahead.remove() : in + (next - in) / parts;
      course.add(to);
      if (k < done.size()) in = arrived(done.get(k), to);
    }
    course.addAll(ahead);
    return course.stream().map(x -> new Target(x, false)).toList();
  }

  private static double arrived(RunPoint p, double asked) {
    return p.how() == RunPoint.How.SKIPPED ? asked : p.applied();
  }

  /** Few readings tell little of what they scatter; those of several points tell it together. */
  private static List<Seen> seen(List<RunPoint> done, int channel) {
    List<RunPoint> read = done.stream().filter(p -> !p.readings().get(channel).isEmpty()).toList();
    double variance =
        read.stream()
            .mapToDouble(p -> p.standardDeviation(channel))
            .filter(Double::isFinite)
            .map(s -> s * s)
            .average()
            .orElse(0);
    return read.stream()
        .map(
            p ->
                new Seen(
                    p.applied(),
                    p.mean(channel),
                    Math.sqrt(variance / p.readings().get(channel).size())))
        .toList();
  }

  /** Into how many pours one is to be parted: 1, 2, 4 or 8. */
  private static int parts(List<Seen> seen, double from, double to, double straight) {
    if (to <= from) return 1;
    List<Seen> near = near(seen, (from + to) / 2, (to - from) / 2);
    if (near.size() < 3) return 1;
    Bend here = Bend.of(near.subList(0, 3));
    Bend ahead = here;
    // Where a vessel closes, it bends more with each pour.
    if (near.size() > 3) ahead = here.further(Bend.of(near.subList(1, 4)));
    double off = ahead.off(to - from);
    return IntStream.rangeClosed(0, HALVINGS)
        .map(i -> 1 << i)
        .filter(n -> off / ((double) n * n) <= straight || n == 1 << HALVINGS)
        .findFirst()
        .orElse(1);
  }

  /** The nearest by a total that are no repeats of one another, the nearest first. */
  private static List<Seen> near(List<Seen> seen, double total, double apart) {
    var near = new ArrayList<Seen>();
    List<Seen> byDistance =
        seen.stream().sorted(Comparator.comparingDouble(s -> Math.abs(s.total() - total))).toList();
    for (Seen s : byDistance) {
      boolean repeat = near.stream().anyMatch(n -> Math.abs(n.total() - s.total()) < apart);
      if (!repeat && near.size() < 4) near.add(s);
    }
    return near;
  }

  /**
   * The bend of three points.
   *
   * @param bend second divided difference of the total over the readings, as far as it stands clear
   *     of their scatter; 0 where it does not
   * @param slope readings for one more in all
   */
  private record Bend(double bend, double slope) {
    private static final Bend NONE = new Bend(0, 0);

    static Bend of(List<Seen> three) {
      List<Seen> up = three.stream().sorted(Comparator.comparingDouble(Seen::total)).toList();
      if (!up.get(0).apart(up.get(1)) || !up.get(1).apart(up.get(2))) return NONE;
      double[] x = up.stream().mapToDouble(Seen::reads).toArray();
      double slope = (x[2] - x[0]) / (up.get(2).total() - up.get(0).total());
      double bend = 0;
      double doubt = 0;
      for (int i = 0; i < 3; i++) {
        double weight = 1 / ((x[i] - x[(i + 1) % 3]) * (x[i] - x[(i + 2) % 3]));
        bend += weight * up.get(i).total();
        doubt = Math.hypot(doubt, weight / slope * up.get(i).scatter());
      }
      return new Bend(Math.max(0, Math.abs(bend) - CLEAR * doubt), Math.abs(slope));
    }

    /** As it goes on from another one farther away: as much again, where it grows. */
    Bend further(Bend away) {
      if (away.bend == 0 || away.slope == 0) return this;
      double grows = Math.clamp(bend / away.bend, 1, MOST_GROWTH);
      double steeper = Math.clamp(slope / away.slope, 1, MOST_GROWTH);
      return new Bend(bend * grows * grows, slope * steeper);
    }

    double off(double pour) {
      return bend * Math.pow(slope * pour, 2) / 4;
    }
  }
}
