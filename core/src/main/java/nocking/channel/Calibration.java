package nocking.channel;

import nocking.fit.Trim;
import nocking.points.PointSet;

/**
 * What was measured against a reference, and the curve that came of it.
 *
 * @param adopted null until a model is adopted; the design equation serves meanwhile
 * @param trim zero and span on top of that curve, and apart from it; null for none
 */
public record Calibration(PointSet points, Adopted adopted, Trim trim) {
  public static final Calibration EMPTY = new Calibration(PointSet.EMPTY, null, null);

  /** True while the channel goes by its design equation and by nothing that was measured. */
  public boolean byDesign() {
    return trim == null && designAdopted();
  }

  /** True while what is under the trim, or all there is, is the design equation. */
  public boolean designAdopted() {
    return adopted == null || adopted.isDesign();
  }

  public Calibration withPoints(PointSet v) {
    return new Calibration(v, adopted, trim);
  }

  /** With another model; the trim goes, for it belonged to the curve before. */
  public Calibration withAdopted(Adopted v) {
    return new Calibration(points, v, null);
  }

  public Calibration withTrim(Trim v) {
    return new Calibration(points, adopted, v);
  }
}
