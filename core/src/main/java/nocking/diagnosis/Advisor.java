package nocking.diagnosis;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import nocking.channel.Channel;
import nocking.fault.Fault;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.wiring.Place;

/**
 * Chooses the single measurement that is expected to say most about which fault it is: the mutual
 * information of fault and reading (Lindley 1956) for the effort that it takes.
 */
final class Advisor {
  private static final int LEADING = 24;
  private static final double OUT_OF_QUESTION = 9;

  /** Bits for one easy measurement below which it is not worth the walk. */
  private static final double WORTH_WHILE = 0.02;

  private static final double OTHER_INPUT_COSTS = 1.5;
  private static final double UNPLUGGING_COSTS = 1.3;

  private final Channel channel;
  private final Weigher weigher;
  private final List<Place> places;

  Advisor(Channel channel, Weigher weigher, List<Place> places) {
    this.channel = channel;
    this.weigher = weigher;
    this.places = places;
  }

  /** What the leading explanations show at one place, with what is still open there. */
  private record Sample(int hypothesis, double weight, Fault fault, double mean, double sigma) {}

  /**
   * The measurement that says most about which of the explanations holds; empty when none helps.
   */
  Optional<NextMeasurement> next(Ranking ranking) {
    List<Posterior> posteriors = leading(ranking.observations());
    NextMeasurement best = null;
    double bestScore = WORTH_WHILE;
    for (double x : inputs(ranking.observations())) {
      for (Place place : places) {
        if (made(ranking.observations(), place, x)) continue;
        List<Sample> samples = samples(posteriors, ranking.observations(), place, x);
        double bits = information(samples);
        double score = bits / cost(ranking.observations(), place, x);
        if (score > bestScore) {
          bestScore = score;
          best = new NextMeasurement(place, x, bits, predictions(samples));
        }
      }
    }
    return Optional.ofNullable(best);
  }

  private static boolean made(List<MeasuredValue> seen, Place place, double x) {
    return seen.stream().anyMatch(o -> o.place().equals(place) && o.at() == x);
  }

  private double cost(List<MeasuredValue> seen, Place place, double x) {
    boolean elsewhere = seen.stream().filter(MeasuredValue::inputKnown).noneMatch(o -> o.at() == x);
    double cost = elsewhere && !seen.isEmpty() ? OTHER_INPUT_COSTS : 1;
    return place.live() || place.equals(Place.DISPLAY) ? cost : cost * UNPLUGGING_COSTS;
  }

  /** Inputs at which it is worth measuring: those in use, then both ends and the middle. */
  List<Double> inputs(List<MeasuredValue> seen) {
    var list = new ArrayList<Double>();
    for (MeasuredValue o : seen) {
      if (o.inputKnown() && !list.contains(o.at())) list.add(o.at());
    }
    Span w = channel.definition().working();
    for (double x : new double[] {w.at(0.1), w.middle(), w.at(0.9)}) {
      boolean near = list.stream().anyMatch(l -> Math.abs(l - x) < 0.15 * w.width());
      if (!near) list.add(x);
    }
    return list;
  }

  private List<Posterior> leading(List<MeasuredValue> seen) {
    List<Posterior> all = new ArrayList<>(weigher.weigh(seen));
    all.sort(Comparator.comparingDouble(Posterior::logWeight).reversed());
    double top = all.getFirst().logWeight();
    var list = new ArrayList<Posterior>();
    for (Posterior p : all) {
      if (list.size() < LEADING && p.logWeight() > top - OUT_OF_QUESTION) list.add(p);
    }
    return list;
  }

  private List<Sample> samples(
      List<Posterior> posteriors, List<MeasuredValue> seen, Place place, double x) {
    double top = posteriors.getFirst().logWeight();
    var list = new ArrayList<Sample>();
    for (Posterior p : posteriors) {
      double weight = Math.exp(p.logWeight() - top);
      var own = new ArrayList<Sample>();
      double last = Double.NaN;
      for (double degree : p.degrees()) {
        if (degree == last && !own.isEmpty()) {
          own.add(own.getLast());
          continue;
        }
        last = degree;
        Hypothesis h = weigher.hypotheses().get(p.hypothesis());
        Fault f = h.graded() ? h.fault().withSeverity(degree) : h.fault();
        own.add(sample(p, f, weight / p.degrees().length, seen, place, x));
      }
      // Between two degrees lies every value between theirs.
      for (int i = 0; i < own.size(); i++) {
        double gap = 0;
        if (i > 0) gap = Math.max(gap, Math.abs(own.get(i).mean() - own.get(i - 1).mean()));
        if (i + 1 < own.size()) {
          gap = Math.max(gap, Math.abs(own.get(i).mean() - own.get(i + 1).mean()));
        }
        Sample s = own.get(i);
        list.add(
            new Sample(
                s.hypothesis(), s.weight(), s.fault(), s.mean(), Math.hypot(s.sigma(), gap / 2)));
      }
    }
    return list;
  }

  private Sample sample(
      Posterior p, Fault f, double weight, List<MeasuredValue> seen, Place place, double x) {
    if (open(f.kind(), place)) return anything(p, f, weight, place, x);
    if (f.kind().loose()) return sound(p, f, weight, place, x);
    Column.Cell cell = weigher.solved(f, x);
    Column.Prediction here = cell.at(place);
    if (here.floats() || Double.isNaN(here.value())) {
      boolean display = place.equals(Place.DISPLAY);
      Span w = channel.definition().working();
      double middle = display ? w.middle() : here.span().middle();
      double wide = display ? w.width() : Math.max(here.span().width(), 1);
      return new Sample(p.hypothesis(), weight, f, middle, wide);
    }
    double departure = 0;
    double open = 1;
    for (MeasuredValue o : seen) {
      if (o.at() != x) continue;
      double[] at = weigher.reads().shown(cell.at(o.place()), o.place(), f);
      double sigma = weigher.reads().sigma(o, at[0]);
      if (Double.isNaN(at[0])) continue;
      departure += at[1] * (o.value() - at[0]) / (sigma * sigma);
      open += at[1] * at[1] / (sigma * sigma);
    }
    double[] at = weigher.reads().shown(here, place, f);
    if (Double.isNaN(at[0])) {
      Span w = channel.definition().working();
      return new Sample(p.hypothesis(), weight, f, w.high() + 10 * w.width(), w.width());
    }
    double mean = at[0] + at[1] * departure / open;
    double sigma =
        Math.hypot(weigher.reads().sigma(place, at[0]), Math.abs(at[1]) / Math.sqrt(open));
    return new Sample(p.hypothesis(), weight, f, mean, sigma);
  }

  /** True where the fault does not say what a place will show. */
  private static boolean open(FaultKind kind, Place place) {
    return switch (kind) {
      case UNLISTED -> true;
      case INTERMITTENT -> LooseReadings.touched(place);
      case NOT_ENABLED -> place.equals(Place.DISPLAY);
      default -> false;
    };
  }

  private Sample anything(Posterior p, Fault f, double weight, Place place, double x) {
    Column.Prediction here = weigher.solved(Fault.NONE, x).at(place);
    double[] at = weigher.reads().shown(here, place, Fault.NONE);
    Span w = channel.definition().working();
    double wide =
        Math.exp(
            -weigher.reads().anyLog(MeasuredValue.of(place, x, Double.isNaN(at[0]) ? 0 : at[0])));
    double mean = Double.isNaN(at[0]) ? w.middle() : at[0];
    return new Sample(p.hypothesis(), weight, f, mean, wide);
  }

  private Sample sound(Posterior p, Fault f, double weight, Place place, double x) {
    double[] at = weigher.soundReading(MeasuredValue.of(place, x, 0));
    if (Double.isNaN(at[0])) return anything(p, f, weight, place, x);
    double sigma = Math.hypot(weigher.reads().sigma(place, at[0]), at[1]);
    return new Sample(p.hypothesis(), weight, f, at[0], sigma);
  }

  /** Expected information about which fault it is, in bits, by three points of each normal. */
  private static double information(List<Sample> samples) {
    var byHypothesis = new HashMap<Integer, Double>();
    double total = 0;
    for (Sample s : samples) {
      byHypothesis.merge(s.hypothesis(), s.weight(), Double::sum);
      total += s.weight();
    }
    double[] nodes = {-Math.sqrt(3), 0, Math.sqrt(3)};
    double[] weights = {1.0 / 6, 2.0 / 3, 1.0 / 6};
    double bits = 0;
    for (Sample s : samples) {
      double share = s.weight() / total;
      if (share < 1e-4) continue;
      double own = byHypothesis.get(s.hypothesis());
      for (int q = 0; q < 3; q++) {
        double y = s.mean() + nodes[q] * s.sigma();
        double all = 0;
        double mine = 0;
        for (Sample t : samples) {
          double z = (y - t.mean()) / t.sigma();
          if (Math.abs(z) > 7) continue;
          double density = t.weight() * Math.exp(-0.5 * z * z) / t.sigma();
          all += density;
          if (t.hypothesis() == s.hypothesis()) mine += density;
        }
        bits += share * weights[q] * Math.log((mine / own) / (all / total));
      }
    }
    return bits / Math.log(2);
  }

  private static List<NextMeasurement.Prediction> predictions(List<Sample> samples) {
    var byHypothesis = new LinkedHashMap<Integer, List<Sample>>();
    for (Sample s : samples) {
      byHypothesis.computeIfAbsent(s.hypothesis(), k -> new ArrayList<>()).add(s);
    }
    var list = new ArrayList<NextMeasurement.Prediction>();
    for (List<Sample> own : byHypothesis.values()) {
      Sample middle = own.get(own.size() / 2);
      list.add(new NextMeasurement.Prediction(middle.fault(), middle.mean(), middle.sigma()));
    }
    return list;
  }
}
