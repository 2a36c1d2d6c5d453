package nocking.bench.simulated;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import nocking.points.RawUnit;
import nocking.procedure.Deed;

/**
 * The physics of a scene. Time goes on only by {@link #advance}; what scatters comes from one
 * generator for each instrument, so that what is asked of one does not change another. Safe for
 * several threads.
 */
public final class BenchModel {
  private static final double STEP = 0.05;

  private static final class Probe {
    final TrueSensor sensor;
    final RandomGenerator noise;
    double depth;
    double follows;
    double carried;
    double frozen = Double.NaN;
    Fault fault = Fault.NONE;

    Probe(TrueSensor sensor, RandomGenerator noise, double start) {
      this.sensor = sensor;
      this.noise = noise;
      follows = start;
      carried = start;
    }
  }

  private final Scene scene;
  private final RandomGenerator referenceNoise;
  private final List<Probe> probes = new ArrayList<>();
  private double seconds;
  private double debt;
  private double target;
  private double shown;
  private double applied;
  private boolean brought;
  private Fault referenceFault = Fault.NONE;
  private double referenceFrozen = Double.NaN;
  private double lastReference;
  private boolean tight;
  private double clamped;
  private final Optional<Taught> taught;

  public BenchModel(Scene scene, long seed) {
    this.scene = scene;
    RandomGenerator seeds = RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
    referenceNoise = generator(seeds.nextLong());
    double rest = scene.stimulus().rest();
    target = rest;
    shown = rest;
    applied = rest;
    taught =
        scene
            .fixture()
            .filter(Fixture.TeachWire.class::isInstance)
            .map(f -> new Taught((Fixture.TeachWire) f));
    for (TrueSensor s : scene.sensors()) {
      probes.add(new Probe(s, generator(seeds.nextLong()), rest));
    }
    tighten(true);
  }

  private static RandomGenerator generator(long seed) {
    return RandomGeneratorFactory.of("L64X128MixRandom").create(seed);
  }

  public Scene scene() {
    return scene;
  }

  /** Lets time go by, in seconds. */
  public synchronized void advance(double dt) {
    debt += dt;
    while (debt >= STEP - 1e-9) {
      debt -= STEP;
      step();
    }
  }

  private void step() {
    Stimulus s = scene.stimulus();
    seconds += STEP;
    if (brought && !held()) {
      double move = (target - shown) * -Math.expm1(-STEP / s.lag());
      shown += Math.clamp(move, -s.rate() * STEP, s.rate() * STEP);
    }
    if (s.leak() > 0) shown += (s.rest() - shown) * STEP / s.leak();
    // Play: what is moved follows only at the ends of it.
    applied = Math.clamp(applied, shown - s.backlash() / 2, shown + s.backlash() / 2);
    for (Probe p : probes) {
      double here = applied + s.gradient() * p.depth + wave(p);
      p.follows += (here - p.follows) * -Math.expm1(-STEP / p.sensor.lag());
      double h = p.sensor.hysteresis();
      p.carried = Math.clamp(p.carried, p.follows - h, p.follows + h);
    }
    taught.ifPresent(t -> t.step(STEP, probes.getFirst().carried));
  }

  private double wave(Probe p) {
    Stimulus s = scene.stimulus();
    double phase = probes.indexOf(p);
    return s.wave() * Math.sin(2 * Math.PI * seconds / s.period() + phase);
  }

  /** Seconds that have gone by. */
  public synchronized double seconds() {
    return seconds + debt;
  }

  /** Brings what is applied to a set point; it stops at its ends. */
  public synchronized void bringTo(double setPoint) {
    target = Math.clamp(setPoint, scene.stimulus().low(), scene.stimulus().high());
    brought = true;
  }

  /** Makes it so at once, as hands do that pour or lay on a mass; it stops at its ends. */
  public synchronized void put(double quantity) {
    bringTo(quantity);
    if (!held()) shown = target;
  }

  /** True while a clamp holds what would be moved. */
  private boolean held() {
    return tight && scene.fixture().filter(Fixture.Clamp.class::isInstance).isPresent();
  }

  /** Tightens or loosens the clamp, where there is one; each tightening shifts anew. */
  public synchronized void tighten(boolean yes) {
    if (yes == tight || !(scene.fixture().orElse(null) instanceof Fixture.Clamp c)) return;
    tight = yes;
    clamped = yes ? c.shift() + c.scatter() * referenceNoise.nextGaussian() : 0;
  }

  /** Holds the teach wire to ground or takes it off, where there is one. */
  public synchronized void ground(boolean yes) {
    taught.ifPresent(t -> t.ground(yes));
  }

  /** Does what the hands do in a step of a procedure. */
  public void doIt(Deed deed) {
    switch (deed) {
      case NONE -> {}
      case LOOSEN -> tighten(false);
      case TIGHTEN -> tighten(true);
      case GROUND -> ground(true);
      case RELEASE -> ground(false);
    }
  }

  /** Where it is being brought to. */
  public synchronized double target() {
    return target;
  }

  /** What is really applied, without any noise. */
  public synchronized double applied() {
    return applied;
  }

  /** How it stands, without any noise; to look at it changes nothing. */
  public synchronized BenchState state() {
    List<BenchState.AtSensor> sensors =
        probes.stream()
            .map(p -> new BenchState.AtSensor(p.sensor.tag(), p.carried, p.depth, p.fault))
            .toList();
    boolean grounded = taught.map(Taught::grounded).orElse(false);
    return new BenchState(seconds(), target, shown, applied, sensors, tight, grounded);
  }

  /** What a sensor would give at the quantity, without noise, lag and play. */
  public double truth(int sensor, double quantity) {
    return scene.sensors().get(sensor).volts().applyAsDouble(quantity);
  }

  /** What the reference reads. */
  public synchronized double reference() {
    Stimulus s = scene.stimulus();
    double v = shown + s.scatter() * referenceNoise.nextGaussian();
    v = Math.rint(v / s.resolution()) * s.resolution();
    if (referenceFault == Fault.FROZEN) {
      if (Double.isNaN(referenceFrozen)) referenceFrozen = lastReference;
      v = referenceFrozen;
    }
    lastReference = v;
    return v;
  }

  /** Volts that the meter of a sensor reads. */
  public synchronized double volts(int sensor) {
    Probe p = probes.get(sensor);
    TrueSensor s = p.sensor;
    double noise = s.scatter() * p.noise.nextGaussian();
    double bare = taught.map(t -> t.volts(p.carried)).orElse(s.volts().applyAsDouble(p.carried));
    double v = bare + clamped + s.drift() * seconds / 3600;
    v = Math.clamp(v, 0, s.most()) + noise;
    v =
        switch (p.fault) {
          case PULLED_WIRE -> 0.002 + noise;
          case FLAT_BATTERY -> 0.8 * v;
          case SPIKE -> {
            p.fault = Fault.NONE;
            yield v + 0.5 * s.most();
          }
          case FROZEN -> Double.isNaN(p.frozen) ? v : p.frozen;
          default -> v;
        };
    p.frozen = v;
    return v;
  }

  /**
   * Ohms or amperes that a meter reads of a sensor by itself, unplugged or in its loop; infinite
   * for ohms of an open wire.
   *
   * @throws IllegalArgumentException for a sensor that gives a voltage
   */
  public synchronized double own(int sensor) {
    Probe p = probes.get(sensor);
    TrueSensor.Own own =
        p.sensor
            .own()
            .orElseThrow(() -> new IllegalArgumentException(p.sensor.tag() + " gives a voltage"));
    boolean ohms = own.unit() == RawUnit.OHMS;
    if (p.fault == Fault.PULLED_WIRE) return ohms ? Double.POSITIVE_INFINITY : 0;
    // A meter has a battery of its own for ohms.
    Fault now = p.fault;
    if (ohms && now == Fault.FLAT_BATTERY) p.fault = Fault.NONE;
    double volts = volts(sensor);
    if (now == Fault.FLAT_BATTERY) p.fault = now;
    return own.ofVolts().applyAsDouble(volts);
  }

  /** Puts a sensor deeper than the reference, in millimetres. */
  public synchronized void depth(int sensor, double millimetres) {
    probes.get(sensor).depth = millimetres;
  }

  /**
   * What goes wrong from now on.
   *
   * @param instrument 0 the reference, 1 … the meters
   */
  public synchronized void fault(int instrument, Fault fault) {
    if (instrument == 0) {
      referenceFault = fault;
      referenceFrozen = Double.NaN;
    } else {
      probes.get(instrument - 1).fault = fault;
    }
  }

  /** What is wrong with an instrument. */
  public synchronized Fault fault(int instrument) {
    return instrument == 0 ? referenceFault : probes.get(instrument - 1).fault;
  }
}
