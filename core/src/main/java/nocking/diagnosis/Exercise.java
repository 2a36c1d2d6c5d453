package nocking.diagnosis;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import nocking.fault.Fault;
import nocking.fault.FaultCatalogue;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.prior.FaultKind;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.wiring.Meter;
import nocking.wiring.Place;

/**
 * One fault hidden in a copy of a channel, to be found by measuring.
 *
 * <p>The meter errs by its gain, the same for the whole exercise, and in its last digit; the sensor
 * is off inside the channel's tolerance, at every input by its own amount. The same seed hides the
 * same fault and gives the same readings. It is used by one thread at a time.
 */
public final class Exercise {
  /** Most measurements that the plan is given. */
  private static final int MOST_PLANNED = 12;

  private static final double SURE = 0.9;
  private static final int MOST_DRAWS = 10_000;

  /** How hard a fault is to find. */
  public enum Difficulty {
    EASY("broken wires and parts"),
    MEDIUM("also drifts, leaks and offsets"),
    HARD("also slips in the numbers and wrong sensors");

    private final String title;

    Difficulty(String title) {
      this.title = title;
    }

    public String title() {
      return title;
    }

    /** As it is kept in the book. */
    public String key() {
      return name().toLowerCase(Locale.ROOT);
    }

    /** True when a fault may be hidden at this level. */
    public boolean holds(Fault f) {
      boolean numbers =
          f.kind().family() == FaultKind.Family.NUMBERS || f.kind() == FaultKind.OTHER_SENSOR;
      return switch (this) {
        case EASY -> !f.kind().graded() && !numbers;
        case MEDIUM -> !numbers;
        case HARD -> true;
      };
    }
  }

  private final Subject subject;
  private final Meter meter;
  private final int decimals;
  private final Random random;
  private final Fault hidden;
  private final double complaintAt;
  private final double gain;
  private final Map<Double, Double> inputs = new HashMap<>();
  private final List<MeasuredValue> made = new ArrayList<>();

  private Exercise(
      Subject subject, Meter meter, int decimals, Random random, Fault hidden, double at) {
    this.subject = subject;
    this.meter = meter;
    this.decimals = decimals;
    this.random = random;
    this.hidden = hidden;
    this.complaintAt = at;
    gain = 1 + random.nextGaussian() * meter.percent() / 300;
    measure(Place.DISPLAY, at);
  }

  /**
   * Hides a fault that the display shows at the input where it was noticed.
   *
   * @param decimals of the display
   * @return empty when no fault of the channel can be seen at the display
   */
  public static Optional<Exercise> hide(
      Subject subject, Meter meter, int decimals, Difficulty difficulty, long seed) {
    var random = new Random(seed);
    List<Fault> faults =
        FaultCatalogue.of(subject).stream()
            .filter(f -> f.kind().inChannel() && !f.kind().loose() && difficulty.holds(f))
            .toList();
    double sum = faults.stream().mapToDouble(f -> f.kind().prior()).sum();
    Span w = subject.channel().definition().working();
    for (int i = 0; i < MOST_DRAWS && !faults.isEmpty(); i++) {
      Fault f = draw(faults, random.nextDouble() * sum);
      if (f.kind().graded()) f = f.withSeverity(f.kind().severity(random.nextDouble()));
      double at = Double.parseDouble(Numbers.fixed(w.at(random.nextDouble()), decimals));
      if (shows(subject, f, at)) {
        return Optional.of(new Exercise(subject, meter, decimals, random, f, at));
      }
    }
    return Optional.empty();
  }

  /** The same with a fault that is given, as a test or a teacher wants it. */
  public static Exercise of(
      Subject subject, Meter meter, int decimals, Fault hidden, double at, long seed) {
    return new Exercise(subject, meter, decimals, new Random(seed), hidden, at);
  }

  private static Fault draw(List<Fault> faults, double at) {
    double left = at;
    for (Fault f : faults) {
      left -= f.kind().prior();
      if (left <= 0) return f;
    }
    return faults.getLast();
  }

  private static double tolerance(Subject subject) {
    double stated = subject.channel().definition().toleranceOrNaN();
    return Double.isNaN(stated) ? 0.01 * subject.channel().definition().working().width() : stated;
  }

  private static boolean shows(Subject subject, Fault f, double at) {
    var d = FaultyPath.of(subject, f, at).read(Place.DISPLAY, Double.POSITIVE_INFINITY);
    return d.floats() || !Double.isNaN(d.value()) && Math.abs(d.value() - at) > tolerance(subject);
  }

  /** Input at which the display was found wrong. */
  public double complaintAt() {
    return complaintAt;
  }

  /** What has been seen, the complaint first. */
  public List<MeasuredValue> seen() {
    return List.copyOf(made);
  }

  /** Measurements so far; the complaint is none. */
  public int measurements() {
    return made.size() - 1;
  }

  /** Measures at a place and an input; each time anew, so that noise shows. */
  public MeasuredValue measure(Place place, double at) {
    double tolerance = tolerance(subject);
    double departure = inputs.computeIfAbsent(at, k -> random.nextGaussian() * tolerance / 3);
    var r = FaultyPath.of(subject, hidden, at + departure).read(place, meter.inputResistance());
    MeasuredValue o;
    if (place.equals(Place.DISPLAY)) {
      double v = r.floats() ? r.span().at(random.nextDouble()) : r.value();
      double step = Math.pow(10, -decimals);
      o = new MeasuredValue(place, at, Double.parseDouble(Numbers.fixed(v, decimals)), step);
    } else {
      double step = meter.resolution(r.value(), place);
      double noise = random.nextGaussian() * meter.digits() * step / 3;
      o = MeasuredValue.of(place, at, meter.shown(r.value() * gain + noise, place));
    }
    made.add(o);
    return o;
  }

  /** The fault that is there. */
  public Fault hidden() {
    return hidden;
  }

  /** True when a name is the hidden fault, or one that no measurement tells from it. */
  public boolean right(Fault named, Diagnostician engine) {
    if (named.same(hidden)) return true;
    Ranking r = engine.rank(made);
    return r.of(hidden).stream()
        .flatMap(e -> engine.indistinguishable(e, r).stream())
        .anyMatch(e -> e.fault().same(named));
  }

  /**
   * What the engine itself would measure, following its own advice until one explanation, with
   * those that no measurement tells from it, holds nine tenths.
   */
  public List<MeasuredValue> plan(Diagnostician engine) {
    var own =
        new Exercise(subject, meter, decimals, new Random(complaintSeed()), hidden, complaintAt);
    for (int i = 0; i < MOST_PLANNED; i++) {
      Ranking r = engine.rank(own.made);
      if (settled(engine, r)) break;
      Optional<NextMeasurement> next = engine.next(r);
      if (next.isEmpty()) break;
      own.measure(next.get().place(), next.get().at());
    }
    return own.made.subList(1, own.made.size());
  }

  private long complaintSeed() {
    return Double.doubleToLongBits(complaintAt) ^ hidden.name().hashCode();
  }

  private static boolean settled(Diagnostician engine, Ranking r) {
    double p = r.best().probability();
    if (p >= SURE) return true;
    for (Explanation e : engine.indistinguishable(r.best(), r)) p += e.probability();
    return p >= SURE;
  }
}
