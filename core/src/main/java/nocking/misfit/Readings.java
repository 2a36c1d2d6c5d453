package nocking.misfit;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.TreeSet;
import java.util.stream.IntStream;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.path.SignalPath;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;

/**
 * The points that count, and what each may be off.
 *
 * @param index of each in the document
 * @param applied channel's unit
 * @param volts at the converter
 * @param limit what tolerance, noise and one count allow at each, channel's unit
 * @param slope volts per one of the channel's unit at each, never negative
 */
record Readings(int[] index, double[] applied, double[] volts, double[] limit, double[] slope) {
  private static final double NOISE_SIGMAS = 2;

  /** Points that tell what there is to tell of a design. */
  private static final int TELLING = 60;

  /** Those that are furthest off are among them: a slip is one of many. */
  private static final int FURTHEST = 20;

  private static final double WITHOUT_TOLERANCE = 0.01;

  int size() {
    return applied.length;
  }

  /**
   * Of many points some, evenly over their order, and those that are furthest off: each cause is
   * tried at each of them many times over.
   */
  static Readings of(Channel c, SignalPath path) {
    Readings all = all(c, path);
    if (all.size() <= TELLING) return all;
    double[] off = all.off(path);
    var chosen = new TreeSet<Integer>();
    for (int k = 0; k < TELLING; k++)
      chosen.add((int) ((long) k * (all.size() - 1) / (TELLING - 1)));
    IntStream.range(0, all.size())
        .boxed()
        .sorted(Comparator.comparingDouble(i -> -off[i]))
        .limit(FURTHEST)
        .forEach(chosen::add);
    int[] some = chosen.stream().mapToInt(i -> i).toArray();
    return new Readings(
        Arrays.stream(some).map(i -> all.index[i]).toArray(),
        Arrays.stream(some).mapToDouble(i -> all.applied[i]).toArray(),
        Arrays.stream(some).mapToDouble(i -> all.volts[i]).toArray(),
        Arrays.stream(some).mapToDouble(i -> all.limit[i]).toArray(),
        Arrays.stream(some).mapToDouble(i -> all.slope[i]).toArray());
  }

  /** How far each is from a design, in what it may be; what has no value there is furthest. */
  private double[] off(SignalPath path) {
    double[] off = new double[size()];
    for (int i = 0; i < off.length; i++) {
      double e = Math.abs(volts[i] - path.at(applied[i]).output()) / slope[i] / limit[i];
      off[i] = Double.isNaN(e) ? Double.MAX_VALUE : e;
    }
    return off;
  }

  /** True where every point that counts agrees with the design. */
  static boolean agree(Channel c, SignalPath path) {
    double[] off = all(c, path).off(path);
    return Arrays.stream(off).allMatch(e -> e <= 1);
  }

  /** Places of the points that count, in the document. */
  static int[] counting(Channel c) {
    List<ReferencePoint> all = c.calibration().points().points();
    return IntStream.range(0, all.size()).filter(i -> all.get(i).counts()).toArray();
  }

  private static Readings all(Channel c, SignalPath path) {
    List<ReferencePoint> all = c.calibration().points().points();
    int[] counting = counting(c);
    int n = counting.length;
    var r = new Readings(counting, new double[n], new double[n], new double[n], new double[n]);
    double width = c.definition().working().width();
    double stated = c.definition().toleranceOrNaN();
    double tolerance = Double.isNaN(stated) ? WITHOUT_TOLERANCE * width : stated;
    double noise = noise(c);
    double mean =
        Math.abs(
                path.output(c.definition().working().high())
                    - path.output(c.definition().working().low()))
            / width;
    for (int k = 0; k < n; k++) {
      ReferencePoint p = all.get(counting[k]);
      r.applied[k] = p.applied().number();
      r.volts[k] = volts(c, p.mean());
      double own = Math.abs(path.at(r.applied[k]).sensitivity());
      // Where the curve is flat, or an applied value lies where it has none, the range has a mean.
      r.slope[k] = own > 0.05 * mean ? own : mean;
      r.limit[k] = tolerance + (NOISE_SIGMAS * noise + path.converter().step()) / r.slope[k];
    }
    return r;
  }

  static double volts(Channel c, double raw) {
    return c.calibration().points().raw() == RawUnit.VOLTS
        ? raw
        : c.design().converter().volts(raw);
  }

  /** Pooled standard deviation of repeated readings, volts; 0 without any. */
  private static double noise(Channel c) {
    Converter converter = c.design().converter();
    double sum = 0;
    int freedom = 0;
    for (ReferencePoint p : c.calibration().points().counting()) {
      int more = p.readings().size() - 1;
      if (more < 1) continue;
      double sd = p.standardDeviation();
      // One reading far from its fellows is a finding of its own and no noise.
      sum += more * sd * sd;
      freedom += more;
    }
    if (freedom == 0) return 0;
    double pooled = Math.sqrt(sum / freedom);
    return c.calibration().points().raw() == RawUnit.VOLTS ? pooled : pooled * converter.step();
  }
}
