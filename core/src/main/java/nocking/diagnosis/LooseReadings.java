package nocking.diagnosis;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nocking.fault.Fault;
import nocking.fault.Subject;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.wiring.Place;

/**
 * How likely readings are where no single circuit gives them: a contact that comes and goes, an
 * input that is not enabled, a prefix that was misread, or something that is on no list. Every
 * reading is a mixture of what a sound channel gives and of what may come instead; the weights are
 * working figures.
 */
final class LooseReadings {
  /** Share of readings that are sound although something not listed is wrong. */
  private static final double SOUND = 0.35;

  /** Share of displays that follow the volts, whatever those are. */
  private static final double FOLLOWS = 0.5;

  /** Share of readings behind an open contact that show what an open wire shows. */
  private static final double OPEN = 0.9;

  /** How far volts may lie outside what the circuit holds, as a share of it. */
  private static final double BEYOND = 0.05;

  /** Misfit of volts that the circuit cannot hold. */
  private static final double IMPOSSIBLE = 100;

  /** Logarithm of the weight of what no reading speaks for. */
  private static final double UNASKED = -3;

  /** Readings behind a contact that are each taken as open and as closed. */
  private static final int MOST_TOUCHED = 7;

  private static final double[] PREFIXES = {1000, 1e-3};

  private final Subject subject;
  private final Weigher weigher;

  LooseReadings(Subject subject, Weigher weigher) {
    this.subject = subject;
    this.weigher = weigher;
  }

  /** What a reading is like: log density and how far the nearest explanation of it is off. */
  private record Fit(double log, double misfit) {}

  /** Logarithm of the likelihood, in the normalisation of {@link Weigher}, and the misfit. */
  double[] weigh(FaultKind kind, List<MeasuredValue> seen) {
    Fit f =
        switch (kind) {
          case INTERMITTENT -> intermittent(seen);
          case NOT_ENABLED -> notEnabled(seen);
          case METER_PREFIX -> prefixed(seen);
          default -> unlisted(seen);
        };
    return new double[] {f.log, f.misfit};
  }

  /** A sound channel whose display shows whatever it shows without its input. */
  private Fit notEnabled(List<MeasuredValue> seen) {
    var rest = new ArrayList<MeasuredValue>();
    double log = 0;
    double misfit = 0;
    for (MeasuredValue o : seen) {
      if (!o.place().equals(Place.DISPLAY)) {
        rest.add(o);
        continue;
      }
      Fit any = possible(o);
      log += any.log;
      misfit += any.misfit;
    }
    Fit sound = sound(rest);
    // Nothing speaks for it while no display was looked at.
    double unasked = rest.size() == seen.size() ? UNASKED : 0;
    return new Fit(log + sound.log + unasked, misfit + sound.misfit);
  }

  /** A sound channel of which one reading, any of them, was misread by a prefix. */
  private Fit prefixed(List<MeasuredValue> seen) {
    var fits = new ArrayList<Fit>();
    for (int i = 0; i < seen.size(); i++) {
      MeasuredValue o = seen.get(i);
      if (o.place().equals(Place.DISPLAY)) continue;
      for (double factor : PREFIXES) {
        double value = o.value() / factor;
        // Nought is nought with every prefix: it cannot speak for a slip.
        if (Math.abs(o.value() - value) <= weigher.reads().sigma(o, o.value())) continue;
        var meant = new ArrayList<>(seen);
        meant.set(i, new MeasuredValue(o.place(), o.at(), value, o.step(), o.jump()));
        Fit f = sound(meant);
        fits.add(new Fit(f.log - Math.log(factor), f.misfit));
      }
    }
    if (fits.isEmpty()) return new Fit(UNASKED + sound(seen).log, 0);
    return mixed(equal(fits.size()), fits.toArray(Fit[]::new));
  }

  /** Some of the readings behind the contact were taken while it was open, the rest are sound. */
  private Fit intermittent(List<MeasuredValue> seen) {
    var touched = new ArrayList<MeasuredValue>();
    var steady = new ArrayList<MeasuredValue>();
    for (MeasuredValue o : seen) {
      (touched(o.place()) && touched.size() < MOST_TOUCHED ? touched : steady).add(o);
    }
    var fits = new ArrayList<Fit>();
    for (int open = 1; open < 1 << touched.size(); open++) {
      var rest = new ArrayList<>(steady);
      double log = 0;
      double misfit = 0;
      for (int i = 0; i < touched.size(); i++) {
        MeasuredValue o = touched.get(i);
        if ((open >> i & 1) == 0) {
          rest.add(o);
          continue;
        }
        Fit any = possible(o);
        Fit f =
            o.inputKnown() && !o.jumps()
                ? mixed(new double[] {OPEN, 1 - OPEN}, broken(o), any)
                : any;
        log += f.log;
        misfit += f.misfit;
      }
      Fit sound = sound(rest);
      fits.add(new Fit(log + sound.log, misfit + sound.misfit));
    }
    if (fits.isEmpty()) return new Fit(UNASKED + sound(seen).log, 0);
    return mixed(equal(fits.size()), fits.toArray(Fit[]::new));
  }

  /** All readings as a sound channel gives them, what sensor and supply have in common shared. */
  private Fit sound(List<MeasuredValue> seen) {
    double[] l = weigher.sound(seen);
    return new Fit(l[0], l[1]);
  }

  private static double[] equal(int n) {
    double[] weights = new double[n];
    Arrays.fill(weights, 1.0 / n);
    return weights;
  }

  /** One reading of a sound channel by itself. */
  private Fit sound(MeasuredValue o) {
    if (!o.inputKnown()) return anything(o);
    double[] p = weigher.soundReading(o);
    if (Double.isNaN(p[0])) return anything(o);
    double sigma = Math.hypot(weigher.reads().wide(o, p[0]), p[1]);
    double z = Math.clamp((o.value() - p[0]) / sigma, -ReadingModel.FAR, ReadingModel.FAR);
    return new Fit(-Math.log(sigma) - 0.5 * z * z, z * z);
  }

  /** Equally likely anywhere in what the place can show. */
  private Fit anything(MeasuredValue o) {
    return new Fit(weigher.reads().anyLog(o), 0);
  }

  /** Equally likely anywhere in what the circuit or the display can come to, and not beyond. */
  private Fit possible(MeasuredValue o) {
    Span span = span(o.place());
    double beyond = BEYOND * span.width();
    if (o.value() >= span.low() - beyond && o.value() <= span.high() + beyond) return anything(o);
    return new Fit(weigher.reads().anyLog(o) - IMPOSSIBLE / 2, IMPOSSIBLE);
  }

  private Span span(Place place) {
    if (place.equals(Place.DISPLAY)) {
      double a = weigher.reads().display(Fault.NONE, 0);
      double b =
          weigher
              .reads()
              .display(Fault.NONE, subject.channel().design().converter().reference().number());
      Span w = subject.channel().definition().working();
      // Where an end of the converter has no reading the working range is all that is known.
      if (!Double.isFinite(a) || !Double.isFinite(b)) return w;
      return new Span(Math.min(w.low(), Math.min(a, b)), Math.max(w.high(), Math.max(a, b)));
    }
    boolean volts = place.unit(Unit.ONE).equals(Unit.VOLT);
    return volts ? new Span(0, subject.widestVolts()) : new Span(0, Double.MAX_VALUE / 4);
  }

  private static Fit mixed(double[] weights, Fit... fits) {
    double top = Double.NEGATIVE_INFINITY;
    double misfit = Double.POSITIVE_INFINITY;
    for (int i = 0; i < fits.length; i++) {
      top = Math.max(top, fits[i].log + Math.log(weights[i]));
      misfit = Math.min(misfit, fits[i].misfit);
    }
    double sum = 0;
    for (int i = 0; i < fits.length; i++) {
      sum += Math.exp(fits[i].log + Math.log(weights[i]) - top);
    }
    return new Fit(top + Math.log(sum), misfit);
  }

  /** What a broken signal wire shows. */
  private Fit broken(MeasuredValue o) {
    Fault open =
        weigher.hypotheses().stream()
            .map(Hypothesis::fault)
            .filter(f -> f.kind() == FaultKind.SIGNAL_OPEN)
            .findFirst()
            .orElse(Fault.NONE);
    Column.Prediction p = weigher.solved(open, o.at()).at(o.place());
    if (p.floats()) return anything(o);
    double v = weigher.reads().shown(p, o.place(), open)[0];
    if (Double.isNaN(v)) return anything(o);
    double sigma = weigher.reads().wide(o, v);
    double z = Math.clamp((o.value() - v) / sigma, -ReadingModel.FAR, ReadingModel.FAR);
    return new Fit(-Math.log(sigma) - 0.5 * z * z, z * z);
  }

  /** True for a place that a bad contact in the signal wire reaches. */
  static boolean touched(Place place) {
    return switch (place.kind()) {
      case DISPLAY,
          SIGNAL_AT_RECEIVER,
          SIGNAL_AT_JOINT,
          TEST_POINT,
          OHMS_AT_RECEIVER,
          LOOP_CURRENT ->
          true;
      case SUPPLY_AT_RECEIVER,
          SUPPLY_AT_SENSOR,
          GROUND_AT_SENSOR,
          SIGNAL_AT_SENSOR,
          SUPPLY_AT_JOINT,
          GROUND_AT_JOINT,
          REFERENCE_WIPER,
          OHMS_AT_SENSOR ->
          false;
    };
  }

  private Fit unlisted(List<MeasuredValue> seen) {
    double log = 0;
    for (MeasuredValue o : seen) log += unlisted(o, seen).log;
    return new Fit(log, 0);
  }

  private Fit unlisted(MeasuredValue o, List<MeasuredValue> seen) {
    Fit sound = sound(o);
    Fit any = anything(o);
    if (o.place().equals(Place.DISPLAY)) {
      Fit follows = follows(o, seen);
      if (follows != null) {
        Fit f = mixed(new double[] {1 - FOLLOWS - 0.3, FOLLOWS, 0.3}, sound, follows, any);
        return new Fit(f.log, 0);
      }
    }
    return new Fit(mixed(new double[] {SOUND, 1 - SOUND}, sound, any).log, 0);
  }

  /**
   * The display that belongs to the volts that were seen at the converter; null where none were.
   */
  private Fit follows(MeasuredValue o, List<MeasuredValue> seen) {
    int nodes = subject.channel().design().stages().size();
    for (MeasuredValue v : seen) {
      boolean same = v.at() == o.at() || !v.inputKnown() && !o.inputKnown();
      boolean last =
          v.place().kind() == Place.Kind.TEST_POINT && v.place().node() == nodes + 1
              || nodes == 0 && v.place().kind() == Place.Kind.SIGNAL_AT_RECEIVER;
      if (!same || !last || v.jumps()) continue;
      double shown = weigher.reads().display(Fault.NONE, v.value());
      double off = weigher.reads().sigma(v, v.value());
      double beside = weigher.reads().display(Fault.NONE, v.value() + off);
      if (Double.isNaN(shown) || Double.isNaN(beside)) continue;
      double sigma = Math.hypot(weigher.reads().wide(o, shown), beside - shown);
      double z = Math.clamp((o.value() - shown) / sigma, -ReadingModel.FAR, ReadingModel.FAR);
      return new Fit(-Math.log(sigma) - 0.5 * z * z, z * z);
    }
    return null;
  }
}
