package nocking.misfit;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import nocking.channel.Channel;
import nocking.path.SignalPath;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;

/**
 * The points that count, and what each may be off.
 *
 * @param index of each in the document
 * @param applied channel's unit
 * @param raw as read, in the unit of the points
 * @param volts at the converter
 * @param limit what tolerance, noise and one count allow at each, channel's unit
 * @param slope volts per one of the channel's unit at each, never negative
 * @param scale what a reading stands for at the converter
 * @param unit of the points
 */
record Readings(
    int[] index,
    double[] applied,
    double[] raw,
    double[] volts,
    double[] limit,
    double[] slope,
    RawScale scale,
    RawUnit unit) {
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
  static Readings of(Channel c, SignalPath path, RawScale scale) {
    Readings all = all(c, path, scale);
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
        Arrays.stream(some).mapToDouble(i -> all.raw[i]).toArray(),
        Arrays.stream(some).mapToDouble(i -> all.volts[i]).toArray(),
        Arrays.stream(some).mapToDouble(i -> all.limit[i]).toArray(),
        Arrays.stream(some).mapToDouble(i -> all.slope[i]).toArray(),
        all.scale,
        all.unit);
  }

  /** True for readings of the sensor alone, which tell nothing of what follows it. */
  boolean ofSensor() {
    return unit.ofSensor();
  }

  /** Volts for all of them, where each reading is a number of times what it should be. */
  double[] dividedBy(double factor) {
    return ofSensor()
        ? changed(r -> r / factor)
        : Arrays.stream(volts).map(v -> v / factor).toArray();
  }

  /** Volts for all of them, where each reading is too high by the same, of ohms in ohms. */
  double[] lowerBy(double offset) {
    return ofSensor()
        ? changed(r -> r - offset)
        : Arrays.stream(volts).map(v -> v - offset).toArray();
  }

  private double[] changed(DoubleUnaryOperator change) {
    return Arrays.stream(raw).map(r -> scale.volts(change.applyAsDouble(r))).toArray();
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
    RawUnit unit = c.calibration().points().raw();
    return RawScale.of(unit, c.design().converter(), Optional.of(path))
        .map(s -> all(c, path, s).off(path))
        .map(off -> Arrays.stream(off).allMatch(e -> e <= 1))
        .orElse(false);
  }

  /** Places of the points that count, in the document. */
  static int[] counting(Channel c) {
    List<ReferencePoint> all = c.calibration().points().points();
    return IntStream.range(0, all.size()).filter(i -> all.get(i).counts()).toArray();
  }

  private static Readings all(Channel c, SignalPath path, RawScale scale) {
    List<ReferencePoint> all = c.calibration().points().points();
    int[] counting = counting(c);
    int n = counting.length;
    var r =
        new Readings(
            counting,
            new double[n],
            new double[n],
            new double[n],
            new double[n],
            new double[n],
            scale,
            c.calibration().points().raw());
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
      r.raw[k] = p.mean();
      r.volts[k] = scale.volts(p.mean());
      double own = Math.abs(path.at(r.applied[k]).sensitivity());
      // Where the curve is flat, or an applied value lies where it has none, the range has a mean.
      r.slope[k] = own > 0.05 * mean ? own : mean;
      r.limit[k] =
          tolerance
              + (NOISE_SIGMAS * volts(scale, p.mean(), noise) + path.converter().step())
                  / r.slope[k];
    }
    return r;
  }

  /** Volts that a small amount of what is read is worth about a reading. */
  private static double volts(RawScale scale, double at, double amount) {
    return Math.abs(scale.volts(at + amount) - scale.volts(at));
  }

  /** Pooled standard deviation of repeated readings, as read; 0 without any. */
  private static double noise(Channel c) {
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
    return Math.sqrt(sum / freedom);
  }
}
