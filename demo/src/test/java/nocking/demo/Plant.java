package nocking.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.function.DoubleUnaryOperator;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.converter.Converter;
import nocking.diagnosis.MeasuredValue;
import nocking.element.Signal;
import nocking.prior.FaultKind;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.CurrentLoop;
import nocking.sensor.Potentiometer;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.sensor.TwoPointSensor;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import nocking.stage.InputPull;
import nocking.stage.NonInvertingAmp;
import nocking.stage.PullUp;
import nocking.stage.SeriesResistor;
import nocking.stage.Shunt;
import nocking.wiring.Meter;
import nocking.wiring.PairReading;
import nocking.wiring.Pin;
import nocking.wiring.Place;
import nocking.wiring.WirePlan;

/**
 * A channel on a bench of its own, written down a second time: its netlist part by part, its own
 * supply current and supply, its own noise, a display that looks up what the sound circuit gave.
 * Nothing of it comes from the models that the engine weighs.
 */
final class Plant {
  private static final double METER = 10e6;
  private static final Meter METERED = Meter.HAND_HELD;

  /** What can be broken, each by its own hand. */
  enum Break {
    NONE,
    SUPPLY_DEAD,
    SUPPLY_OPEN,
    GROUND_OPEN,
    SIGNAL_OPEN,
    SIGNAL_TO_SUPPLY,
    SIGNAL_TO_GROUND,
    SUPPLY_LOW,
    SUPPLY_HIGH,
    GROUND_OFFSET,
    SIGNAL_LEAD,
    LEAK_TO_GROUND,
    LEAK_TO_SUPPLY,
    PART_OPEN,
    PART_SHORT,
    PART_DRIFT,
    PART_DECADE,
    SENSOR_DRIFT,
    SENSOR_OFFSET,
    MIRRORED,
    DECIMAL,
    REVERSED;

    FaultKind kind() {
      return FaultKind.valueOf(name());
    }
  }

  /** One thing that is broken, where, and how badly. */
  record Broken(Break what, String part, double degree) {}

  private enum Family {
    RATIO_DIVIDER,
    AMPLIFIED,
    DIFFERENCE,
    THERMISTOR,
    SLIDER,
    LOOP
  }

  private final Family family;
  private final Random random;
  private final double low;
  private final double high;
  private final double tolerance;
  private final double supply;
  private final double reference;
  private final int bits;
  private final double[] r = new double[4];
  private final double draws;
  private final double source;
  private final double a;
  private final double b;
  private final Channel channel;
  private final double[] soundVolts;
  private final double[] soundInputs;

  // The bench of the day.
  private final double gain;
  private final double rail;
  private final double leak;
  private final Map<Double, Double> departures = new TreeMap<>();
  private List<Broken> broken = List.of();
  private DoubleUnaryOperator misreading = x -> x;
  private boolean loose;

  Plant(long seed) {
    random = new Random(seed);
    family = Family.values()[random.nextInt(Family.values().length)];
    low = family == Family.THERMISTOR ? between(-5, 5) : 0;
    high = low + (family == Family.THERMISTOR ? between(25, 45) : between(20, 400));
    tolerance = (high - low) * between(0.005, 0.02);
    reference = random.nextBoolean() ? 3.3 : 5;
    supply = family == Family.LOOP ? 24 : family == Family.THERMISTOR ? reference : 5;
    bits = random.nextBoolean() ? 12 : 10;
    draws = Math.exp(between(Math.log(2e-3), Math.log(15e-3)));
    source = random.nextBoolean() ? 0 : Math.rint(between(20, 400));
    switch (family) {
      case RATIO_DIVIDER -> {
        a = between(0.05, 0.12);
        b = between(0.8, 0.93);
        r[1] = round(between(8e3, 30e3));
        r[0] = round(Math.max(500, r[1] * (5 * b * 1.06 / reference - 1)) + 500);
      }
      case AMPLIFIED -> {
        a = between(0.02, 0.05);
        b = a + between(0.1, 0.3);
        r[0] = round(between(200e3, 900e3));
        r[2] = round(between(1e3, 4e3));
        r[1] = round(r[2] * (0.85 * reference / b - 1));
      }
      case DIFFERENCE -> {
        a = between(0.3, 0.6);
        b = a + between(0.2, 0.5);
        r[1] = round(between(8e3, 15e3));
        r[0] = round(r[1] * 0.7 * reference / (b - a));
      }
      case THERMISTOR -> {
        a = between(3300, 4100);
        b = round(between(4e3, 15e3));
        r[0] = round(between(0.9, 1.6) * b);
      }
      case SLIDER -> {
        a = between(0.05, 0.12);
        b = between(0.85, 0.94);
        r[0] = round(between(500, 2e3));
        r[1] = round(between(200e3, 600e3));
        r[2] = round(between(2e3, 8e3));
      }
      default -> {
        a = 0.004;
        b = 0.02;
        r[0] = round(between(0.7, 0.92) * reference / 0.0215);
      }
    }
    channel = describe();
    gain = 1 + 0.5e-2 / 3 * random.nextGaussian();
    rail = 1 + between(-0.02, 0.02);
    leak = random.nextDouble() * Math.max(supply > 20 ? reference : supply, reference);
    int n = 400;
    soundVolts = new double[n + 1];
    soundInputs = new double[n + 1];
    for (int i = 0; i <= n; i++) {
      soundInputs[i] = low + (high - low) * i / n;
      soundVolts[i] = solve(soundInputs[i], List.of(), 1, "").get(lastNode());
    }
  }

  private double between(double from, double to) {
    return from + (to - from) * random.nextDouble();
  }

  private static double round(double v) {
    double unit = Math.pow(10, Math.floor(Math.log10(v)) - 2);
    return Math.rint(v / unit) * unit;
  }

  private static Value v(double number) {
    return Value.of(number);
  }

  Channel channel() {
    return channel;
  }

  double tolerance() {
    return tolerance;
  }

  /** The document as a technician would type it from the drawing. */
  private Channel describe() {
    var c =
        Channel.blank("own", "OW-N1")
            .define(
                d ->
                    d.withKind(QuantityKind.OTHER)
                        .withUnit("")
                        .withRange(v(low), v(high))
                        .withTolerance(v(tolerance)))
            .design(d -> d.withConverter(Converter.of(bits, reference)));
    Value own = v(supply);
    var three =
        List.of(
            Pin.of(Pin.Function.SUPPLY, "", ""),
            Pin.of(Pin.Function.GROUND, "", ""),
            Pin.of(Pin.Function.SIGNAL, "", ""));
    return switch (family) {
      case RATIO_DIVIDER ->
          c.design(
              d ->
                  d.withSensor(
                          new RatiometricSensor(
                              v(low), v(100 * a), v(high), v(100 * b), v(supply), v(source)))
                      .withStages(List.of(new Divider(v(r[0]), v(r[1])))));
      case AMPLIFIED ->
          c.design(
                  d ->
                      d.withSensor(new TwoPointSensor(v(low), v(a), v(high), v(b), v(source)))
                          .withStages(
                              List.of(
                                  InputPull.toGround(v(r[0])),
                                  new NonInvertingAmp(v(r[1]), v(r[2]), v(0), v(0), v(reference)))))
              .wiring(w -> w.withPlan(WirePlan.of(own, three)));
      case DIFFERENCE ->
          c.design(
                  d ->
                      d.withSensor(new TwoPointSensor(v(low), v(a), v(high), v(b), v(source)))
                          .withStages(
                              List.of(
                                  new DifferenceAmp(
                                      v(r[0]),
                                      v(r[1]),
                                      v((a + b) / 2),
                                      v(reference / 2),
                                      v(0),
                                      v(reference)))))
              .wiring(w -> w.withPlan(WirePlan.of(own, three)));
      case THERMISTOR -> {
        var rows = new ArrayList<TablePoint>();
        for (int i = 0; i <= 24; i++) {
          double x = low - 4 + (high - low + 8) * i / 24;
          rows.add(TablePoint.of(x, thermistor(x)));
        }
        yield c.design(
                d ->
                    d.withSensor(
                            new TableSensor(
                                rows,
                                TableSensor.Interpolation.MONOTONE_CUBIC,
                                Signal.RESISTANCE,
                                v(0)))
                        .withStages(List.of(new PullUp(v(supply), v(r[0])))))
            .wiring(w -> w.withPlan(WirePlan.DEFAULT.withSharedReference(true)));
      }
      case SLIDER ->
          c.design(
                  d ->
                      d.withSensor(
                              new Potentiometer(
                                  v(low), v(high), v(a), v(b), v(supply), v(r[2]), v(0)))
                          .withStages(
                              List.of(new SeriesResistor(v(r[0])), InputPull.toGround(v(r[1]))))
                          .withConverter(Converter.of(bits, 5)))
              .wiring(w -> w.withPlan(WirePlan.DEFAULT.withSharedReference(true)));
      case LOOP ->
          c.design(
              d ->
                  d.withSensor(new CurrentLoop(v(low), v(high), v(0.004), v(0.02)))
                      .withStages(List.of(new Shunt(v(r[0]), v(24), v(9), v(10)))));
    };
  }

  private double thermistor(double celsius) {
    return b * Math.exp(a * (1 / (celsius + 273.15) - 1 / 298.15));
  }

  private double referenceVolts() {
    return family == Family.SLIDER ? 5 : reference;
  }

  private boolean shared() {
    return family == Family.SLIDER || family == Family.THERMISTOR;
  }

  private String lastNode() {
    return switch (family) {
      case RATIO_DIVIDER, DIFFERENCE, THERMISTOR, LOOP -> "TP2";
      case AMPLIFIED, SLIDER -> "TP3";
    };
  }

  /** Names of the resistors that can break, as the schematic has them. */
  List<String> parts() {
    return switch (family) {
      case RATIO_DIVIDER -> List.of("1 R1", "1 R2");
      case AMPLIFIED -> List.of("2 Rf", "2 Rg");
      case DIFFERENCE -> List.of("1 Rf at +", "1 Rg at +", "1 Rf at −", "1 Rg at −");
      case THERMISTOR -> List.of("1 Rp");
      case SLIDER -> List.of("1 Rx");
      case LOOP -> List.of("1 Rb");
    };
  }

  /** What can break here by itself. */
  List<Break> breaks() {
    var list = new ArrayList<>(List.of(Break.values()));
    list.remove(Break.NONE);
    switch (family) {
      case THERMISTOR -> {
        list.remove(Break.SENSOR_DRIFT);
        list.remove(Break.SENSOR_OFFSET);
        list.remove(Break.GROUND_OFFSET);
        list.remove(Break.SUPPLY_OPEN);
      }
      case SLIDER -> {
        list.remove(Break.SENSOR_DRIFT);
        list.remove(Break.SENSOR_OFFSET);
      }
      case LOOP -> {
        list.remove(Break.GROUND_OPEN);
        list.remove(Break.GROUND_OFFSET);
        list.remove(Break.SIGNAL_TO_SUPPLY);
        list.remove(Break.LEAK_TO_SUPPLY);
        list.remove(Break.LEAK_TO_GROUND);
        list.remove(Break.SIGNAL_TO_GROUND);
      }
      default -> {}
    }
    return list;
  }

  /** One thing broken at random. */
  Broken any() {
    List<Break> all = breaks();
    Break what = all.get(random.nextInt(all.size()));
    List<String> parts = parts();
    String part = parts.get(random.nextInt(parts.size()));
    boolean ofPart = what.name().startsWith("PART_");
    double u = random.nextDouble();
    double degree =
        switch (what) {
          case SUPPLY_LOW -> 0.5 + 0.38 * u;
          case SUPPLY_HIGH -> 1.12 + 0.5 * u;
          case GROUND_OFFSET -> (random.nextBoolean() ? 1 : -1) * (0.03 + 0.3 * u);
          case SIGNAL_LEAD -> Math.exp(Math.log(50) + u * Math.log(4000));
          case LEAK_TO_GROUND, LEAK_TO_SUPPLY -> Math.exp(Math.log(2e3) + u * Math.log(500));
          case PART_DRIFT -> random.nextBoolean() ? 0.5 + 0.4 * u : 1.1 + 1.5 * u;
          case PART_DECADE -> random.nextBoolean() ? 10 : 0.1;
          case SENSOR_DRIFT -> random.nextBoolean() ? 0.7 + 0.2 * u : 1.1 + 0.3 * u;
          case SENSOR_OFFSET -> (random.nextBoolean() ? 1 : -1) * (0.05 + 0.2 * u);
          case DECIMAL -> new double[] {10, 0.1, 100, 0.01}[random.nextInt(4)];
          default -> Double.NaN;
        };
    return new Broken(what, ofPart ? part : "", degree);
  }

  void breakDown(List<Broken> all) {
    broken = all;
  }

  /** What the technician believes to be applied is really something else. */
  void misread(DoubleUnaryOperator truth) {
    misreading = truth;
  }

  /** The signal wire makes contact at every other look. */
  void loosen() {
    loose = true;
  }

  Random random() {
    return random;
  }

  private static boolean is(List<Broken> all, Break what) {
    return all.stream().anyMatch(f -> f.what == what);
  }

  private static double degree(List<Broken> all, Break what, double none) {
    for (Broken f : all) if (f.what == what) return f.degree;
    return none;
  }

  private static double part(List<Broken> all, String name, double ohms) {
    double r = ohms;
    for (Broken f : all) {
      if (!f.part.equals(name)) continue;
      r =
          switch (f.what) {
            case PART_OPEN -> Double.POSITIVE_INFINITY;
            case PART_SHORT -> 0.1;
            case PART_DRIFT, PART_DECADE -> r * f.degree;
            default -> r;
          };
    }
    return r;
  }

  /** Node voltages for a true input; {@code probed} is where a meter of 10 MΩ hangs. */
  private Map<String, Double> solve(double x, List<Broken> all, double fed, String probed) {
    var n = new Netlist();
    double volts = supply * fed;
    volts *= degree(all, Break.SUPPLY_LOW, 1) * degree(all, Break.SUPPLY_HIGH, 1);
    if (is(all, Break.SUPPLY_DEAD)) volts = 0;
    double at = is(all, Break.MIRRORED) ? low + high - x : x;
    double t = (at - low) / (high - low);
    double given =
        family == Family.THERMISTOR
            ? thermistor(at)
            : (a + (b - a) * t) * degree(all, Break.SENSOR_DRIFT, 1)
                + degree(all, Break.SENSOR_OFFSET, 0) * (b - a);
    String signal = family == Family.THERMISTOR || family == Family.LOOP ? "TP2" : "TP1";
    boolean twoWire = family == Family.THERMISTOR;
    if (!(twoWire && is(all, Break.SUPPLY_OPEN))) n.v("S", "0", volts);
    n.r("S", "s", is(all, Break.SUPPLY_OPEN) ? Double.POSITIVE_INFINITY : 0.01);
    double offset = degree(all, Break.GROUND_OFFSET, Double.NaN);
    if (is(all, Break.GROUND_OPEN)) n.r("0", "g", Double.POSITIVE_INFINITY);
    else if (Double.isNaN(offset)) n.r("0", "g", 0.01);
    else n.v("g", "0", offset);
    double wire = degree(all, Break.SIGNAL_LEAD, 0.01);
    n.r("o", signal, is(all, Break.SIGNAL_OPEN) ? Double.POSITIVE_INFINITY : wire);
    if (is(all, Break.SIGNAL_TO_GROUND)) n.r(signal, "0", 0.1);
    if (is(all, Break.SIGNAL_TO_SUPPLY)) n.r(signal, "S", 0.1);
    if (is(all, Break.LEAK_TO_GROUND)) {
      n.r(signal, "0", degree(all, Break.LEAK_TO_GROUND, 0));
    }
    if (is(all, Break.LEAK_TO_SUPPLY)) {
      n.r(signal, "S", degree(all, Break.LEAK_TO_SUPPLY, 0));
    }
    sensor(n, all, given, volts, probed);
    // Whatever nothing holds hangs on the surroundings by a few parts of nothing.
    n.v("air", "0", leak).r("air", signal, 1e11).r("air", "s", 1e11).r("air", "g", 1e11);
    n.r("air", "o", 1e11);
    if (!probed.isEmpty()) {
      String[] ends = probed.split("/");
      n.r(ends[0], ends[1], METER);
    }
    return stages(n, all);
  }

  private void sensor(Netlist n, List<Broken> all, double given, double volts, String probed) {
    boolean dead =
        is(all, Break.SUPPLY_OPEN) || is(all, Break.GROUND_OPEN) || is(all, Break.SUPPLY_DEAD);
    boolean shorted = is(all, Break.SIGNAL_TO_GROUND) || is(all, Break.SIGNAL_TO_SUPPLY);
    double behind = source == 0 ? shorted ? 100 : 0.01 : source;
    switch (family) {
      case RATIO_DIVIDER -> {
        n.r("s", "g", supply / draws).e("s", "g", "e", "g", given).r("e", "o", behind);
      }
      case AMPLIFIED, DIFFERENCE -> {
        n.r("s", "g", supply / draws);
        n.v("e", "g", dead ? 0 : Math.min(given, volts)).r("e", "o", behind);
      }
      case THERMISTOR -> n.r("o", "g", given);
      case SLIDER -> {
        n.r("o", "g", Math.max(1e-3, r[2] * given));
        n.r("s", "o", Math.max(1e-3, r[2] * (1 - given)));
      }
      default -> {
        // A transmitter of two wires: its current, or what supply and loop leave it.
        double burden = Math.min(part(all, "1 Rb", r[0]), probed.isEmpty() ? 1e9 : METER);
        double loop = 10 + degree(all, Break.SIGNAL_LEAD, 0) + burden;
        double left = Math.max(0, (volts - 9) / loop);
        boolean cut = is(all, Break.SUPPLY_OPEN) || is(all, Break.SIGNAL_OPEN);
        n.i("s", "o", cut ? 0 : Math.min(given, left));
      }
    }
  }

  private Map<String, Double> stages(Netlist n, List<Broken> all) {
    switch (family) {
      case RATIO_DIVIDER -> {
        n.r("TP1", "TP2", part(all, "1 R1", r[0])).r("TP2", "0", part(all, "1 R2", r[1]));
        n.r("TP2", "0", 1e11);
        return n.solve();
      }
      case AMPLIFIED -> {
        n.r("TP1", "0", r[0]);
        Map<String, Double> v = n.solve();
        v.put("TP2", v.get("TP1"));
        double out = amplified(v.get("TP1"), 0, part(all, "2 Rf", r[1]), part(all, "2 Rg", r[2]));
        v.put("TP3", out);
        return v;
      }
      case DIFFERENCE -> {
        n.r("TP1", "p", part(all, "1 Rg at +", r[1]));
        n.r("p", "m", part(all, "1 Rf at +", r[0])).v("m", "0", reference / 2);
        n.r("p", "0", 1e11);
        Map<String, Double> v = n.solve();
        double rf = part(all, "1 Rf at −", r[0]);
        double rg = part(all, "1 Rg at −", r[1]);
        v.put("TP2", amplified(v.get("p"), (a + b) / 2, rf, rg));
        return v;
      }
      case THERMISTOR -> {
        n.r("S", "TP2", part(all, "1 Rp", r[0]));
        return n.solve();
      }
      case SLIDER -> {
        n.r("TP1", "TP2", part(all, "1 Rx", r[0])).r("TP2", "0", r[1]);
        Map<String, Double> v = n.solve();
        v.put("TP3", v.get("TP2"));
        return v;
      }
      default -> {
        n.r("TP2", "0", Math.min(1e9, part(all, "1 Rb", r[0])));
        return n.solve();
      }
    }
  }

  private double amplified(double plus, double towards, double rf, double rg) {
    if (Double.isInfinite(rg)) return Math.clamp(plus, 0, reference);
    if (Double.isInfinite(rf)) return plus > towards ? reference : 0;
    return Math.clamp(plus + (plus - towards) * rf / rg, 0, reference);
  }

  /** What the display says at what is believed to be applied. */
  double display(double believed) {
    List<Broken> now = now();
    double x = departed(believed);
    double fed = rail;
    double volts = solve(x, now, fed, "").get(lastNode());
    double of = referenceVolts();
    double share =
        shared() ? fed * degree(now, Break.SUPPLY_LOW, 1) * degree(now, Break.SUPPLY_HIGH, 1) : 1;
    double code = Math.floor(volts / (of * share) * (1 << bits));
    double read = (Math.clamp(code, 0, (1 << bits) - 1) + 0.5) * of / (1 << bits);
    double shown = lookUp(read);
    if (is(now, Break.REVERSED)) shown = low + high - shown;
    return shown * degree(now, Break.DECIMAL, 1);
  }

  private List<Broken> now() {
    if (!loose || random.nextBoolean()) return broken;
    var all = new ArrayList<>(broken);
    all.add(new Broken(Break.SIGNAL_OPEN, "", Double.NaN));
    return all;
  }

  private double departed(double believed) {
    return misreading.applyAsDouble(believed)
        + departures.computeIfAbsent(believed, k -> random.nextGaussian() * tolerance / 3);
  }

  /** Straight lines through what the sound circuit gave, going on beyond its ends. */
  private double lookUp(double volts) {
    boolean rising = soundVolts[soundVolts.length - 1] > soundVolts[0];
    int i = 1;
    while (i < soundVolts.length - 1 && (rising ? soundVolts[i] < volts : soundVolts[i] > volts)) {
      i++;
    }
    double t = (volts - soundVolts[i - 1]) / (soundVolts[i] - soundVolts[i - 1]);
    return soundInputs[i - 1] + t * (soundInputs[i] - soundInputs[i - 1]);
  }

  /** A look at the display or a reading of the meter. */
  MeasuredValue look(Place place, double believed) {
    if (place.equals(Place.DISPLAY)) {
      double step = Math.pow(10, Math.floor(Math.log10(tolerance)) - 1);
      double v = Math.rint(display(believed) / step) * step;
      return new MeasuredValue(place, believed, v, step);
    }
    double v = atPlace(place, believed);
    double noise = random.nextGaussian() * 0.7e-3;
    if (place.unit(Unit.ONE).equals(Unit.OHM)) {
      return MeasuredValue.of(place, believed, METERED.shown(v * gain + noise, place));
    }
    if (place.kind() == Place.Kind.LOOP_CURRENT) {
      return MeasuredValue.of(place, believed, METERED.shown(v * gain, place));
    }
    return MeasuredValue.of(place, believed, METERED.shown(v * gain + noise, place));
  }

  private double atPlace(Place place, double believed) {
    List<Broken> now = now();
    double x = departed(believed);
    String signal = family == Family.THERMISTOR || family == Family.LOOP ? "TP2" : "TP1";
    boolean amplified = place.kind() == Place.Kind.TEST_POINT && !driven(place);
    String ends =
        switch (place.kind()) {
          case SUPPLY_AT_RECEIVER -> "S/0";
          case SUPPLY_AT_SENSOR -> "s/g";
          case GROUND_AT_SENSOR -> "g/0";
          case SIGNAL_AT_SENSOR -> "o/g";
          case SIGNAL_AT_RECEIVER -> signal + "/0";
          case TEST_POINT -> amplified ? node(place) + "/0" : "";
          default -> "";
        };
    switch (place.kind()) {
      case OHMS_AT_SENSOR -> {
        return thermistor(is(now, Break.MIRRORED) ? low + high - x : x);
      }
      case OHMS_AT_RECEIVER -> {
        boolean open = is(now, Break.GROUND_OPEN) || is(now, Break.SIGNAL_OPEN);
        if (open) return PairReading.OPEN;
        double ohms =
            thermistor(is(now, Break.MIRRORED) ? low + high - x : x)
                + degree(now, Break.SIGNAL_LEAD, 0);
        double across = degree(now, Break.LEAK_TO_GROUND, Double.POSITIVE_INFINITY);
        if (is(now, Break.SIGNAL_TO_GROUND)) across = 0.1;
        return 1 / (1 / ohms + 1 / across);
      }
      case LOOP_CURRENT -> {
        double ohms = part(now, "1 Rb", r[0]);
        if (Double.isInfinite(ohms)) return 0;
        return solve(x, now, rail, "").get("TP2") / ohms;
      }
      default -> {}
    }
    Map<String, Double> v = solve(x, now, rail, ends);
    String[] two = ends.isEmpty() ? new String[] {node(place), "0"} : ends.split("/");
    return v.getOrDefault(two[0], 0.0) - v.getOrDefault(two[1], 0.0);
  }

  private static String node(Place p) {
    return "TP" + p.node();
  }

  /** Behind an amplifier the meter changes nothing. */
  private boolean driven(Place p) {
    return family == Family.AMPLIFIED && p.node() == 3
        || family == Family.DIFFERENCE && p.node() == 2
        || family == Family.SLIDER && p.node() == 3
        || family == Family.AMPLIFIED && p.node() == 2;
  }

  double at(double fraction) {
    return low + (high - low) * fraction;
  }

  @Override
  public String toString() {
    return family.name();
  }
}
