package nocking.misfit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import nocking.algebra.AlgebraException;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.element.Measurand;
import nocking.path.SignalPath;
import nocking.points.RawScale;
import nocking.quantity.QuantityException;

/**
 * Reference points against the design: how far they depart from it, and which single causes would
 * make all of them agree, the most plausible first.
 *
 * <p>Every cause is weighed as a hypothesis: a prior weight times the likelihood of what is left,
 * normal with half of what tolerance and noise allow; one with a free number is integrated over it,
 * so that a number that can be anything counts less than one that is printed on a part. Beside them
 * stands that it is none of them.
 *
 * @param worst largest departure of a reading from the design, channel's unit; NaN where the design
 *     has no value for a point
 * @param worstPoint index of that point in the document
 * @param gain factor by which the points are larger than the design about 0 V; NaN where a gain
 *     does not explain them
 * @param causes those that fit, the most plausible first
 */
public record PointsMisfit(double worst, int worstPoint, double gain, List<Cause> causes) {
  /** By so much must a cause be likelier than the next one to be named as the cause. */
  private static final double CLEARLY = Math.log(8);

  /** Largest departure that is none, in limits. */
  private static final double CONTRADICTS = 1;

  /**
   * @param cards sensor cards of the book
   * @return empty where the points agree with the design, or there are none
   */
  public static Optional<PointsMisfit> of(Channel c, SignalPath path, List<SensorCard> cards) {
    Optional<RawScale> scale =
        RawScale.of(c.calibration().points().raw(), c.design().converter(), Optional.of(path));
    if (scale.isEmpty()) return Optional.empty();
    Readings r = Readings.of(c, path, scale.get());
    if (r.size() == 0) return Optional.empty();
    var trials = new Trials(c, path, r);
    double[] left = trials.design();
    int at = 0;
    double most = -1;
    for (int i = 0; i < left.length; i++) {
      double share = Double.isNaN(left[i]) ? Double.MAX_VALUE : Math.abs(left[i]) / r.limit()[i];
      if (share > most) {
        most = share;
        at = i;
      }
    }
    if (most <= CONTRADICTS) return Optional.empty();
    var causes = new ArrayList<Cause>(new EntrySlips(c, path, r, trials).causes());
    var design = new DesignSlips(c, path, r, trials, cards);
    causes.addAll(design.causes());
    double none = trials.logNone();
    List<Cause> fitting =
        causes.stream()
            .filter(k -> k.fits() && k.logWeight() > none)
            .filter(k -> r.size() == Readings.counting(c).length || mends(k, c))
            .sorted(Comparator.comparingDouble(Cause::logWeight).reversed())
            .toList();
    double gain =
        causes.stream()
            .filter(k -> k.kind() == Cause.Kind.GAIN && k.fits())
            .mapToDouble(k -> design.gain())
            .findFirst()
            .orElse(Double.NaN);
    return Optional.of(new PointsMisfit(left[at], r.index()[at], gain, fitting));
  }

  /** True for a cause that, mended, leaves no point off: also of those it was not found by. */
  private static boolean mends(Cause cause, Channel c) {
    if (cause.remedy().isEmpty()) return false;
    Channel mended = cause.remedy().get().apply(c);
    var measurand = new Measurand(mended.definition().kind().symbol(), mended.unit());
    try {
      SignalPath path =
          SignalPath.of(
              measurand,
              mended.design().sensor(),
              mended.design().stages(),
              mended.design().converter());
      return Readings.agree(mended, path);
    } catch (QuantityException | AlgebraException e) {
      return false;
    }
  }

  /** The one cause that explains everything while no other does nearly as well. */
  public Optional<Cause> clear() {
    if (causes.isEmpty()) return Optional.empty();
    Cause first = causes.getFirst();
    for (Cause next : causes.subList(1, causes.size())) {
      if (next.label().equals(first.label()) && !first.label().isEmpty()) continue;
      if (next.logWeight() > first.logWeight() - CLEARLY) return Optional.empty();
      break;
    }
    return Optional.of(first);
  }
}
