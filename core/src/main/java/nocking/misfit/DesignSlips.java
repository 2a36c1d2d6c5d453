package nocking.misfit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.DoubleFunction;
import java.util.function.DoubleUnaryOperator;
import java.util.function.UnaryOperator;
import nocking.algebra.AlgebraException;
import nocking.algebra.Compiled;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.channel.UnitChange;
import nocking.converter.Converter;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Measurand;
import nocking.parts.PreferredSeries;
import nocking.path.ParameterRef;
import nocking.path.SignalPath;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.CurrentLoop;
import nocking.sensor.Sensor;

/** What may stand wrong in the design: every constant of the path, alone, and a few pairs. */
final class DesignSlips {
  private static final double CONSTANTS = 0.25;
  private static final double STANDARD = 0.5;
  private static final double SWAP = 0.05;
  private static final double SENSOR_UNIT = 0.05;
  private static final double LOOP = 0.05;
  private static final double LOAD = 0.04;
  private static final double OFFSET = 0.1;
  private static final double GAIN = 0.02;
  private static final double CARD = 0.1;
  private static final double REFERENCE = 0.05;

  /** A constant is looked for up to so many times larger or smaller. */
  private static final double FARTHEST = Math.log(30);

  private static final double TRIED_LOAD = 10e3;
  private static final double LEAST_LOAD = Math.log(300);
  private static final double MOST_LOAD = Math.log(10e6);

  /** Supplies and references that are usual, volts. */
  private static final double[] VOLTS = {
    1.024, 1.2, 1.25, 1.5, 1.65, 1.8, 2.048, 2.5, 3, 3.3, 4.096, 5, 9, 10, 12, 15, 24
  };

  private final Channel channel;
  private final SignalPath path;
  private final Readings r;
  private final Trials trials;
  private final List<SensorCard> cards;
  private final List<Cause> list = new ArrayList<>();
  private final Map<Object, SignalPath> made = new HashMap<>();
  private double gain = Double.NaN;

  DesignSlips(
      Channel channel, SignalPath path, Readings readings, Trials trials, List<SensorCard> cards) {
    this.channel = channel;
    this.path = path;
    this.r = readings;
    this.trials = trials;
    this.cards = cards;
  }

  /** Factor that explains the points about 0 V. */
  double gain() {
    return gain;
  }

  List<Cause> causes() {
    constants();
    swaps();
    sensorUnits();
    loops();
    // Readings of the sensor alone tell nothing of what hangs on the converter.
    if (!r.ofSensor()) load();
    reference();
    offsetAndGain();
    otherCards();
    return list;
  }

  private double[] with(Map<String, Double> changed) {
    var constants = new HashMap<>(path.constants());
    constants.putAll(changed);
    var f = Compiled.of(path.forward(), path.quantitySymbol(), constants);
    return trials.against(f);
  }

  /**
   * Departures as a function of one constant. The equation is compiled once for every input at
   * which it is asked, not once for every value that is tried.
   */
  private DoubleFunction<double[]> varying(String symbol) {
    var at = new HashMap<Double, DoubleUnaryOperator>();
    return value ->
        trials.against(x -> at.computeIfAbsent(x, k -> compiled(symbol, k)).applyAsDouble(value));
  }

  private DoubleUnaryOperator compiled(String symbol, double x) {
    var constants = new HashMap<>(path.constants());
    constants.put(path.quantitySymbol(), x);
    return Compiled.of(path.forward(), symbol, constants);
  }

  /** Symbols that the readings depend on: those of the sensor alone, where it is what was read. */
  private List<String> symbols() {
    return path.constantsOf(path.forward()).keySet().stream()
        .filter(s -> path.owners().containsKey(s))
        .filter(s -> !r.ofSensor() || path.owners().get(s).element() == 0)
        .filter(s -> path.constants().get(s) != 0)
        .toList();
  }

  private void constants() {
    List<String> symbols = symbols();
    for (String s : symbols) {
      double now = path.constants().get(s);
      DoubleFunction<double[]> departures = varying(s);
      var best = trials.search(-FARTHEST, FARTHEST, f -> departures.apply(now * Math.exp(f)));
      double value = now * Math.exp(best.at());
      double prior = CONSTANTS / symbols.size();
      ParameterRef ref = path.owners().get(s);
      double[] standards = standards(ref.field(), value);
      var ofSymbol = new ArrayList<Cause>();
      for (double standard : standards) {
        if (Math.abs(standard / now - 1) < 1e-9) continue;
        double[] left = departures.apply(standard);
        if (!allowed(ref.field(), standard)) continue;
        double printed = prior * STANDARD / printed(ref.field());
        ofSymbol.add(constant(s, ref, standard, printed, left, true));
      }
      double log = Math.log(prior * (1 - STANDARD)) + best.occam();
      if (allowed(ref.field(), value)) {
        ofSymbol.add(constant(s, ref, value, Math.exp(log), best.left(), false));
      }
      // One value of each constant is enough: the likeliest, which may be the one that is printed.
      ofSymbol.stream()
          .max(Comparator.comparing(Cause::fits).thenComparing(Cause::logWeight))
          .ifPresent(list::add);
    }
  }

  private static boolean allowed(Field f, double value) {
    var p = f.parameter();
    return value >= p.least() && value <= p.most() && value > p.above();
  }

  /** How many values such a part is usually printed with, over the range that is searched. */
  private static double printed(Field f) {
    return switch (f.parameter().unit()) {
      case "ohm" -> 72;
      case "V" -> VOLTS.length;
      default -> 270;
    };
  }

  private Cause constant(
      String symbol, ParameterRef ref, double value, double prior, double[] left, boolean usual) {
    String unit = Unit.of(unitOf(ref.field())).symbol();
    String shown = shown(value, unit);
    String now = shown(path.constants().get(symbol), unit);
    String whose = element(ref).title().toLowerCase(Locale.ROOT);
    String says = "%s of the %s %s instead of %s".formatted(symbol, whose, shown, now);
    UnaryOperator<Channel> remedy = usual ? c -> put(c, ref, value) : null;
    String label =
        usual ? "Set %s of the %s to %s, from %s".formatted(symbol, whose, shown, now) : "";
    return trials.cause(Cause.Kind.CONSTANT, says, prior, left, new int[0], remedy, label);
  }

  private String unitOf(Field f) {
    String unit = f.parameter().unit();
    return unit.contains("x") ? "" : unit;
  }

  private static String shown(double value, String unit) {
    boolean scaled = unit.equals("V") || unit.equals("Ω") || unit.equals("A");
    return scaled
        ? Numbers.compact(value, unit, 4)
        : (Numbers.trimmed(value, 4) + " " + unit).strip();
  }

  private Element element(ParameterRef ref) {
    if (ref.element() == 0) return channel.design().sensor();
    if (ref.element() <= channel.design().stages().size())
      return channel.design().stages().get(ref.element() - 1);
    return channel.design().converter();
  }

  private static Channel put(Channel c, ParameterRef ref, double value) {
    Value v = Value.of(Double.parseDouble(Numbers.significant(value, 12)));
    if (ref.element() == 0) {
      Sensor s = c.design().sensor();
      return c.design(d -> d.withSensor(Element.with(s, ref.field(), s.value(ref.field()).to(v))));
    }
    if (ref.element() <= c.design().stages().size()) {
      var s = c.design().stages().get(ref.element() - 1);
      return c.design(
          d ->
              d.withStage(
                  ref.element() - 1, Element.with(s, ref.field(), s.value(ref.field()).to(v))));
    }
    Converter k = c.design().converter();
    return c.design(d -> d.withConverter(Element.with(k, ref.field(), k.value(ref.field()).to(v))));
  }

  /** The values next to one that such a part usually has: its printed neighbours, its decades. */
  private double[] standards(Field field, double value) {
    var near = new ArrayList<Double>();
    switch (field.parameter().unit()) {
      case "ohm" -> {
        double decade = Math.pow(10, Math.floor(Math.log10(value)));
        nearest(near, PreferredSeries.E24.decade(), decade, value);
        for (double f : new double[] {10, 0.1, 100, 0.01, 1000, 0.001}) {
          near.add(Math.abs(path.constants().getOrDefault(field.symbol(), Double.NaN)) * f);
        }
      }
      case "V" -> {
        double best = VOLTS[0];
        for (double v : VOLTS) {
          if (Math.abs(Math.log(v / value)) < Math.abs(Math.log(best / value))) best = v;
        }
        near.add(best);
      }
      default -> near.add(Double.parseDouble(Numbers.significant(value, 2)));
    }
    return near.stream().filter(Double::isFinite).distinct().mapToDouble(d -> d).toArray();
  }

  private static void nearest(List<Double> near, double[] steps, double decade, double value) {
    double best = steps[0] * decade;
    for (double scale : new double[] {0.1, 1, 10}) {
      for (double step : steps) {
        double v = step * decade * scale;
        if (Math.abs(Math.log(v / value)) < Math.abs(Math.log(best / value))) best = v;
      }
    }
    near.add(Double.parseDouble(Numbers.significant(best, 6)));
  }

  /** Two resistors of one stage exchanged, in the circuit or in the design. */
  private void swaps() {
    var byElement = new LinkedHashMap<Integer, List<String>>();
    for (String s : symbols()) {
      ParameterRef ref = path.owners().get(s);
      if (ref.field().parameter().unit().equals("ohm")) {
        byElement.computeIfAbsent(ref.element(), k -> new ArrayList<>()).add(s);
      }
    }
    for (List<String> of : byElement.values()) {
      of.sort(null);
      for (int i = 0; i < of.size(); i++) {
        for (int j = i + 1; j < of.size(); j++) {
          String a = of.get(i);
          String b = of.get(j);
          double va = path.constants().get(a);
          double vb = path.constants().get(b);
          if (va == vb) continue;
          String whose = element(path.owners().get(a)).title().toLowerCase(Locale.ROOT);
          list.add(
              trials.cause(
                  Cause.Kind.SWAPPED_PARTS,
                  "%s and %s of the %s exchanged".formatted(a, b, whose),
                  SWAP,
                  with(Map.of(a, vb, b, va)),
                  new int[0],
                  c -> put(put(c, path.owners().get(a), vb), path.owners().get(b), va),
                  "Exchange %s and %s of the %s in the design".formatted(a, b, whose)));
        }
      }
    }
  }

  private void sensorUnits() {
    Unit own = channel.unit();
    var others =
        EntrySlips.UNITS.stream()
            .map(Unit::of)
            .filter(u -> u.dimension().equals(own.dimension()))
            .filter(u -> u.factor() != own.factor() || u.offset() != own.offset())
            .toList();
    for (Unit u : others) {
      Sensor meant = UnitChange.sensor(channel.design().sensor(), u, own);
      other(
          Cause.Kind.SENSOR_UNIT,
          "the sensor's numbers in " + u.symbol(),
          SENSOR_UNIT / others.size(),
          meant,
          "Take the sensor's numbers as " + u.symbol());
    }
  }

  private void loops() {
    if (!(channel.design().sensor() instanceof CurrentLoop s)) return;
    String name = s.liveZero() ? "0…20 mA" : "4…20 mA";
    other(
        Cause.Kind.OTHER_LOOP, "a loop of " + name, LOOP, s.takenFor(), "Take the loop as " + name);
  }

  private void other(Cause.Kind kind, String says, double prior, Sensor meant, String label) {
    try {
      list.add(
          trials.cause(
              kind,
              says,
              prior,
              trials.against(x -> path(meant, channel.design().converter()).at(x).output()),
              new int[0],
              c -> c.design(d -> d.withSensor(meant)),
              label));
    } catch (QuantityException | AlgebraException e) {
      // A sensor that makes no sense before these stages is no explanation.
      return;
    }
  }

  private SignalPath path(Sensor sensor, Converter converter) {
    return made.computeIfAbsent(
        List.of(sensor, converter),
        k ->
            SignalPath.of(
                new Measurand(path.quantitySymbol(), channel.unit()),
                sensor,
                channel.design().stages(),
                converter));
  }

  /** Something that draws from the last node and is not in the design. */
  private void load() {
    Converter own = channel.design().converter();
    boolean stiff =
        !channel.design().stages().isEmpty()
            && channel.design().stages().getLast().outputResistance() == 0;
    if (own.inputResistance() != null || stiff) return;
    Field field = own.field("Rin");
    try {
      // Every load makes of a node V·R/(R + R_th): two of them tell V and R_th.
      SignalPath tried =
          path(channel.design().sensor(), Element.with(own, field, Value.of(TRIED_LOAD)));
      var free = new HashMap<Double, Double>();
      var behind = new HashMap<Double, Double>();
      DoubleUnaryOperator open = x -> free.computeIfAbsent(x, k -> path.at(k).output());
      DoubleUnaryOperator source =
          x ->
              behind.computeIfAbsent(
                  x, k -> TRIED_LOAD * (open.applyAsDouble(k) / tried.at(k).output() - 1));
      var best =
          trials.search(
              LEAST_LOAD,
              MOST_LOAD,
              l -> {
                double ohms = Math.exp(l);
                return trials.against(
                    x -> open.applyAsDouble(x) * ohms / (ohms + source.applyAsDouble(x)));
              });
      String ohms = Numbers.compact(Math.exp(best.at()), "Ω", 2);
      list.add(
          trials.cause(
              Cause.Kind.LOAD,
              "a load of %s at the converter that is not in the design".formatted(ohms),
              LOAD * Math.exp(best.occam()),
              best.left(),
              new int[0],
              null,
              ""));
    } catch (QuantityException | AlgebraException e) {
      // With such a load there is no path.
      return;
    }
  }

  /** With readings in counts the converter's own reference may be another. */
  private void reference() {
    if (channel.calibration().points().raw() != RawUnit.COUNTS) return;
    double now = channel.design().converter().reference().number();
    for (double v : VOLTS) {
      if (v == now) continue;
      double[] volts = r.volts().clone();
      for (int i = 0; i < volts.length; i++) volts[i] *= v / now;
      Field f = channel.design().converter().field("Vadc");
      list.add(
          trials.cause(
              Cause.Kind.CONSTANT,
              "a converter's reference of %s instead of %s"
                  .formatted(Numbers.compact(v, "V", 4), Numbers.compact(now, "V", 4)),
              REFERENCE / VOLTS.length,
              trials.against(r.applied(), volts),
              new int[0],
              c ->
                  c.design(
                      d ->
                          d.withConverter(
                              Element.with(
                                  c.design().converter(),
                                  f,
                                  c.design().converter().value(f).to(Value.of(v))))),
              "Set the converter's reference to %s, from %s"
                  .formatted(Numbers.compact(v, "V", 4), Numbers.compact(now, "V", 4))));
    }
  }

  private void offsetAndGain() {
    double whole =
        r.ofSensor()
            ? Arrays.stream(r.raw()).map(Math::abs).max().orElse(0)
            : channel.design().converter().reference().number();
    double reach = 0.3 * whole;
    var offset = trials.search(-reach, reach, b -> trials.against(r.applied(), r.lowerBy(b)));
    list.add(
        trials.cause(
            Cause.Kind.OFFSET,
            "the same %s %s everywhere"
                .formatted(off(Math.abs(offset.at())), offset.at() < 0 ? "too low" : "too high"),
            OFFSET * Math.exp(offset.occam()),
            offset.left(),
            new int[0],
            null,
            ""));
    var factor =
        trials.search(
            -FARTHEST, FARTHEST, f -> trials.against(r.applied(), r.dividedBy(Math.exp(f))));
    gain = Math.exp(factor.at());
    list.add(
        trials.cause(
            Cause.Kind.GAIN,
            "a gain of %s %%".formatted(Numbers.signed(100 * (gain - 1), 2)),
            GAIN * Math.exp(factor.occam()),
            factor.left(),
            new int[0],
            null,
            ""));
  }

  private String off(double amount) {
    return r.ofSensor() ? r.unit().small(amount, 2) : Numbers.engineering(amount, "V", 2);
  }

  private void otherCards() {
    for (SensorCard card : cards) {
      boolean same =
          card.kind() == channel.definition().kind()
              && Unit.of(card.unit()).dimension().equals(channel.unit().dimension());
      if (!same) continue;
      Sensor s = card.sensorIn(channel.unit());
      if (s.equals(channel.design().sensor())) continue;
      try {
        list.add(
            trials.cause(
                Cause.Kind.CARD,
                "the card " + card.name(),
                CARD / cards.size(),
                trials.against(x -> path(s, channel.design().converter()).at(x).output()),
                new int[0],
                card::putInto,
                "Take the card " + card.name()));
      } catch (QuantityException | AlgebraException e) {
        // A card that makes no sense before these stages is no explanation.
        continue;
      }
    }
  }
}
