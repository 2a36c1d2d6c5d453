package nocking.channel;

import nocking.points.PointSet;

/**
 * What was measured against a reference, and the curve that came of it.
 *
 * @param adopted null until a model is adopted; the design equation serves meanwhile
 */
public record Calibration(PointSet points, Adopted adopted) {
  public static final Calibration EMPTY = new Calibration(PointSet.EMPTY, null);

  /** True while the channel goes by its design equation and not by a measured curve. */
  public boolean byDesign() {
    return adopted == null || adopted.isDesign();
  }

  public Calibration withPoints(PointSet v) {
    return new Calibration(v, adopted);
  }

  public Calibration withAdopted(Adopted v) {
    return new Calibration(points, v);
  }
}
