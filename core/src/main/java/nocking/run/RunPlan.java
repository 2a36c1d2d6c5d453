package nocking.run;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import nocking.points.RawUnit;
import nocking.procedure.Procedure;
import nocking.procedure.Step;
import nocking.procedure.Taken;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.wiring.Place;

/**
 * What a run is going to do.
 *
 * @param title for people; never empty
 * @param kind what is done at a set point
 * @param unit of the set points
 * @param channels one to eight that are read together
 * @param reference what says what is applied
 * @param setPoints at least one, in any order; the course says in which they are visited
 * @param repeats how often the whole course is gone, at least 1
 * @param seed of a random course
 * @param average sweeps that make a point, 1 … 1 000
 * @param every seconds between sweeps, above 0, a day at most
 * @param giveUp seconds after which a point that has not settled is given up, above 0
 * @param band how near the reference has to come to a set point before anything can settle there,
 *     above 0
 * @param procedure what is done instead of going through set points; null for those
 * @param supply what reads the supply of the sensors, to see that it stays; null where nothing does
 * @param beside another reference that has to agree with the first; null for none
 * @param straight what a straight line between two pours may be off by, in the unit of the plan,
 *     above 0: where it bends more, pours are halved ({@link Pours}); null for pours as planned
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
    Conditions conditions,
    Procedure procedure,
    Instrument supply,
    @JsonInclude(JsonInclude.Include.NON_NULL) Instrument beside,
    @JsonInclude(JsonInclude.Include.NON_NULL) Value straight) {
  /** Most channels that are read from one stimulus. */
  public static final int MOST_CHANNELS = 8;

  private static final int MOST_TARGETS = 10_000;

  /** What is done at a set point. */
  public enum Kind {
    /** The reference is brought to it. */
    POINTS("set points"),
    /** So much is poured in that the total comes to it. */
    POURS("measured pours"),
    /** What a procedure asks for, step by step. */
    PROCEDURE("procedure");

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
    kind = procedure != null ? Kind.PROCEDURE : kind == null ? Kind.POINTS : kind;
    course = course == null ? Course.UP : course;
    then = then == null ? Unsettled.TAKE : then;
    purpose = purpose == null ? Purpose.DEVELOPMENT : purpose;
    conditions = conditions == null ? Conditions.NONE : conditions;
    Unit.of(unit);
    if (reference == null) throw new QuantityException("a run needs a reference");
    if (beside != null && beside.byHand()) {
      throw new QuantityException(
          "%s is read by eye; a reference beside another has to answer by itself"
              .formatted(beside.name()));
    }
    if (channels.isEmpty() || channels.size() > MOST_CHANNELS) {
      throw new QuantityException(
          "a run reads one to %d channels, not %d".formatted(MOST_CHANNELS, channels.size()));
    }
    long different = channels.stream().map(RunChannel::channel).distinct().count();
    if (different < channels.size()) {
      throw new QuantityException("a run reads each channel once; one stands there twice");
    }
    if (procedure == null && kind == Kind.PROCEDURE) {
      throw new QuantityException("a run by procedure needs a procedure");
    }
    if (procedure != null && channels.getFirst().raw() != RawUnit.VOLTS) {
      throw new QuantityException("a procedure is read in volts");
    }
    if (procedure == null && setPoints.isEmpty())
      throw new QuantityException("a run needs set points");
    within("the repeats", repeats, 1, MOST_TARGETS);
    within("the readings of a point", average, 1, 1000);
    above("the time between readings", every);
    if (every > SettleRule.A_DAY) {
      throw new QuantityException(
          "the time between readings: read %s s, expected a day at most".formatted(every));
    }
    above("the time after which a point is given up", giveUp);
    above("the band about a set point", band);
    if (straight != null)
      above("what a straight line between pours may be off by", straight.number());
    for (RunChannel k : channels) enough(k, every);
    if (channels.stream().map(k -> k.meter().byHand()).distinct().count() > 1) {
      throw new QuantityException("the meters of a run are all read by eye, or none");
    }
    if ((long) repeats * setPoints.size() > MOST_TARGETS) {
      throw new QuantityException("a run has at most %d points".formatted(MOST_TARGETS));
    }
  }

  /**
   * By how much two references may be apart, in the unit of the plan: what both may be off by
   * themselves, or the band where that is not known of both.
   */
  public double mayBeApart() {
    boolean known = beside != null && beside.accuracy() != null && reference.accuracy() != null;
    return known ? accuracy(reference) + accuracy(beside) : band;
  }

  private double accuracy(Instrument i) {
    Unit own = i.unit().isEmpty() ? Unit.of(unit) : Unit.of(i.unit());
    return own.difference().convert(Math.abs(i.accuracy().number()), Unit.of(unit).difference());
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

  /**
   * Refuses instruments whose readings could not be taken for what they are to be; what a file says
   * is not chosen from a list.
   *
   * @throws QuantityException naming the instrument
   */
  public void requireUnits() {
    reads(reference, Unit.of(unit));
    requireCertified();
    for (RunChannel k : channels) {
      reads(k.meter(), k.raw().unit());
      stands(k);
    }
    if (supply != null) reads(supply, Unit.VOLT);
    if (beside != null) reads(beside, Unit.of(unit));
  }

  /**
   * Refuses set points of which the certificate of the reference says nothing.
   *
   * @throws QuantityException naming the reference, the set point and what is certified
   */
  public void requireCertified() {
    if (reference.corrections() == null) return;
    Unit own = Unit.of(reference.unit());
    for (Value v : setPoints) {
      double x = Unit.of(unit).convert(v.number(), own);
      if (reference.corrections().covers(x)) continue;
      List<Corrections.Row> rows = reference.corrections().rows();
      throw new QuantityException(
          "the certificate of %s is for %s … %s %s, and the set point %s %s lies beside it"
              .formatted(
                  reference.name(),
                  Numbers.plain(rows.getFirst().truth()),
                  Numbers.plain(rows.getLast().truth()),
                  own.symbol(),
                  v.typed(),
                  unit));
    }
  }

  /** Ohms and milliamperes are read where they are, volts and counts anywhere else. */
  private static void stands(RunChannel k) {
    Place place = k.meter().stands();
    Unit there = place.unit(Unit.VOLT);
    Unit wanted = k.raw() == RawUnit.COUNTS ? Unit.VOLT : k.raw().unit();
    if (there.dimension().equals(wanted.dimension())) return;
    throw new QuantityException(
        "%s is read in %s, and %s stands at: %s, which is read in %s"
            .formatted(k.tag(), k.raw().title(), k.meter().name(), place.title(), there.symbol()));
  }

  private static void reads(Instrument i, Unit wanted) {
    Unit own;
    try {
      own = Unit.of(i.unit());
    } catch (QuantityException e) {
      throw new QuantityException("%s: %s".formatted(i.name(), e.getMessage()));
    }
    if (!own.dimension().equals(wanted.dimension())) {
      throw new QuantityException(
          "%s reads in %s, expected a unit of %s"
              .formatted(i.name(), own.symbol(), wanted.symbol()));
    }
  }

  private static void above(String what, double v) {
    if (!(v > 0) || Double.isInfinite(v)) {
      throw new QuantityException("%s: read %s, expected more than 0".formatted(what, v));
    }
  }

  public RunPlan withKind(Kind v) {
    return with(p -> p.kind = v);
  }

  public RunPlan withUnit(String v) {
    return with(p -> p.unit = v);
  }

  public RunPlan withChannels(List<RunChannel> v) {
    return with(p -> p.channels = v);
  }

  public RunPlan withReference(Instrument v) {
    return with(p -> p.reference = v);
  }

  public RunPlan withSetPoints(List<Value> v) {
    return with(p -> p.setPoints = v);
  }

  public RunPlan withCourse(Course v) {
    return with(p -> p.course = v);
  }

  public RunPlan withRepeats(int v) {
    return with(p -> p.repeats = v);
  }

  public RunPlan withAverage(int v) {
    return with(p -> p.average = v);
  }

  public RunPlan withEvery(double v) {
    return with(p -> p.every = v);
  }

  public RunPlan withGiveUp(double v) {
    return with(p -> p.giveUp = v);
  }

  public RunPlan withBand(double v) {
    return with(p -> p.band = v);
  }

  public RunPlan withThen(Unsettled v) {
    return with(p -> p.then = v);
  }

  public RunPlan withPurpose(Purpose v) {
    return with(p -> p.purpose = v);
  }

  public RunPlan withConditions(Conditions v) {
    return with(p -> p.conditions = v);
  }

  public RunPlan withSupply(Instrument v) {
    return with(p -> p.supply = v);
  }

  public RunPlan withBeside(Instrument v) {
    return with(p -> p.beside = v);
  }

  /** Pours as planned for null. */
  public RunPlan withStraight(Value v) {
    return with(p -> p.straight = v);
  }

  /** The plan of a procedure instead of set points; null for set points. */
  public RunPlan withProcedure(Procedure v) {
    return with(
        p -> {
          p.procedure = v;
          p.kind = v == null ? Kind.POINTS : Kind.PROCEDURE;
        });
  }

  private RunPlan with(Consumer<Parts> change) {
    var parts = new Parts(this);
    change.accept(parts);
    return parts.plan();
  }

  /** The components while one of them is changed. */
  private static final class Parts {
    String title;
    Kind kind;
    String unit;
    List<RunChannel> channels;
    Instrument reference;
    List<Value> setPoints;
    Course course;
    int repeats;
    long seed;
    int average;
    double every;
    double giveUp;
    double band;
    Unsettled then;
    Purpose purpose;
    Conditions conditions;
    Procedure procedure;
    Instrument supply;
    Instrument beside;
    Value straight;

    Parts(RunPlan p) {
      title = p.title;
      kind = p.kind;
      unit = p.unit;
      channels = p.channels;
      reference = p.reference;
      setPoints = p.setPoints;
      course = p.course;
      repeats = p.repeats;
      seed = p.seed;
      average = p.average;
      every = p.every;
      giveUp = p.giveUp;
      band = p.band;
      then = p.then;
      purpose = p.purpose;
      conditions = p.conditions;
      procedure = p.procedure;
      supply = p.supply;
      beside = p.beside;
      straight = p.straight;
    }

    RunPlan plan() {
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
          purpose,
          conditions,
          procedure,
          supply,
          beside,
          straight);
    }
  }

  /** True where the readings are typed by who reads them. */
  public boolean typed() {
    return channels.getFirst().meter().byHand();
  }

  /** True for a plan of the same work: the same channels at the same set points in their order. */
  public boolean likeWork(RunPlan other) {
    return title.equals(other.title)
        && unit.equals(other.unit)
        && Objects.equals(procedure, other.procedure)
        && Objects.equals(straight, other.straight)
        && targets().equals(other.targets())
        && average == other.average
        && channels.stream()
            .map(RunChannel::channel)
            .toList()
            .equals(other.channels.stream().map(RunChannel::channel).toList());
  }

  /** The steps of the procedure as far as they are known after what was read; none without one. */
  public List<Step> steps(List<Taken> done) {
    return procedure == null ? List.of() : procedure.steps(done);
  }

  /** The set points in the order in which they are visited; for a procedure its first steps. */
  public List<Target> targets() {
    return procedure == null ? order() : targets(List.of());
  }

  /** What is gone to, as far as it is known after what was read. */
  List<Target> targets(List<Taken> done) {
    if (procedure == null) return order();
    return steps(done).stream().map(s -> new Target(s.at(), s.down())).toList();
  }

  private List<Target> order() {
    double[] up = setPoints.stream().mapToDouble(Value::number).sorted().distinct().toArray();
    var order = new ArrayList<Double>();
    for (int round = 0; round < repeats; round++) order.addAll(once(up, round));
    var targets = new ArrayList<Target>();
    double before = Double.NEGATIVE_INFINITY;
    for (double x : order) {
      // The first of a course downwards comes from above, too; one that is read again stays there.
      boolean again = !targets.isEmpty() && x == before;
      boolean down =
          again
              ? targets.getLast().down()
              : x < before || (targets.isEmpty() && course == Course.DOWN);
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
      case AS_GIVEN -> {
        list.clear();
        for (Value v : setPoints) list.add(v.number());
      }
    }
    return list;
  }

  private void shuffle(List<Double> list, int round) {
    RandomGenerator r = RandomGeneratorFactory.of("L64X128MixRandom").create(seed + round);
    for (int i = list.size() - 1; i > 0; i--) Collections.swap(list, i, r.nextInt(i + 1));
  }
}
