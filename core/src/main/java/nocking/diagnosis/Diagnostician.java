package nocking.diagnosis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import nocking.fault.Fault;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.wiring.Meter;
import nocking.wiring.Place;

/**
 * Ranks the faults of a channel by how well each reproduces all that was seen, and says what to
 * measure next.
 *
 * <p>Each fault is a hypothesis with a prior weight; one with a degree is integrated over its
 * degree. A reading is taken as normal about what the circuit with the fault predicts: the meter's
 * own error for each reading, and for all readings at one input the same departure of the sensor
 * inside the channel's tolerance (Bayes; Gelman and others, Bayesian Data Analysis, 3rd ed., 14.2).
 * At an input that is not known all inputs of the working range are taken as equally likely.
 *
 * <p>Solved circuits are kept, so that one diagnostician serves a channel as it is measured. It is
 * used by one thread at a time.
 */
public final class Diagnostician {
  private static final double IN_QUESTION = 1e-6;

  /** Most misfit, in squared standard deviations over all readings, of what reads alike. */
  private static final double MOST_ALIKE = 9;

  private final Subject subject;
  private final Meter meter;
  private final List<Place> places;
  private final Weigher weigher;
  private final Advisor advisor;

  private Diagnostician(Subject subject, PriorWeights priorWeights) {
    this.subject = subject;
    this.meter = priorWeights.meter();
    places = FaultMatrix.places(subject);
    weigher = new Weigher(subject, priorWeights);
    advisor = new Advisor(subject.channel(), weigher, places);
  }

  public static Diagnostician of(Subject subject, PriorWeights priorWeights) {
    return new Diagnostician(subject, priorWeights);
  }

  /** Where this channel can be measured. */
  public List<Place> places() {
    return places;
  }

  /** Every fault weighed against what was seen. */
  public Ranking rank(List<MeasuredValue> seen) {
    var posteriors = weigher.weigh(seen);
    double total = 0;
    double top = Double.NEGATIVE_INFINITY;
    for (Posterior p : posteriors) top = Math.max(top, p.logWeight());
    for (Posterior p : posteriors) total += Math.exp(p.logWeight() - top);
    var list = new ArrayList<Explanation>();
    for (Posterior p : posteriors) {
      double probability = Math.exp(p.logWeight() - top) / total;
      boolean shown = probability > IN_QUESTION && p.fault().kind() != FaultKind.UNLISTED;
      List<Double> expected = shown ? expected(p.fault(), seen) : List.of();
      list.add(new Explanation(p.fault(), probability, p.misfit(), seen.size(), expected));
    }
    list.sort(Comparator.comparingDouble(Explanation::probability).reversed());
    return new Ranking(List.copyOf(seen), List.copyOf(list));
  }

  /**
   * The measurement that says most about which of the explanations holds; empty when none helps.
   */
  public Optional<NextMeasurement> next(Ranking ranking) {
    return advisor.next(ranking);
  }

  /**
   * Two faults at once where no single one explains what was seen: the pair that is clearly better
   * than everything else, or what the likely pairs have in common; nothing where a single one does.
   */
  public TwoFaults twoAtOnce(Ranking ranking) {
    if (!ranking.unexplained()) return new TwoFaults(List.of());
    double top = Double.NEGATIVE_INFINITY;
    double sum = 0;
    List<Posterior> singles = weigher.weigh(ranking.observations());
    for (Posterior p : singles) top = Math.max(top, p.logWeight());
    for (Posterior p : singles) sum += Math.exp(p.logWeight() - top);
    return PairSearch.of(weigher, ranking.observations(), top + Math.log(sum));
  }

  private List<Double> expected(Fault fault, List<MeasuredValue> seen) {
    Fault circuit = fault.kind().loose() ? Fault.NONE : fault;
    return Arrays.stream(weigher.expected(circuit, seen)).boxed().toList();
  }

  /** What a place would show under a fault; NaN where nothing holds it. */
  public double reading(Fault fault, Place place, double x) {
    var r = FaultyPath.of(subject, fault, x).read(place, meter.inputResistance());
    return r.floats() ? Double.NaN : r.value();
  }

  /**
   * Explanations that no measurement tells from this one, with this meter and inside these
   * tolerances: another fault, at some degree of its own, that gives the same readings everywhere.
   */
  public List<Explanation> indistinguishable(Explanation e, Ranking ranking) {
    if (e.fault().kind().loose()) return List.of();
    List<MeasuredValue> everywhere = everywhere(e.fault(), ranking.observations());
    var list = new ArrayList<Explanation>();
    for (Explanation other : ranking.explanations()) {
      if (other.fault().same(e.fault()) || other.fault().kind().loose()) continue;
      if (other.misfit() > 4 * MOST_ALIKE) continue;
      Posterior p = weigher.weigh(weigher.indexOf(other.fault()), everywhere);
      if (p.misfit() <= MOST_ALIKE && floatsAlike(e.fault(), p.fault())) list.add(other);
    }
    return list;
  }

  private boolean floatsAlike(Fault a, Fault b) {
    double x = subject.channel().definition().working().middle();
    return FaultyPath.of(subject, a, x).converter().floats()
        == FaultyPath.of(subject, b, x).converter().floats();
  }

  /** What a fault shows at every place and input that can be looked at. */
  private List<MeasuredValue> everywhere(Fault f, List<MeasuredValue> seen) {
    var list = new ArrayList<MeasuredValue>();
    for (double x : advisor.inputs(seen)) {
      Column.Cell cell = weigher.solved(f, x);
      for (Place place : places) {
        Column.Prediction p = cell.at(place);
        if (p.floats() || Double.isNaN(p.value())) continue;
        double v = weigher.reads().shown(p, place, f)[0];
        // The display shows no more digits there than it showed here.
        double step =
            seen.stream()
                .filter(o -> o.place().equals(place))
                .mapToDouble(MeasuredValue::step)
                .max()
                .orElse(0);
        if (!Double.isNaN(v)) list.add(new MeasuredValue(place, x, v, step));
      }
    }
    return list;
  }
}
