package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import nocking.analysis.Analysis;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.channel.Surroundings;
import nocking.converter.Converter;
import nocking.element.Element;
import nocking.fault.Fault;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultRow;
import nocking.fault.Harm;
import nocking.finding.Finding;
import nocking.prior.FaultKind;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.TwoPointSensor;
import nocking.stage.Divider;
import nocking.stage.InputPull;
import nocking.stage.RcFilter;
import nocking.stage.SeriesResistor;
import nocking.stage.Stage;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What a fault does to people, to the input and to parts, by a solver of its own. */
class HarmTest {
  private static final Book BOOK = Hatchery.book(Hatchery.SEED);
  private static final int STEPS = 8;
  private static final double DIODE = 0.3;

  private static FaultRow row(String tag, FaultKind kind, String part) {
    return Analysis.of(BOOK.byTag(tag).orElseThrow())
        .wiring()
        .faults()
        .orElseThrow()
        .rows()
        .stream()
        .filter(r -> r.fault().kind() == kind && r.fault().part().equals(part))
        .findFirst()
        .orElseThrow();
  }

  /** The lower leg of the mains divider breaks: the mains are at the input, and say so first. */
  @Test
  void theLowerLegOfAMainsDividerLetsTheMainsIn() {
    FaultRow open = row("AE-V1", FaultKind.PART_OPEN, "R2");
    assertThat(open.harm().touch().orElseThrow()).isGreaterThan(300);
    assertThat(open.harm().pin().orElseThrow().volts()).isGreaterThan(300);
    FaultMatrix m = Analysis.of(BOOK.byTag("AE-V1").orElseThrow()).wiring().faults().orElseThrow();
    assertThat(m.rows().get(1).fault()).isEqualTo(open.fault());
    // A string: one part that is shorted does not let everything through.
    FaultRow one = row("AE-V1", FaultKind.PART_SHORT, "R1");
    assertThat(one.fault().says()).startsWith("one part of R1");
    assertThat(one.harm().touch()).isEmpty();
    assertThat(one.harm().pin().orElseThrow().volts()).isLessThan(5);
  }

  /** Without its burden a transmitter drives the input as high as its supply lets it. */
  @Test
  void anOpenBurdenIsCarriedByTheInput() {
    Harm h = row("HD-L1", FaultKind.PART_OPEN, "Rb").harm();
    assertThat(h.pin().orElseThrow().volts()).isCloseTo(24 - 10, within(0.2));
    assertThat(h.pin().orElseThrow().amperes()).isCloseTo(0.02, within(0.002));
    Harm shorted = row("HD-L1", FaultKind.SIGNAL_TO_SUPPLY, "").harm();
    assertThat(shorted.part().orElseThrow().watts()).isCloseTo(24 * 24 / 150.0, within(0.05));
  }

  /** A clamp that is offered takes the harm from the input, and leaves the reading as it was. */
  @Test
  void aClampThatIsOfferedHolds() {
    int offered = 0;
    for (Channel c : BOOK.channels()) {
      Analysis before = Analysis.of(c);
      Finding f = harm(before);
      if (f == null || f.fix().isEmpty()) continue;
      offered++;
      Channel clamped = f.fix().get().apply().apply(c);
      Analysis after = Analysis.of(clamped);
      assertThat(after.wiring().harms()).as(c.tag()).noneMatch(h -> h.harm().pin().isPresent());
      double middle = c.definition().working().middle();
      assertThat(after.design().path().orElseThrow().output(middle))
          .isCloseTo(before.design().path().orElseThrow().output(middle), within(1e-9));
    }
    assertThat(offered).isGreaterThan(1);
  }

  private static Finding harm(Analysis a) {
    return a.findings().stream()
        .filter(f -> f.rule().equals("fault-harm"))
        .findFirst()
        .orElse(null);
  }

  /** What an input is rated for decides; without a rating it hangs on it, and says so. */
  @Test
  void whatAnInputTakesDecides() {
    Channel c = BOOK.byTag("GV-P1").orElseThrow();
    assertThat(row("GV-P1", FaultKind.PART_OPEN, "R2").harm().says())
        .matches(
            "damages the input: .* V, unless it takes \\d+ µA into it; its rating is not said");
    Converter k = c.design().converter();
    var rated = Element.with(k, k.field("Iin"), Value.of(0.02));
    Analysis robust = Analysis.of(c.design(d -> d.withConverter(rated)));
    assertThat(robust.wiring().harms()).isEmpty();
    assertThat(harm(robust)).isNull();
    var weak = Element.with(k, k.field("Iin"), Value.of(1e-4));
    Analysis delicate = Analysis.of(c.design(d -> d.withConverter(weak)));
    assertThat(delicate.wiring().harms())
        .anyMatch(h -> h.harm().says().contains("rated 100 µA") && h.harm().certain());
  }

  /** A random channel of sensor, passive stages and converter, and its netlist. */
  private static final class Drawn {
    private final Random r;
    private final double supply;
    private final double low;
    private final double high;
    private final double source;
    private final double reference;
    private final double rated;
    private final double power;
    private final double voltage;
    private final List<Stage> stages = new ArrayList<>();
    private final Channel channel;

    Drawn(long seed) {
      r = new Random(seed);
      supply = 3 + 60 * r.nextDouble() * r.nextDouble();
      high = supply * (0.3 + 0.6 * r.nextDouble());
      low = high * 0.3 * r.nextDouble();
      source = ohms(10, 2000);
      reference = new double[] {1.8, 3.3, 5}[r.nextInt(3)];
      rated = r.nextBoolean() ? ohms(0.05e-3, 20e-3) : Double.NaN;
      power = ohms(0.06, 0.5);
      voltage = ohms(15, 250);
      int n = 1 + r.nextInt(3);
      for (int i = 0; i < n; i++) {
        Value a = Value.of(ohms(100, 1e6));
        Value b = Value.of(ohms(100, 1e6));
        stages.add(
            switch (r.nextInt(4)) {
              case 0 -> new Divider(a, b);
              case 1 -> new RcFilter(a, Value.of(1e-7));
              case 2 -> new SeriesResistor(a);
              default -> new InputPull(a, Value.of(r.nextBoolean() ? 0 : reference));
            });
      }
      Value input = r.nextBoolean() ? Value.of(ohms(1e5, 1e7)) : null;
      Value takes = Double.isNaN(rated) ? null : Value.of(rated);
      var sensor =
          new TwoPointSensor(
              Value.of(0), Value.of(low), Value.of(100), Value.of(high), Value.of(source));
      channel =
          Channel.blank("harm-" + seed, "HA-1")
              .define(
                  d ->
                      d.withKind(QuantityKind.LEVEL)
                          .withUnit("mm")
                          .withRange(Value.of(0), Value.of(100)))
              .design(
                  d ->
                      d.withSensor(sensor)
                          .withStages(stages)
                          .withConverter(
                              new Converter(
                                  Value.of(12),
                                  Value.of(reference),
                                  input,
                                  null,
                                  null,
                                  null,
                                  null,
                                  takes))
                          .withSurroundings(
                              Surroundings.BENCH.withRatings(Value.of(power), Value.of(voltage))))
              .wiring(w -> w.withPlan(w.plan().withSupply(Value.typed(supply + "", Unit.VOLT))));
    }

    private double ohms(double from, double to) {
      return from * Math.pow(to / from, r.nextDouble());
    }
  }

  /** The netlist of a drawn channel with a fault in it at one input. */
  private static final class Solved {
    private final Drawn d;
    private final Fault f;
    private final Netlist n = new Netlist();
    private final Map<String, double[]> parts = new HashMap<>();
    private final Map<String, String[]> ends = new HashMap<>();
    private final Map<String, Double> volts;
    private final double amperes;

    Solved(Drawn d, Fault f, double x) {
      this.d = d;
      this.f = f;
      build(n, x);
      volts = n.solve();
      double last = volts.get(last());
      double limit = last < 0 ? -DIODE : d.reference + DIODE;
      var held = new Netlist();
      build(held, x);
      held.r(last(), "h", 1).v("h", "0", limit);
      amperes = Math.abs(held.solve().get(last()) - limit);
    }

    private String last() {
      return "T" + d.stages.size();
    }

    private boolean is(FaultKind... kinds) {
      return List.of(kinds).contains(f.kind());
    }

    private void wire(Netlist n, FaultKind open, FaultKind lead, String receiver, String pin) {
      if (is(open)) n.r(receiver, pin, Double.POSITIVE_INFINITY);
      else if (is(lead)) n.r(receiver, pin, f.severity());
      else if (is(FaultKind.GROUND_OFFSET) && open == FaultKind.GROUND_OPEN) {
        n.v(pin, receiver, f.severity());
      } else n.v(pin, receiver, 0);
    }

    private void build(Netlist n, double x) {
      double share =
          is(FaultKind.SUPPLY_LOW, FaultKind.SUPPLY_HIGH)
              ? f.severity()
              : is(FaultKind.SUPPLY_DEAD) ? 0 : 1;
      n.v("S", "0", d.supply * share);
      if (is(FaultKind.SWAPPED)) {
        n.v("s", "0", 0).v("g", "S", 0);
      } else {
        wire(n, FaultKind.SUPPLY_OPEN, FaultKind.SUPPLY_LEAD, "S", "s");
        wire(n, FaultKind.GROUND_OPEN, FaultKind.GROUND_LEAD, "0", "g");
      }
      wire(n, FaultKind.SIGNAL_OPEN, FaultKind.SIGNAL_LEAD, "T0", "o");
      double load = d.supply / 0.005;
      n.r("s", "g", load);
      boolean dead =
          is(
              FaultKind.SUPPLY_OPEN,
              FaultKind.GROUND_OPEN,
              FaultKind.SWAPPED,
              FaultKind.SUPPLY_DEAD);
      double left =
          switch (f.kind()) {
            case SUPPLY_LOW, SUPPLY_HIGH -> d.supply * f.severity();
            case GROUND_OFFSET -> d.supply - f.severity();
            case SUPPLY_LEAD, GROUND_LEAD -> d.supply * load / (load + f.severity());
            default -> d.supply;
          };
      double gives = d.low + (d.high - d.low) * x / 100;
      n.v("e", "g", dead ? 0 : Math.min(gives, left)).r("e", "o", d.source);
      if (is(FaultKind.SIGNAL_TO_GROUND)) n.r("T0", "0", 0.1);
      if (is(FaultKind.SIGNAL_TO_SUPPLY)) n.r("T0", "S", 0.1);
      if (is(FaultKind.LEAK_TO_GROUND)) n.r("T0", "0", f.severity());
      if (is(FaultKind.LEAK_TO_SUPPLY)) n.r("T0", "S", f.severity());
      for (int i = 0; i < d.stages.size(); i++) stage(n, i);
      Value input = d.channel.design().converter().inputResistance();
      if (input != null) n.r(last(), "0", ohms(d.stages.size() + 1, "Rin", input.number()));
    }

    private void stage(Netlist n, int i) {
      String in = "T" + i;
      String out = "T" + (i + 1);
      switch (d.stages.get(i)) {
        case Divider v -> {
          part(n, i + 1, "R1", v.upper().number(), in, out);
          part(n, i + 1, "R2", v.lower().number(), out, "0");
        }
        case RcFilter v -> part(n, i + 1, "R", v.resistance().number(), in, out);
        case SeriesResistor v -> part(n, i + 1, "Rx", v.resistance().number(), in, out);
        case InputPull v -> {
          n.v(out, in, 0).v("hold" + i, "0", v.towards().number());
          part(n, i + 1, "Rh", v.resistance().number(), out, "hold" + i);
        }
        default -> throw new AssertionError();
      }
    }

    private void part(Netlist n, int element, String name, double ohms, String a, String b) {
      double now = ohms(element, name, ohms);
      n.r(a, b, now);
      boolean shorted = is(FaultKind.PART_SHORT) && mine(element, name);
      if (!shorted && !Double.isInfinite(now)) {
        parts.put(element + " " + name, new double[] {now});
        ends.put(element + " " + name, new String[] {a, b});
      }
    }

    private boolean mine(int element, String name) {
      return f.element() == element && f.part().equals(name);
    }

    private double ohms(int element, String name, double ohms) {
      if (!mine(element, name)) return ohms;
      return switch (f.kind()) {
        case PART_OPEN -> Double.POSITIVE_INFINITY;
        case PART_SHORT -> 0.1;
        case PART_DRIFT, PART_DECADE -> ohms * f.severity();
        default -> ohms;
      };
    }

    /** Watts and volts of each part, in shares of the ratings: the larger. */
    Map<String, Double> over() {
      var map = new HashMap<String, Double>();
      parts.forEach(
          (name, ohms) -> {
            double v = Math.abs(volts.get(ends.get(name)[0]) - volts.get(ends.get(name)[1]));
            map.put(name, Math.max(v * v / ohms[0] / d.power, v / d.voltage));
          });
      return map;
    }

    double beyond() {
      double v = volts.get(last());
      return Math.max(0, Math.max(v - d.reference - DIODE, -DIODE - v));
    }
  }

  private static double at(int i) {
    return 100.0 * i / STEPS;
  }

  /**
   * 300 random circuits with every fault of theirs: what is said to be damaged is, and what is
   * damaged is said.
   */
  @Test
  @Tag("campaign")
  void damageIsNamedWhereItIsAndNowhereElse() {
    compare(40, 300);
  }

  /** The first forty of them. */
  @Test
  void damageOfFortyCircuitsIsNamed() {
    compare(0, 40);
  }

  private static void compare(long from, long to) {
    int compared = 0;
    int harmful = 0;
    for (long seed = from; seed < to; seed++) {
      var d = new Drawn(seed);
      FaultMatrix m = Analysis.of(d.channel).wiring().faults().orElseThrow();
      double soundPin = 0;
      var soundParts = new HashMap<String, Double>();
      for (int i = 0; i <= STEPS; i++) {
        var s = new Solved(d, Fault.NONE, at(i));
        soundPin = Math.max(soundPin, s.beyond());
        s.over().forEach((k, v) -> soundParts.merge(k, v, Math::max));
      }
      for (FaultRow row : m.rows()) {
        Fault f = row.fault();
        boolean drawn =
            switch (f.kind().family()) {
              case WIRE, PART -> true;
              default -> false;
            };
        if (!drawn || row.floating()) continue;
        compared++;
        String as = "seed %d, %s".formatted(seed, f.says());
        double worst = 0;
        double amperes = 0;
        double over = 0;
        for (int i = 0; i <= STEPS; i++) {
          var s = new Solved(d, f, at(i));
          double beyond = s.beyond();
          boolean more = beyond > 1.05 * soundPin;
          boolean takes = !Double.isNaN(d.rated) && s.amperes <= d.rated;
          if (beyond > 0 && more && !takes && s.amperes > amperes) {
            amperes = s.amperes;
            worst = s.volts.get(s.last());
          }
          for (var e : s.over().entrySet()) {
            double sound = soundParts.getOrDefault(e.getKey(), 0.0);
            if (e.getValue() > 1 && e.getValue() > 1.05 * sound)
              over = Math.max(over, e.getValue());
          }
        }
        Harm h = row.harm();
        if (amperes > 1e-8) {
          assertThat(h.pin()).as(as).isPresent();
          assertThat(h.pin().get().volts()).as(as).isCloseTo(worst, within(1e-6 * Math.abs(worst)));
          assertThat(h.pin().get().amperes()).as(as).isCloseTo(amperes, within(1e-5 * amperes));
        } else if (h.pin().isPresent()) {
          assertThat(h.pin().get().amperes()).as(as).isLessThan(2e-8);
        }
        if (over > 1.0001) {
          assertThat(h.part()).as(as).isPresent();
          Harm.Part p = h.part().get();
          assertThat(Math.max(p.overPower(), p.overVolts()))
              .as(as)
              .isCloseTo(over, within(1e-5 * over));
        } else if (h.part().isPresent()) {
          assertThat(Math.max(h.part().get().overPower(), h.part().get().overVolts()))
              .as(as)
              .isLessThan(1.001);
        }
        if (h.any()) harmful++;
      }
    }
    assertThat(compared).isGreaterThan((int) (13 * (to - from)));
    assertThat(harmful).isGreaterThan((int) (2 * (to - from)));
  }
}
