package nocking.misfit;

import java.util.ArrayList;
import java.util.List;
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
  private static final double WITHOUT_TOLERANCE = 0.01;

  int size() {
    return applied.length;
  }

  static Readings of(Channel c, SignalPath path) {
    List<ReferencePoint> all = c.calibration().points().points();
    var counting = new ArrayList<Integer>();
    for (int i = 0; i < all.size(); i++) if (all.get(i).counts()) counting.add(i);
    int n = counting.size();
    var r = new Readings(new int[n], new double[n], new double[n], new double[n], new double[n]);
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
      ReferencePoint p = all.get(counting.get(k));
      r.index[k] = counting.get(k);
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
