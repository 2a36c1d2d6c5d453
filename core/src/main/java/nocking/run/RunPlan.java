package nocking.run;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * What a run is going to do.
 *
 * @param title for people; never empty
 * @param kind what is done at a set point
 * @param unit of the set points
 * @param channels one to eight that are read together
 * @param reference what says what is applied
 * @param setPoints at least one, in any order
 * @param repeats how often the whole course is gone, at least 1
 * @param seed of a random course
 * @param average sweeps that make a point, 1 … 1 000
 * @param every seconds between sweeps, above 0
 * @param giveUp seconds after which a point that has not settled is given up, above 0
 * @param band how near the reference has to come to a set point before anything can settle there,
 *     above 0
 */
public record RunPlan(
    String title,
    Kind kind,
    String unit,
    List<RunChannel> channels,
    Instrument reference,
    List<Value> setPoints,
    Course course,
    int repeats,
    long seed,
    int average,
    double every,
    double giveUp,
    double band,
    Unsettled then,
    Purpose purpose,
    Conditions conditions) {
  /** Most channels that are read from one stimulus. */
  public static final int MOST_CHANNELS = 8;

  private static final int MOST_TARGETS = 10_000;

  /** What is done at a set point. */
  public enum Kind {
    /** The reference is brought to it. */
    POINTS("set points"),
    /** So much is poured in that the total comes to it. */
    POURS("measured pours");

    private final String title;

    Kind(String title) {
      this.title = title;
    }

    public String title() {
      return title;
    }
  }

  public RunPlan {
    title = title == null || title.isBlank() ? "run" : title.strip();
    channels = channels == null ? List.of() : List.copyOf(channels);
    setPoints = setPoints == null ? List.of() : List.copyOf(setPoints);
    kind = kind == null ? Kind.POINTS : kind;
    course = course == null ? Course.UP : course;
    then = then == null ? Unsettled.TAKE : then;
    purpose = purpose == null ? Purpose.DEVELOPMENT : purpose;
    conditions = conditions == null ? Conditions.NONE : conditions;
    Unit.of(unit);
    if (reference == null) throw new QuantityException("a run needs a reference");
    if (channels.isEmpty() || channels.size() > MOST_CHANNELS) {
      throw new QuantityException(
          "a run reads one to %d channels, not %d".formatted(MOST_CHANNELS, channels.size()));
    }
    long different = channels.stream().map(RunChannel::channel).distinct().count();
    if (different < channels.size()) {
      throw new QuantityException("a run reads each channel once; one stands there twice");
    }
    if (setPoints.isEmpty()) throw new QuantityException("a run needs set points");
    within("the repeats", repeats, 1, MOST_TARGETS);
    within("the readings of a point", average, 1, 1000);
    above("the time between readings", every);
    above("the time after which a point is given up", giveUp);
    above("the band about a set point", band);
    for (RunChannel k : channels) enough(k, every);
    if ((long) repeats * setPoints.size() > MOST_TARGETS) {
      throw new QuantityException("a run has at most %d points".formatted(MOST_TARGETS));
    }
  }

  private static void within(String what, int v, int low, int high) {
    if (v < low || v > high) {
      throw new QuantityException("%s: read %d, expected %d … %d".formatted(what, v, low, high));
    }
  }

  /** A window that holds too few readings is never full, and nothing would ever settle. */
  private static void enough(RunChannel k, double every) {
    double least = (Settling.FEWEST - 1) * every;
    if (k.settle() instanceof SettleRule.Stable s && s.window() < least) {
      throw new QuantityException(
          "%s settles over %s s: with a reading every %s s it takes %s s or more"
              .formatted(k.tag(), s.window(), every, least));
    }
  }

  private static void above(String what, double v) {
    if (!(v > 0) || Double.isInfinite(v)) {
      throw new QuantityException("%s: read %s, expected more than 0".formatted(what, v));
    }
  }

  public RunPlan withKind(Kind v) {
    return new RunPlan(
        title,
        v,
        unit,
        channels,
        reference,
        setPoints,
        course,
        repeats,
        seed,
        average,
        every,
        giveUp,
        band,
        then,
        purpose,
        conditions);
  }

  public RunPlan withChannels(List<RunChannel> v) {
    return new RunPlan(
        title,
        kind,
        unit,
        v,
        reference,
        setPoints,
        course,
        repeats,
        seed,
        average,
        every,
        giveUp,
        band,
        then,
        purpose,
        conditions);
  }

  public RunPlan withReference(Instrument v) {
    return new RunPlan(
        title,
        kind,
        unit,
        channels,
        v,
        setPoints,
        course,
        repeats,
        seed,
        average,
        every,
        giveUp,
        band,
        then,
        purpose,
        conditions);
  }

  public RunPlan withSetPoints(List<Value> v) {
    return new RunPlan(
        title,
        kind,
        unit,
        channels,
        reference,
        v,
        course,
        repeats,
        seed,
        average,
        every,
        giveUp,
        band,
        then,
        purpose,
        conditions);
  }

  public RunPlan withCourse(Course v) {
    return new RunPlan(
        title,
        kind,
        unit,
        channels,
        reference,
        setPoints,
        v,
        repeats,
        seed,
        average,
        every,
        giveUp,
        band,
        then,
        purpose,
        conditions);
  }

  public RunPlan withRepeats(int v) {
    return new RunPlan(
        title,
        kind,
        unit,
        channels,
        reference,
        setPoints,
        course,
        v,
        seed,
        average,
        every,
        giveUp,
        band,
        then,
        purpose,
        conditions);
  }

  public RunPlan withAverage(int v) {
    return new RunPlan(
        title,
        kind,
        unit,
        channels,
        reference,
        setPoints,
        course,
        repeats,
        seed,
        v,
        every,
        giveUp,
        band,
        then,
        purpose,
        conditions);
  }

  public RunPlan withEvery(double v) {
    return new RunPlan(
        title,
        kind,
        unit,
        channels,
        reference,
        setPoints,
        course,
        repeats,
        seed,
        average,
        v,
        giveUp,
        band,
        then,
        purpose,
        conditions);
  }

  public RunPlan withGiveUp(double v) {
    return new RunPlan(
        title,
        kind,
        unit,
        channels,
        reference,
        setPoints,
        course,
        repeats,
        seed,
        average,
        every,
        v,
        band,
        then,
        purpose,
        conditions);
  }

  public RunPlan withBand(double v) {
    return new RunPlan(
        title,
        kind,
        unit,
        channels,
        reference,
        setPoints,
        course,
        repeats,
        seed,
        average,
        every,
        giveUp,
        v,
        then,
        purpose,
        conditions);
  }

  public RunPlan withThen(Unsettled v) {
    return new RunPlan(
        title,
        kind,
        unit,
        channels,
        reference,
        setPoints,
        course,
        repeats,
        seed,
        average,
        every,
        giveUp,
        band,
        v,
        purpose,
        conditions);
  }

  public RunPlan withPurpose(Purpose v) {
    return new RunPlan(
        title,
        kind,
        unit,
        channels,
        reference,
        setPoints,
        course,
        repeats,
        seed,
        average,
        every,
        giveUp,
        band,
        then,
        v,
        conditions);
  }

  public RunPlan withConditions(Conditions v) {
    return new RunPlan(
        title, kind, unit, channels, reference, setPoints, course, repeats, seed, average, every,
        giveUp, band, then, purpose, v);
  }

  /** True for a plan of the same work: the same channels at the same set points in their order. */
  public boolean likeWork(RunPlan other) {
    return title.equals(other.title)
        && unit.equals(other.unit)
        && targets().equals(other.targets())
        && average == other.average
        && channels.stream()
            .map(RunChannel::channel)
            .toList()
            .equals(other.channels.stream().map(RunChannel::channel).toList());
  }

  /** The set points in the order in which they are visited. */
  public List<Target> targets() {
    double[] up = setPoints.stream().mapToDouble(Value::number).sorted().distinct().toArray();
    var order = new ArrayList<Double>();
    for (int round = 0; round < repeats; round++) order.addAll(once(up, round));
    var targets = new ArrayList<Target>();
    double before = Double.NEGATIVE_INFINITY;
    for (double x : order) {
      // The first of a course downwards comes from above, too.
      boolean down = x < before || (targets.isEmpty() && course == Course.DOWN);
      targets.add(new Target(x, down));
      before = x;
    }
    return List.copyOf(targets);
  }

  private List<Double> once(double[] up, int round) {
    var list = new ArrayList<Double>();
    for (double x : up) list.add(x);
    switch (course) {
      case UP -> {}
      case DOWN -> Collections.reverse(list);
      case UP_DOWN -> {
        // The top is one point: nothing is told by reading it twice.
        for (int i = up.length - 2; i >= 0; i--) list.add(up[i]);
        // The next round begins where this one has ended.
        if (round > 0 && up.length > 1) list.removeFirst();
      }
      case RANDOM -> shuffle(list, round);
    }
    return list;
  }

  private void shuffle(List<Double> list, int round) {
    RandomGenerator r = RandomGeneratorFactory.of("L64X128MixRandom").create(seed + round);
    for (int i = list.size() - 1; i > 0; i--) Collections.swap(list, i, r.nextInt(i + 1));
  }
}
