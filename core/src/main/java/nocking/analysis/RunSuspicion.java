package nocking.analysis;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import nocking.converter.Converter;
import nocking.diagnosis.Diagnosis;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.Ranking;
import nocking.fault.Subject;
import nocking.points.RawUnit;
import nocking.prior.FaultKind;
import nocking.prior.FaultKind.Family;
import nocking.prior.PriorWeights;
import nocking.quantity.Unit;
import nocking.run.Doubt;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.wiring.Place;

/** What a reading of a run looks like that something speaks against. */
public final class RunSuspicion {
  /** What a wire, a part or a sensor can have while an instrument reads it. */
  private static final Set<Family> NAMEABLE = EnumSet.of(Family.WIRE, Family.PART, Family.SENSOR);

  /** What is made by hands and does not come by itself: what read right has nothing of it. */
  private static final Set<FaultKind> MADE =
      EnumSet.of(
          FaultKind.SWAPPED, FaultKind.MIRRORED, FaultKind.OTHER_SENSOR, FaultKind.PART_DECADE);

  private static final int LOOKED_AT = 20;

  /** Faults that are named at most. */
  private static final int NAMED = 3;

  /** Share of what is likely that has to be named, so that the rest may be left out. */
  private static final double MOST = 0.7;

  private RunSuspicion() {}

  /** Words for the doubts of a run; to be asked on its thread, for circuits are solved. */
  public static Function<Doubt, String> of(
      RunPlan plan, Function<String, Optional<Analysis>> channel, PriorWeights weights) {
    // Of the references no circuit tells anything.
    return d ->
        d.channel() < 0
            ? ""
            : channel
                .apply(plan.channels().get(d.channel()).channel())
                .map(a -> says(a, plan, d, weights))
                .orElse("");
  }

  private static String says(Analysis a, RunPlan plan, Doubt d, PriorWeights weights) {
    Optional<Subject> subject = a.wiring().subject();
    Unit applied = Unit.of(plan.unit());
    boolean same = applied.dimension().equals(a.channel().unit().dimension());
    if (subject.isEmpty() || !same || !Double.isFinite(d.raw())) return "";
    RunChannel c = plan.channels().get(d.channel());
    Place place = c.meter().stands();
    double at = applied.convert(d.applied(), a.channel().unit());
    boolean known = Double.isFinite(at) && Diagnosis.inputs(a.channel()).contains(at);
    Converter k = a.channel().design().converter();
    double read = c.raw() == RawUnit.COUNTS ? k.volts(d.raw()) : c.raw().unit().toSi(d.raw());
    double step = c.raw() == RawUnit.COUNTS ? k.step() : 0;
    var seen = new MeasuredValue(place, known ? at : Double.NaN, read, step);
    Ranking r = Diagnostician.of(subject.get(), weights).rank(List.of(seen));
    return r.unexplained() ? "" : named(r, d.soundBefore());
  }

  /**
   * The likeliest faults. One reading tells nothing of a degree: for each of them there is a leak
   * or a low supply that reads just so, and those are not named.
   */
  private static String named(Ranking r, boolean soundBefore) {
    var names = new ArrayList<String>();
    double sum = 0;
    for (Explanation e : r.leading(LOOKED_AT)) {
      FaultKind kind = e.fault().kind();
      if (kind == FaultKind.NONE) return "";
      boolean can = NAMEABLE.contains(kind.family()) && !(soundBefore && MADE.contains(kind));
      if (!can || kind.graded() || kind.loose() || !e.fits() || names.size() == NAMED) continue;
      names.add(e.says());
      sum += e.probability();
    }
    if (names.isEmpty()) return "";
    return sum >= MOST
        ? "looks like: " + String.join(", or ", names)
        : "among what reads so: " + String.join("; ", names);
  }
}
