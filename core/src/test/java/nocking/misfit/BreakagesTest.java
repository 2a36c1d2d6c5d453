package nocking.misfit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import java.util.function.UnaryOperator;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.converter.Converter;
import nocking.element.Element;
import nocking.element.Signal;
import nocking.finding.Finding;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.Value;
import nocking.sensor.CurrentLoop;
import nocking.sensor.NtcBeta;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.Sensor;
import nocking.sensor.StrainBridge;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.stage.InstrumentationAmp;
import nocking.stage.PullUp;
import nocking.stage.Shunt;
import nocking.stage.Stage;
import org.junit.jupiter.api.Test;

/**
 * Sound channels broken in one place: the break is named, alone or beside what reads the same, no
 * other slip or unit is offered, and no fix changes what was sound. Their points come from formulas
 * written down here.
 */
class BreakagesTest {
  private static final double ROOM = 273.15;

  /** A sound channel with what its bench really gives. */
  private record Bench(String name, Channel channel, DoubleUnaryOperator volts) {
    double[] inputs() {
      double low = channel.definition().low().number();
      double high = channel.definition().high().number();
      double[] x = new double[6];
      for (int i = 0; i < 6; i++) x[i] = Math.rint((low + (high - low) * i / 5) * 1e6) / 1e6;
      return x;
    }
  }

  private static Value v(double x) {
    return Value.of(x);
  }

  private static final Bench BLOWER =
      new Bench("blower", Channels.blower(), x -> 5 * (8 + 0.84 * x) / 100 * 10e3 / 15.1e3);

  private static final Bench INCUBATOR =
      new Bench("incubator", Channels.incubator(), x -> 1.65 + 13.5 * (0.35 + 0.02 * x - 0.53));

  private static final Bench BETA =
      new Bench(
          "thermistor",
          Channels.incubator()
              .define(d -> d.withRange(v(0), v(40)).withTolerance(v(0.4)))
              .design(
                  d ->
                      d.withSensor(new NtcBeta(v(10e3), v(25), v(3950), v(-40), v(125), null))
                          .withStages(List.of(new PullUp(v(3.3), v(10e3))))),
          x -> {
            double r = 10e3 * Math.exp(3950 * (1 / (x + ROOM) - 1 / (25 + ROOM)));
            return 3.3 * r / (r + 10e3);
          });

  private static final Bench TABLE =
      new Bench(
          "table",
          Channels.incubator()
              .define(d -> d.withRange(v(0), v(25)).withTolerance(v(0.4)))
              .design(
                  d ->
                      d.withSensor(
                              new TableSensor(
                                  List.of(
                                      TablePoint.of(0, 32650),
                                      TablePoint.of(5, 25390),
                                      TablePoint.of(10, 19900),
                                      TablePoint.of(15, 15710),
                                      TablePoint.of(20, 12490),
                                      TablePoint.of(25, 10000)),
                                  TableSensor.Interpolation.LINEAR,
                                  Signal.RESISTANCE,
                                  v(0)))
                          .withStages(List.of(new PullUp(v(3.3), v(18e3))))),
          x -> {
            double[] r = {32650, 25390, 19900, 15710, 12490, 10000};
            int i = Math.min(4, (int) (x / 5));
            double ohms = r[i] + (r[i + 1] - r[i]) * (x - 5 * i) / 5;
            return 3.3 * ohms / (ohms + 18e3);
          });

  private static final Bench TANK =
      new Bench(
          "tank",
          Channels.blower()
              .define(
                  d ->
                      d.withKind(QuantityKind.LEVEL)
                          .withUnit("m")
                          .withRange(v(0), v(4))
                          .withTolerance(v(0.02)))
              .design(
                  d ->
                      d.withSensor(new CurrentLoop(v(0), v(4), v(0.004), v(0.02)))
                          .withStages(List.of(new Shunt(v(150), v(24), v(10), null)))
                          .withConverter(Converter.of(12, 3.3))),
          x -> 150 * (0.004 + 0.004 * x));

  private static final Bench HOPPER =
      new Bench(
          "hopper",
          Channels.blower()
              .define(
                  d ->
                      d.withKind(QuantityKind.WEIGHT)
                          .withUnit("kg")
                          .withRange(v(0), v(60))
                          .withTolerance(v(0.3)))
              .design(
                  d ->
                      d.withSensor(new StrainBridge(v(60), v(2), v(0), v(5), v(350)))
                          .withStages(
                              List.of(
                                  new InstrumentationAmp(
                                      v(1), v(50e3), v(127), v(0), v(0.25), v(0.05), v(4.95))))
                          .withConverter(Converter.of(16, 5))),
          x -> 0.25 + (1 + 50e3 / 127) * 5 * 0.002 * x / 60);

  private static final List<Bench> BENCHES = List.of(BLOWER, INCUBATOR, BETA, TABLE, TANK, HOPPER);

  /**
   * One break.
   *
   * @param says what a finding must say of it, one of these
   */
  private record Case(String name, Channel broken, Channel sound, List<String> says) {}

  private final Random random = new Random(20261126);
  private final List<Case> cases = new ArrayList<>();

  private static PointSet points(Bench b, Random random, DoubleUnaryOperator volts) {
    var list = new ArrayList<ReferencePoint>();
    for (double x : b.inputs()) {
      double slope = (b.volts.applyAsDouble(x + 0.01) - b.volts.applyAsDouble(x - 0.01)) / 0.02;
      double noise = 0.15 * b.channel.definition().tolerance().number() * slope;
      double reading = volts.applyAsDouble(x) + noise * random.nextGaussian();
      list.add(ReferencePoint.of(v(x), v(Double.parseDouble(Numbers.significant(reading, 6)))));
    }
    return new PointSet(RawUnit.VOLTS, list);
  }

  private Channel sound(Bench b) {
    return b.channel.calibration(k -> k.withPoints(points(b, random, b.volts)));
  }

  private void add(String name, Channel broken, Channel sound, String... says) {
    cases.add(new Case(name, broken, sound, List.of(says)));
  }

  private static Channel reading(Channel c, int i, double factor) {
    ReferencePoint p = c.calibration().points().points().get(i);
    return c.calibration(
        k ->
            k.withPoints(
                c.calibration().points().with(i, p.withReadings(List.of(v(p.mean() * factor))))));
  }

  private static Channel applied(Channel c, DoubleUnaryOperator change) {
    PointSet set = c.calibration().points();
    for (int i = 0; i < set.points().size(); i++) {
      ReferencePoint p = set.points().get(i);
      set = set.with(i, p.withApplied(v(change.applyAsDouble(p.applied().number()))));
    }
    return c.with(c.calibration().withPoints(set));
  }

  private static Channel ordered(Channel c, int... from) {
    PointSet set = c.calibration().points();
    for (int i = 0; i < from.length; i++) {
      ReferencePoint p = set.points().get(i);
      set = set.with(i, p.withReadings(c.calibration().points().points().get(from[i]).readings()));
    }
    return c.with(c.calibration().withPoints(set));
  }

  private static Channel stage(Channel c, String symbol, double value) {
    Stage s = c.design().stages().getFirst();
    return c.design(d -> d.withStage(0, Element.with(s, s.field(symbol), v(value))));
  }

  private static Channel sensor(Channel c, UnaryOperator<Sensor> change) {
    return c.design(d -> d.withSensor(change.apply(c.design().sensor())));
  }

  private static Channel part(Channel c, String symbol, double value) {
    return sensor(c, s -> Element.with(s, s.field(symbol), v(value)));
  }

  private void breakThem() {
    for (Bench b : BENCHES) {
      Channel s = sound(b);
      for (double factor : new double[] {10, 0.1, 1000}) {
        int i = 1 + random.nextInt(4);
        add(
            b.name + " reading " + (i + 1) + " times " + factor,
            reading(s, i, factor),
            s,
            "Point " + (i + 1) + " looks like a");
      }
      add(
          b.name + " in opposite order",
          ordered(s, 5, 4, 3, 2, 1, 0),
          s,
          "opposite order",
          "runs the other way");
      add(
          b.name + " two exchanged",
          ordered(s, 0, 3, 2, 1, 4, 5),
          s,
          "each other's place",
          "exchanged");
      double span = b.volts.applyAsDouble(b.inputs()[5]) - b.volts.applyAsDouble(b.inputs()[0]);
      double step = 0.06 * Math.abs(span);
      add(
          b.name + " with an offset",
          b.channel.calibration(
              k -> k.withPoints(points(b, random, x -> b.volts.applyAsDouble(x) + step))),
          s,
          "at every point",
          "everywhere");
    }
    Channel blower = sound(BLOWER);
    add("psi for kPa", applied(blower, x -> x / 6.894757), blower, "look like psi");
    add("bar for kPa", applied(blower, x -> x / 100), blower, "look like bar");
    add(
        "divider upside down",
        stage(stage(blower, "R1", 10e3), "R2", 5100),
        blower,
        "R1 and R2 of the divider exchanged");
    add("3.3 V for 5 V", part(blower, "Vsup", 3.3), blower, "5 V instead of 3.3 V");
    add("another R1", stage(blower, "R1", 8200), blower, "R1 of the divider 5.1 kΩ", "gain");
    add("R2 of another decade", stage(blower, "R2", 1000), blower, "R2 of the divider 10 kΩ");
    add(
        "sensor in psi",
        blower.design(
            d ->
                d.withSensor(
                    new RatiometricSensor(v(0), v(8), v(100 / 6.894757), v(92), v(5), v(0)))),
        blower,
        "the sensor's numbers in psi",
        "xb of the ratiometric");
    add(
        "absolute for gauge",
        applied(
            blower.design(
                d -> d.withSensor(new RatiometricSensor(v(0), v(8), v(100), v(92), v(5), v(0)))),
            x -> x + 101.3),
        blower,
        "Gauge or absolute");
    double loaded = 10e3 * 47e3 / 57e3;
    add(
        "a load that is not in the design",
        BLOWER.channel.calibration(
            k ->
                k.withPoints(
                    points(
                        BLOWER, random, x -> 5 * (8 + 0.84 * x) / 100 * loaded / (loaded + 5100)))),
        blower,
        "a load of",
        "gain");
    for (double g : new double[] {1.06, 0.8}) {
      add(
          "gain " + g,
          BLOWER.channel.calibration(
              k -> k.withPoints(points(BLOWER, random, x -> g * BLOWER.volts.applyAsDouble(x)))),
          blower,
          "gain");
    }
    add(
        "mirrored",
        BLOWER.channel.calibration(
            k -> k.withPoints(points(BLOWER, random, x -> BLOWER.volts.applyAsDouble(60 - x)))),
        blower,
        "runs the other way",
        "opposite order");
    Channel incubator = sound(INCUBATOR);
    add("°F for °C", applied(incubator, x -> x * 1.8 + 32), incubator, "look like °F");
    add(
        "gain resistor",
        stage(incubator, "Rf", 100e3),
        incubator,
        "Rf of the difference amp",
        "Rg of the difference amp",
        "points contradict");
    add(
        "offset of the amplifier",
        stage(incubator, "Vc", 0.6),
        incubator,
        "Vc of the difference",
        "at every point");
    Channel beta = sound(BETA);
    add("beta of another part", part(beta, "beta", 3435), beta, "beta of the");
    add("pull-up of another decade", stage(beta, "Rp", 1e3), beta, "Rp of the pull-up 10 kΩ");
    add("R25 of another part", part(beta, "R0", 5e3), beta, "R0 of the");
    Channel tank = sound(TANK);
    add("cm for m", applied(tank, x -> 100 * x), tank, "look like cm");
    add("mm for m", applied(tank, x -> 1000 * x), tank, "look like mm");
    add(
        "0…20 for 4…20",
        tank.design(d -> d.withSensor(new CurrentLoop(v(0), v(4), v(0), v(0.02)))),
        tank,
        "a loop of 4…20 mA",
        "Ia");
    add("burden", stage(tank, "Rb", 100), tank, "Rb of the", "gain");
    Channel hopper = sound(HOPPER);
    add("3 mV/V for 2", part(hopper, "S", 3), hopper, "S of the", "2 mV/V");
    add("lb for kg", applied(hopper, x -> x / 0.45359237), hopper, "look like lb");
    add("excitation", part(hopper, "Vexc", 10), hopper, "Vexc of the");
    counts();
  }

  /** Readings in counts of another converter, and counts that were taken for volts. */
  private void counts() {
    var ten = new ArrayList<ReferencePoint>();
    var twelve = new ArrayList<ReferencePoint>();
    for (double x : BLOWER.inputs()) {
      double volts = BLOWER.volts.applyAsDouble(x);
      ten.add(ReferencePoint.of(v(x), v(Math.floor(volts / 3.3 * 1024))));
      twelve.add(ReferencePoint.of(v(x), v(Math.floor(volts / 3.3 * 4096))));
    }
    Channel sound =
        BLOWER.channel.calibration(k -> k.withPoints(new PointSet(RawUnit.COUNTS, twelve)));
    add(
        "10-bit codes",
        BLOWER.channel.calibration(k -> k.withPoints(new PointSet(RawUnit.COUNTS, ten))),
        sound,
        "counts of a 10-bit converter");
    add(
        "counts as volts",
        BLOWER.channel.calibration(k -> k.withPoints(new PointSet(RawUnit.VOLTS, twelve))),
        sound,
        "counts written down as volts");
    add(
        "5 V reference",
        sound.design(d -> d.withConverter(Converter.of(12, 5))),
        sound,
        "reference of 3.3");
  }

  private static List<Finding> findings(Channel c) {
    return Analysis.of(c).findings().stream().filter(f -> ABOUT_POINTS.contains(f.rule())).toList();
  }

  private static final List<String> ABOUT_POINTS =
      List.of(
          "point-slip",
          "unit-slip",
          "gauge-absolute",
          "points-order",
          "mirrored",
          "raw-unit",
          "sensor-unit",
          "wrong-constant",
          "constant-offset",
          "gain-error",
          "points-contradict");

  @Test
  void soundTwinsAreSilent() {
    for (int round = 0; round < 10; round++) {
      for (Bench b : BENCHES) assertThat(findings(sound(b))).as(b.name).isEmpty();
    }
  }

  @Test
  void breakagesAreNamedAndNothingSoundIsMended() {
    breakThem();
    var unnamed = new ArrayList<String>();
    var harmed = new ArrayList<String>();
    for (Case c : cases) {
      List<Finding> found = findings(c.broken);
      String text = String.join(" | ", found.stream().map(Finding::text).toList());
      if (c.says.stream().noneMatch(text::contains)) unnamed.add(c.name + " -> " + text);
      for (Finding f : found) {
        f.fix()
            .ifPresent(
                fix -> {
                  Channel mended = fix.apply().apply(c.broken);
                  if (!agrees(mended, c.sound) || !findings(mended).isEmpty()) {
                    harmed.add(c.name + " -> " + f.headline() + " / " + fix.label());
                  }
                });
      }
    }
    System.out.printf("Breakages: %d, named %d%n", cases.size(), cases.size() - unnamed.size());
    unnamed.forEach(u -> System.out.println("  not named: " + u));
    harmed.forEach(u -> System.out.println("  harmed: " + u));
    assertThat(cases).hasSizeGreaterThanOrEqualTo(60);
    assertThat(harmed).isEmpty();
    assertThat(unnamed.size()).isLessThanOrEqualTo(cases.size() / 20);
  }

  /** True when design and points of a mended channel are those of the sound one. */
  private static boolean agrees(Channel mended, Channel sound) {
    Analysis a = Analysis.of(mended);
    Analysis b = Analysis.of(sound);
    double tolerance = sound.definition().tolerance().number();
    for (int i = 0; i < sound.calibration().points().points().size(); i++) {
      ReferencePoint p = mended.calibration().points().points().get(i);
      ReferencePoint q = sound.calibration().points().points().get(i);
      double x = q.applied().number();
      double slope = Math.abs(b.design().path().orElseThrow().at(x).sensitivity());
      boolean same =
          Math.abs(p.applied().number() - x) <= tolerance
              && Math.abs(a.calibration().volts(p) - b.calibration().volts(q)) <= slope * tolerance
              && Math.abs(
                      a.design().path().orElseThrow().at(x).output()
                          - b.design().path().orElseThrow().at(x).output())
                  <= 2 * slope * tolerance;
      if (!same) return false;
    }
    return true;
  }
}
