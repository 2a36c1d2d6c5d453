package nocking.proposal;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.ToDoubleFunction;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.converter.Converter;
import nocking.element.Element;
import nocking.element.Signal;
import nocking.network.Circuit;
import nocking.parts.Assortment;
import nocking.parts.PreferredSeries;
import nocking.path.PathCircuit;
import nocking.path.SignalPath;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.sensor.AcVoltage;
import nocking.sensor.CurrentLoop;
import nocking.sensor.LinearSensor;
import nocking.sensor.NtcBeta;
import nocking.sensor.Potentiometer;
import nocking.sensor.Sensor;
import nocking.stage.Stage;
import nocking.tolerance.BudgetPoint;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Whole paths against every circuit and every pair of parts, each solved node by node. */
class PathProposalsTest {
  private static final Assortment PARTS = Assortment.of(PreferredSeries.E6, 1e3, 220e3, 5);
  private static final double WITHIN = 0.05;

  private static Value v(double x) {
    return Value.of(x);
  }

  /** One wish: a sensor, a range, a converter, a supply. */
  private record Wish(Channel channel, Wanted wanted, double reference, double input) {
    static Wish of(long seed, Wanted.Care care) {
      var r = new Random(seed);
      double reference = new double[] {2.5, 3.3, 5}[r.nextInt(3)];
      double input = r.nextBoolean() ? Double.POSITIVE_INFINITY : 20e3 + 1e6 * r.nextDouble();
      double supply = r.nextBoolean() ? reference : 5;
      Sensor sensor = sensor(r);
      Channel c =
          Channel.blank("1", "RW-X1")
              .define(
                  d ->
                      d.withKind(QuantityKind.TEMPERATURE)
                          .withUnit("°C")
                          .withRange(v(0), v(60))
                          .withTolerance(v(0.2 + r.nextDouble())))
              .design(
                  d ->
                      d.withSensor(sensor)
                          .withConverter(
                              Converter.of(
                                  v(10 + r.nextInt(5)),
                                  v(reference),
                                  Double.isInfinite(input) ? null : v(input))));
      return new Wish(
          c,
          new Wanted(PARTS, supply, new Span(5e3, 100e3), Double.NaN, 1e-3, care),
          reference,
          input);
    }

    private static Sensor sensor(Random r) {
      return switch (r.nextInt(5)) {
        case 0 -> linear(0.2 * r.nextDouble(), 0.01 + 0.01 * r.nextDouble(), 0);
        case 1 -> linear(r.nextDouble(), 0.02 + 0.2 * r.nextDouble(), 100 + 900 * r.nextDouble());
        case 2 ->
            new Potentiometer(
                v(0), v(60), v(0.05), v(0.95), v(5), v(2e3 + 8e3 * r.nextDouble()), v(0));
        case 3 -> thermistor(2e3 + 20e3 * r.nextDouble(), 3000 + 1000 * r.nextDouble());
        default -> new CurrentLoop(v(0), v(60), v(0.004), v(0.02));
      };
    }

    private static Sensor linear(double offset, double slope, double source) {
      return new LinearSensor(v(offset), v(0), v(slope), v(0), v(60), v(source));
    }

    private static Sensor thermistor(double ohms, double beta) {
      return new NtcBeta(v(ohms), v(25), v(beta), v(-40), v(125), null);
    }

    private Source source() {
      return Source.of(channel);
    }

    private double given(boolean high) {
      return high ? source().high() : source().low();
    }

    private double series(boolean high) {
      return high ? source().seriesHigh() : source().seriesLow();
    }
  }

  /** A circuit drawn for one end of the range with two resistors; volts at the converter. */
  private interface Drawing {
    double volts(Wish w, boolean high, double a, double b);
  }

  private static double solved(Wish w, Circuit c, String out) {
    if (!Double.isInfinite(w.input)) c.resistor(out, Circuit.GROUND, w.input);
    return c.solve().get(out);
  }

  private static Circuit fed(Wish w, boolean high, String node) {
    var c = new Circuit().source("e", Circuit.GROUND, w.given(high));
    if (w.series(high) > 0) c.resistor("e", node, w.series(high));
    else c.source(node, "e", 0);
    return c;
  }

  private static final Map<String, Drawing> DRAWN = new HashMap<>();

  static {
    DRAWN.put("direct path", (w, high, a, b) -> solved(w, fed(w, high, "o"), "o"));
    DRAWN.put(
        "direct path with a pull-down",
        (w, high, a, b) -> solved(w, fed(w, high, "o").resistor("o", Circuit.GROUND, a), "o"));
    DRAWN.put(
        "divider",
        (w, high, a, b) ->
            solved(
                w, fed(w, high, "i").resistor("i", "o", a).resistor("o", Circuit.GROUND, b), "o"));
    DRAWN.put(
        "follower and divider",
        (w, high, a, b) ->
            solved(
                w,
                new Circuit()
                    .source("i", Circuit.GROUND, w.given(high))
                    .resistor("i", "o", a)
                    .resistor("o", Circuit.GROUND, b),
                "o"));
    DRAWN.put(
        "amplifier",
        (w, high, a, b) ->
            solved(
                w,
                new Circuit()
                    .source("p", Circuit.GROUND, w.given(high))
                    .resistor("o", "n", a)
                    .resistor("n", Circuit.GROUND, b)
                    .amplifier("p", "n", "o"),
                "o"));
    DRAWN.put(
        "pull-up",
        (w, high, a, b) ->
            solved(
                w,
                new Circuit()
                    .source("s", Circuit.GROUND, Math.min(w.wanted.supply(), w.reference))
                    .resistor("s", "o", a)
                    .resistor("o", Circuit.GROUND, w.given(high)),
                "o"));
    DRAWN.put(
        "pull-down",
        (w, high, a, b) ->
            solved(
                w,
                new Circuit()
                    .source("s", Circuit.GROUND, Math.min(w.wanted.supply(), w.reference))
                    .resistor("s", "o", w.given(high))
                    .resistor("o", Circuit.GROUND, a),
                "o"));
    DRAWN.put(
        "burden",
        (w, high, a, b) ->
            solved(
                w,
                new Circuit()
                    .current(Circuit.GROUND, "o", w.given(high))
                    .resistor("o", Circuit.GROUND, a),
                "o"));
  }

  private static boolean offered(Wish w, String name) {
    Source s = w.source();
    double top = w.reference;
    double rails = Math.min(top, w.wanted.supply());
    return switch (s.signal()) {
      case VOLTAGE ->
          switch (name) {
            case "direct path", "direct path with a pull-down" -> s.most() <= top;
            case "divider" -> s.most() > top;
            case "follower and divider" ->
                s.most() > top && !s.stiff() && s.most() <= w.wanted.supply();
            case "amplifier" -> s.most() <= rails;
            default -> false;
          };
      case RESISTANCE -> name.equals("pull-up") || name.equals("pull-down");
      case CURRENT -> name.equals("burden");
      case ALTERNATING -> false;
    };
  }

  /** Which parts may be tried, as the wish says. */
  private static boolean allowed(Wish w, String name, double a, double b) {
    double least = a * (1 - WITHIN);
    return switch (name) {
      case "divider", "follower and divider" -> w.wanted.total().contains(a + b);
      case "pull-up", "pull-down" ->
          Math.min(w.wanted.supply(), w.reference) / (least + w.source().least())
              <= w.wanted.mostCurrent();
      case "burden" -> {
        double most = a * (1 + WITHIN);
        double seen = Double.isInfinite(w.input) ? most : most * w.input / (most + w.input);
        yield 0.021 * seen <= w.reference && w.wanted.supply() - 0.021 * most >= 0;
      }
      default -> true;
    };
  }

  /** The largest swing of a circuit over all parts that no corner takes out of its limits. */
  private static Optional<Double> largest(Wish w, String name) {
    Drawing d = DRAWN.get(name);
    double top = name.equals("amplifier") ? Math.min(w.reference, w.wanted.supply()) : w.reference;
    boolean pairs = List.of("divider", "follower and divider", "amplifier").contains(name);
    double best = -1;
    for (int i = 0; i < PARTS.size(); i++) {
      for (int j = 0; j < (pairs ? PARTS.size() : 1); j++) {
        double a = PARTS.ohms(i);
        double b = PARTS.ohms(j);
        if (!allowed(w, name, a, b)) continue;
        double swing = Math.abs(d.volts(w, true, a, b) - d.volts(w, false, a, b));
        if (swing <= best) continue;
        boolean holds = true;
        for (double sa : new double[] {1 - WITHIN, 1 + WITHIN}) {
          for (double sb : new double[] {1 - WITHIN, 1 + WITHIN}) {
            for (boolean high : new boolean[] {false, true}) {
              double volts = d.volts(w, high, a * sa, b * sb);
              holds &= volts >= -1e-9 && volts <= top + 1e-9;
            }
          }
        }
        if (holds) best = swing;
      }
    }
    return best < 0 ? Optional.empty() : Optional.of(best);
  }

  static LongStream wishes() {
    return LongStream.range(0, 20);
  }

  static LongStream moreWishes() {
    return LongStream.range(20, 100);
  }

  @Tag("campaign")
  @ParameterizedTest
  @MethodSource("moreWishes")
  void norForAnyOfManyMore(long seed) {
    noCircuitAndNoPartsAreBetterThanWhatIsProposed(seed);
  }

  @ParameterizedTest
  @MethodSource("wishes")
  void noCircuitAndNoPartsAreBetterThanWhatIsProposed(long seed) {
    Wish w = Wish.of(seed, Wanted.Care.BALANCED);
    List<PathProposal> found = PathProposals.of(w.channel, w.wanted);
    for (String name : DRAWN.keySet()) {
      Optional<PathProposal> proposed =
          found.stream().filter(p -> p.name().equals(name)).findFirst();
      Optional<Double> largest = offered(w, name) ? largest(w, name) : Optional.empty();
      assertThat(proposed.isPresent()).as("%s, seed %d", name, seed).isEqualTo(largest.isPresent());
      largest.ifPresent(
          swing ->
              assertThat(proposed.orElseThrow().share() * w.reference)
                  .as("%s, seed %d", name, seed)
                  .isCloseTo(swing, within(1e-9)));
    }
    for (PathProposal p : found) {
      whatIsSaidIsSo(w, p);
      noDrawOfItsPartsLeavesTheConverter(w, p, new Random(seed));
    }
  }

  /** A proposal put into its channel gives what was said of it. */
  private static void whatIsSaidIsSo(Wish w, PathProposal p) {
    Analysis a = Analysis.of(p.putInto(w.channel));
    SignalPath path = a.design().path().orElseThrow();
    Span volts = Span.between(path.output(0), path.output(60));
    assertThat(volts.low()).isCloseTo(p.volts().low(), within(1e-12)).isNotNegative();
    assertThat(volts.high())
        .isCloseTo(p.volts().high(), within(1e-12))
        .isLessThanOrEqualTo(w.reference);
    double after =
        a.design().budget().stream()
            .map(BudgetPoint::after)
            .mapToDouble(e -> e.worstCase())
            .max()
            .orElseThrow();
    assertThat(p.after()).isEqualTo(after);
    assertThat(p.holds())
        .isEqualTo(
            after <= w.channel.definition().toleranceOrNaN()
                && p.count() <= w.channel.definition().toleranceOrNaN());
  }

  /** Gain and shift too: whatever its parts do inside their tolerances, nothing is cut off. */
  private static void noDrawOfItsPartsLeavesTheConverter(Wish w, PathProposal p, Random r) {
    for (int draw = 0; draw < 15; draw++) {
      var stages = new ArrayList<Stage>();
      for (Stage s : p.stages()) {
        stages.add(
            Element.replace(
                s,
                s.fields().stream()
                    .filter(f -> s.value(f) != null && s.value(f).spread() != null)
                    .toList(),
                (f, v) ->
                    v(
                        v.number()
                            + v.spread().limitOf(v.number())
                                * (r.nextBoolean() ? 1 : 2 * r.nextDouble() - 1)
                                * (r.nextBoolean() ? 1 : -1))));
      }
      SignalPath path =
          Analysis.of(w.channel.design(d -> d.withStages(stages))).design().path().orElseThrow();
      for (double x : new double[] {0, 60}) {
        assertThat(path.at(x).nodes().getLast().wanted())
            .as("%s at %s", p.name(), x)
            .isBetween(-1e-9, w.reference + 1e-9);
      }
    }
  }

  /**
   * What makes a reference or an offset is counted: 4 resistors and a divider each for two volts.
   */
  @Test
  void partsThatMakeAReferenceAreCounted() {
    Channel c =
        Channel.blank("1", "RW-X3")
            .define(d -> d.withRange(v(0), v(60)))
            .design(
                d -> d.withSensor(Wish.linear(0.5, 0.005, 0)).withConverter(Converter.of(12, 3.3)));
    Assortment fine = Assortment.of(PreferredSeries.E24, 1e3, 220e3, 1);
    var wanted =
        new Wanted(fine, 3.3, new Span(5e3, 100e3), Double.NaN, 1e-3, Wanted.Care.BALANCED);
    Map<String, Integer> parts = new HashMap<>();
    for (PathProposal p : PathProposals.of(c, wanted)) parts.put(p.name(), p.parts());
    assertThat(parts)
        .containsEntry("direct path", 0)
        .containsEntry("amplifier", 3)
        .containsEntry("difference amplifier", 9)
        .containsEntry("inverting amplifier", 5)
        .containsEntry("gain and shift", 5);
  }

  /** Each care puts its own number first; what is alike in it follows the balanced order. */
  @ParameterizedTest
  @EnumSource(Wanted.Care.class)
  void whatIsCaredForComesFirst(Wanted.Care care) {
    Map<Wanted.Care, ToDoubleFunction<PathProposal>> first =
        Map.of(
            Wanted.Care.AFTER, PathProposal::after,
            Wanted.Care.BEFORE, PathProposal::before,
            Wanted.Care.SHARE, p -> -p.share(),
            Wanted.Care.FAULTS, p -> -(double) p.told() / p.wires(),
            Wanted.Care.PARTS, PathProposal::parts,
            Wanted.Care.CURRENT, PathProposal::amperes,
            Wanted.Care.BALANCED, p -> p.holds() ? 0 : 1);
    for (long seed = 0; seed < 12; seed++) {
      Wish w = Wish.of(seed, care);
      assertThat(PathProposals.of(w.channel, w.wanted))
          .isSortedAccordingTo(Comparator.comparingDouble(first.get(care)));
    }
  }

  /**
   * Whoever cares for the current gets parts that draw less, not the same ones in another order.
   */
  @Test
  void lessCurrentIsChosenAndNotOnlySorted() {
    var any = Assortment.of(PreferredSeries.E12);
    int less = 0;
    for (long seed = 0; seed < 12; seed++) {
      Channel c = Wish.of(seed, Wanted.Care.BALANCED).channel;
      Wanted.Care current = Wanted.Care.CURRENT;
      Wanted.Care balanced = Wanted.Care.BALANCED;
      var frugal = new Wanted(any, 5, Wanted.usualTotal(current), Double.NaN, 1e-3, current);
      var usual = new Wanted(any, 5, Wanted.usualTotal(balanced), Double.NaN, 1e-3, balanced);
      Map<String, PathProposal> before =
          PathProposals.of(c, usual).stream()
              .collect(Collectors.toMap(PathProposal::name, p -> p, (a, b) -> a));
      for (PathProposal p : PathProposals.of(c, frugal)) {
        PathProposal was = before.get(p.name());
        if (was == null) continue;
        assertThat(p.holds() || !was.holds()).as("seed %d %s", seed, p.name()).isTrue();
        if (p.amperes() < was.amperes() / 5) less++;
        // What is said of the current is what the whole range draws.
        Channel with = c.design(d -> d.withStages(p.stages()));
        for (int i = 0; i <= 20; i++) {
          double x = c.definition().working().at(i / 20.0);
          double amperes =
              PathCircuit.sensorAmperes(
                  with.design().measurand(),
                  with.design().sensor(),
                  with.design().stages(),
                  with.design().converter(),
                  x);
          if (c.design().sensor().signal() != Signal.CURRENT) {
            assertThat(amperes).isLessThanOrEqualTo(p.amperes() * 1.01 + 1e-12);
          }
        }
      }
    }
    assertThat(less).isGreaterThan(3);
  }

  /** The current is what the nodes around the sensor carry away. */
  @Test
  void aThermistorsCurrentIsThatOfItsSeriesCircuit() {
    Channel c =
        Wish.of(0, Wanted.Care.BALANCED)
            .channel
            .design(
                d ->
                    d.withSensor(Wish.thermistor(10e3, 3950)).withConverter(Converter.of(12, 3.3)));
    var wanted =
        new Wanted(PARTS, 3.3, new Span(5e3, 100e3), Double.NaN, 1e-3, Wanted.Care.BALANCED);
    double least = 10e3 * Math.exp(3950 * (1 / 333.15 - 1 / 298.15));
    for (PathProposal p : PathProposals.of(c, wanted)) {
      if (p.stages().size() != 1) continue;
      double ohms = p.stages().getFirst().number("Rp");
      assertThat(p.amperes()).isCloseTo(3.3 / (ohms + least), within(1e-12));
    }
  }

  /**
   * A filter settles to half a count in the time that was asked for, behind what feeds it, and a
   * larger one would not. What feeds it is seen from how far the volts give way under 100 kΩ more.
   */
  @ParameterizedTest
  @ValueSource(longs = {0, 1, 2, 3, 4, 5, 6, 7, 8, 9})
  void aFilterSettlesInTime(long seed) {
    Wish w = Wish.of(seed, Wanted.Care.BALANCED);
    var wanted = new Wanted(PARTS, 5, new Span(5e3, 100e3), 0.01, 1e-3, Wanted.Care.BALANCED);
    Converter k = w.channel.design().converter();
    double more = Double.isInfinite(w.input) ? 100e3 : 1 / (1 / w.input + 1 / 100e3);
    Converter loaded = Converter.of(k.bits(), k.reference(), v(more));
    for (PathProposal p : PathProposals.of(w.channel, wanted)) {
      Channel with = p.putInto(w.channel);
      SignalPath path =
          SignalPath.of(with.design().measurand(), with.design().sensor(), p.stages(), k);
      SignalPath under =
          SignalPath.of(with.design().measurand(), with.design().sensor(), p.stages(), loaded);
      double slowest = 0;
      for (double x : new double[] {0, 15, 30, 45, 60}) {
        double ohms = 100e3 * (path.output(x) / under.output(x) - 1);
        double constant = ohms * p.stages().getLast().number("C");
        slowest = Math.max(slowest, constant * Math.log(Math.pow(2, k.effectiveBits() + 1)));
      }
      assertThat(slowest).as(p.name()).isBetween(0.01 / 1.6, 0.01 * 1.0001);
    }
  }

  /** A stiff output gives what the resistor behind it takes, 2 V over the pull-down. */
  @Test
  void aStiffOutputGivesWhatHangsOnIt() {
    Channel c =
        Channel.blank("1", "RW-X2")
            .define(d -> d.withRange(v(0), v(60)))
            .design(
                d -> d.withSensor(Wish.linear(0.5, 0.025, 0)).withConverter(Converter.of(12, 3.3)));
    var wanted =
        new Wanted(PARTS, 3.3, new Span(5e3, 100e3), Double.NaN, 1e-3, Wanted.Care.BALANCED);
    PathProposal pulled =
        PathProposals.of(c, wanted).stream()
            .filter(p -> p.name().equals("direct path with a pull-down"))
            .findFirst()
            .orElseThrow();
    double ohms = pulled.stages().getFirst().number("Rh");
    // All pull-downs leave a stiff output alone; the largest draws the least.
    assertThat(ohms).isEqualTo(PARTS.ohms(PARTS.size() - 1));
    assertThat(pulled.amperes()).isCloseTo(2 / ohms, within(1e-5 * 2 / ohms));
  }

  @Test
  void nothingIsProposedForTheMains() {
    Channel c = Channel.blank("1", "AE-V9").design(d -> d.withSensor(AcVoltage.sine(1, 300)));
    var wanted = new Wanted(PARTS, 5, new Span(5e3, 100e3), Double.NaN, 1e-3, Wanted.Care.BALANCED);
    assertThatThrownBy(() -> PathProposals.of(c, wanted))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("what isolates it has to be chosen first");
  }
}
