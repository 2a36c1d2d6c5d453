package nocking.channel;

import nocking.points.PointSet;

/**
 * What was measured against a reference, and the curve that came of it.
 *
 * @param adopted null until a model is adopted; the design equation serves meanwhile
 */
public record Calibration(PointSet points, Adopted adopted) {
  public static final Calibration EMPTY = new Calibration(PointSet.EMPTY, null);

  public Calibration withPoints(PointSet v) {
    return new Calibration(v, adopted);
  }

  public Calibration withAdopted(Adopted v) {
    return new Calibration(points, v);
  }
}
