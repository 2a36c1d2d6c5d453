package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.HashMap;
import java.util.Map;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.channel.Adopted;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.element.Measurand;
import nocking.fault.Fault;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultRow;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.path.SensorCurve;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.sensor.Sensor;
import nocking.wiring.Place;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Every fault of every channel against netlists that are written down here from the drawings, part
 * by part, with the amplifiers worked out on paper.
 */
class FaultRefereeTest {
  private static final Book BOOK = Hatchery.book(Hatchery.SEED);
  private static final double INF = Double.POSITIVE_INFINITY;

  static Stream<String> tags() {
    return BOOK.channels().stream().map(Channel::tag);
  }

  @ParameterizedTest
  @MethodSource("tags")
  void matrixAgreesWithItsNetlist(String tag) {
    // The design's own constants: a calibration moves the last node by what it found.
    Channel c = BOOK.byTag(tag).orElseThrow().calibration(k -> k.withAdopted(Adopted.DESIGN));
    Subject subject = Analysis.of(c, BOOK.cards()).wiring().subject().orElseThrow();
    FaultMatrix matrix = FaultMatrix.of(subject);
    int compared = 0;
    for (FaultRow row : matrix.rows()) {
      for (double at : new double[] {0, 0.3, 1}) {
        double x = c.definition().working().at(at);
        FaultyPath path = FaultyPath.of(subject, row.fault(), x);
        if (path.converter().floats()) continue;
        Map<String, Double> expected = new Drawing(c, row.fault(), x).places();
        for (Place p : matrix.places()) {
          Double value = expected.get(p.key());
          if (value == null) continue;
          FaultyPath.Reading r = path.read(p, INF);
          if (r.floats()) continue;
          assertThat(r.value())
              .as("%s, %s, %s at %s", tag, row.fault().says(), p.title(), x)
              .isCloseTo(value, within(1e-9 * Math.max(1, Math.abs(value)) * amplified(row)));
          compared++;
        }
      }
    }
    assertThat(compared).isGreaterThan(3 * matrix.rows().size());
  }

  /** A shorted gain resistor multiplies the rounding of two 2.5 V nodes by half a million. */
  private static double amplified(FaultRow row) {
    boolean shorted = row.fault().kind() == FaultKind.PART_SHORT && row.fault().part().equals("Rg");
    return shorted ? 1000 : 1;
  }

  /** One channel's drawing with one fault in it. */
  private static final class Drawing {
    private final Channel channel;
    private final Fault fault;
    private final double x;
    private final Netlist n = new Netlist();
    private final Map<String, Double> out = new HashMap<>();
    private String s = "S";
    private String g = "0";

    Drawing(Channel channel, Fault fault, double x) {
      this.channel = channel;
      this.fault = fault;
      Span w = channel.definition().working();
      this.x = fault.kind() == FaultKind.MIRRORED ? w.low() + w.high() - x : x;
    }

    /** Volts of the supply with what is wrong with it. */
    private double fed(double nominal) {
      return switch (fault.kind()) {
        case SUPPLY_LOW, SUPPLY_HIGH -> nominal * fault.severity();
        case SUPPLY_DEAD -> 0;
        default -> nominal;
      };
    }

    private boolean is(FaultKind kind) {
      return fault.kind() == kind;
    }

    /** A part's ohms, with what has become of it. */
    private double part(int element, String name, double ohms) {
      if (fault.element() != element || !fault.part().equals(name)) return ohms;
      return switch (fault.kind()) {
        case PART_OPEN -> INF;
        case PART_SHORT -> 0.1;
        case PART_DRIFT, PART_DECADE -> ohms * fault.severity();
        default -> ohms;
      };
    }

    private double given() {
      Sensor sensor = is(FaultKind.OTHER_SENSOR) ? fault.other() : channel.design().sensor();
      var measurand = new Measurand(channel.definition().kind().symbol(), channel.unit());
      var curve = SensorCurve.of(measurand, sensor);
      double v = curve.at(sensor.known(channel.unit()).map(k -> k.clamp(x)).orElse(x));
      if (is(FaultKind.SENSOR_DRIFT)) return v * fault.severity();
      if (is(FaultKind.SENSOR_OFFSET)) {
        double low = curve.at(channel.definition().low().number());
        double high = curve.at(channel.definition().high().number());
        return v + fault.severity() * Math.abs(high - low);
      }
      return v;
    }

    /** A wire from the receiver's node to the sensor's pin. */
    private void wire(FaultKind open, FaultKind lead, String receiver, String pin) {
      if (is(open)) n.r(receiver, pin, INF);
      else if (is(lead)) n.r(receiver, pin, fault.severity());
      else if (is(FaultKind.GROUND_OFFSET) && open == FaultKind.GROUND_OPEN) {
        n.v(pin, receiver, fault.severity());
      } else n.v(pin, receiver, 0);
    }

    private void threeWires(double supply, String signal) {
      n.v("S", "0", fed(supply));
      if (is(FaultKind.SWAPPED)) {
        n.v("s", "0", 0).v("g", "S", 0);
      } else {
        wire(FaultKind.SUPPLY_OPEN, FaultKind.SUPPLY_LEAD, "S", "s");
        wire(FaultKind.GROUND_OPEN, FaultKind.GROUND_LEAD, "0", "g");
      }
      wire(FaultKind.SIGNAL_OPEN, FaultKind.SIGNAL_LEAD, signal, "o");
      s = "s";
      g = "g";
      across(signal);
    }

    private void across(String signal) {
      if (is(FaultKind.SIGNAL_TO_GROUND)) n.r(signal, "0", 0.1);
      if (is(FaultKind.SIGNAL_TO_SUPPLY)) n.r(signal, "S", 0.1);
      if (is(FaultKind.LEAK_TO_GROUND)) n.r(signal, "0", fault.severity());
      if (is(FaultKind.LEAK_TO_SUPPLY)) n.r(signal, "S", fault.severity());
    }

    private double driver(double ohms) {
      boolean shorted =
          is(FaultKind.SIGNAL_TO_GROUND)
              || is(FaultKind.SIGNAL_TO_SUPPLY)
              || is(FaultKind.PART_SHORT) && fault.part().equals("Rh");
      return ohms == 0 && shorted ? 100 : ohms;
    }

    private void electronics(double supply, double source) {
      threeWires(supply, "TP1");
      n.r(s, g, supply / 0.005);
      boolean dead =
          is(FaultKind.SUPPLY_OPEN)
              || is(FaultKind.GROUND_OPEN)
              || is(FaultKind.SWAPPED)
              || is(FaultKind.SUPPLY_DEAD);
      // No output goes above what is left of its own supply.
      double fed =
          switch (fault.kind()) {
            case SUPPLY_LOW, SUPPLY_HIGH -> fed(supply);
            case GROUND_OFFSET -> supply - fault.severity();
            case SUPPLY_LEAD, GROUND_LEAD ->
                supply * (supply / 0.005) / (supply / 0.005 + fault.severity());
            default -> supply;
          };
      n.v("e", g, dead ? 0 : Math.min(given(), fed));
      output(source);
    }

    private void ratiometric(double supply, double source) {
      threeWires(supply, "TP1");
      n.r(s, g, supply / 0.005);
      if (is(FaultKind.SWAPPED)) n.v("e", g, 0);
      else n.e(s, g, "e", g, given() / supply);
      output(source);
    }

    private void output(double source) {
      double ohms = driver(source);
      if (ohms == 0) n.v("o", "e", 0);
      else n.r("e", "o", ohms);
    }

    private void ends(Map<String, Double> v, String signal, String minus) {
      out.put("supply-receiver", v.get("S"));
      if (v.containsKey("s")) out.put("supply-sensor", v.get("s") - v.get("g"));
      if (v.containsKey("g")) out.put("ground", v.get("g"));
      out.put("sensor", v.get("o") - v.get(minus));
      out.put("receiver", v.get(signal));
    }

    Map<String, Double> places() {
      switch (channel.tag()) {
        case "IN-T2" -> incubator();
        case "BL-P1" -> blower();
        case "OX-D1" -> oxygen();
        case "GV-P1" -> gate();
        case "RW-T1" -> raceway();
        case "HD-L1" -> tank();
        case "SG-P1" -> sluice();
        case "FD-S1", "SP-V1", "SP-V2" -> pulledDown();
        case "FH-W1" -> hopper();
        case "AE-V1" -> aerator();
        case "PD-Q1" -> paddle();
        case "SC-A1" -> screen();
        default -> throw new AssertionError(channel.tag() + " has no drawing here");
      }
      return out;
    }

    private void screen() {
      electronics(5, 0);
      ends(n.solve(), "TP1", "g");
    }

    private void incubator() {
      electronics(5, 0);
      n.r("TP1", "p", part(1, "Rg at +", 10e3));
      n.r("p", "vg", part(1, "Rf at +", 135e3));
      n.v("vg", "0", 1.65);
      Map<String, Double> v = n.solve();
      ends(v, "TP1", "g");
      double rg = part(1, "Rg at −", 10e3);
      double rf = part(1, "Rf at −", 135e3);
      out.put("TP2", amplifier(v.get("p"), 0.53, rf, rg, 0, 3.3));
    }

    /** Output of an amplifier whose minus input stands between its output and a reference. */
    private static double amplifier(
        double plus, double reference, double rf, double rg, double low, double high) {
      if (Double.isInfinite(rg)) return Math.clamp(plus, low, high);
      if (Double.isInfinite(rf)) return plus > reference ? high : low;
      return Math.clamp(plus + (plus - reference) * rf / rg, low, high);
    }

    private void blower() {
      ratiometric(5, 0);
      n.r("TP1", "TP2", part(1, "R1", 5100)).r("TP2", "0", part(1, "R2", 10e3));
      Map<String, Double> v = n.solve();
      ends(v, "TP1", "g");
      out.put("TP2", v.get("TP2"));
    }

    private void oxygen() {
      electronics(5, 0);
      n.r("TP1", "0", part(1, "Rh", 1e6));
      Map<String, Double> v = n.solve();
      ends(v, "TP1", "g");
      out.put("TP2", v.get("TP1"));
      double rf = part(2, "Rf", 49e3);
      double rg = part(2, "Rg", 1e3);
      out.put("TP3", amplifier(v.get("TP1"), 0, rf, rg, 0, 3.2));
    }

    private void gate() {
      electronics(5, 100);
      n.r("TP1", "TP2", part(1, "R1", 6800)).r("TP2", "0", part(1, "R2", 10e3));
      Map<String, Double> v = n.solve();
      ends(v, "TP1", "g");
      out.put("TP2", v.get("TP2"));
    }

    private void raceway() {
      if (is(FaultKind.SUPPLY_OPEN)) n.r("S", "0", INF);
      else n.v("S", "0", fed(3.3));
      n.r("S", "TP2", part(1, "Rp", 18e3));
      wire(FaultKind.GROUND_OPEN, FaultKind.GROUND_LEAD, "0", "g");
      wire(FaultKind.SIGNAL_OPEN, FaultKind.SIGNAL_LEAD, "TP2", "o");
      n.r("o", "g", part(0, "R", given()));
      across("TP2");
      Map<String, Double> v = n.solve();
      ends(v, "TP2", "g");
      out.remove("supply-sensor");
      if (is(FaultKind.SUPPLY_OPEN)) out.remove("supply-receiver");
    }

    /** The transmitter keeps its current while 10 V are left to it. */
    private void tank() {
      double supply = fed(24);
      n.v("S", "0", supply).r("TP2", "0", part(1, "Rb", 150));
      boolean dead =
          is(FaultKind.SUPPLY_OPEN)
              || is(FaultKind.SIGNAL_OPEN)
              || is(FaultKind.SWAPPED)
              || is(FaultKind.SUPPLY_DEAD)
              || is(FaultKind.SIGNAL_TO_SUPPLY);
      double lead = is(FaultKind.SUPPLY_LEAD) || is(FaultKind.SIGNAL_LEAD) ? fault.severity() : 0;
      double load = 8 + lead + part(1, "Rb", 150);
      double current = Math.min(given(), (supply - 10) / load);
      across("TP2");
      boolean shorted = is(FaultKind.SIGNAL_TO_GROUND) || is(FaultKind.SIGNAL_TO_SUPPLY);
      boolean leaking = is(FaultKind.LEAK_TO_GROUND) || is(FaultKind.LEAK_TO_SUPPLY);
      // With nothing left across it the transmitter lets nothing through, least of all backwards.
      if (Double.isInfinite(load)) {
        n.v("S", "t", 10).r("t", "TP2", 8);
        current = 0;
      } else {
        n.i("S", "TP2", dead ? 0 : shorted || leaking ? given() : current);
      }
      Map<String, Double> v = n.solve();
      out.put("receiver", v.get("TP2"));
      out.put("supply-receiver", v.get("S"));
      out.put("loop", dead ? 0 : shorted || leaking ? given() : current);
    }

    private void sluice() {
      threeWires(5, "TP1");
      double k = 0.92 + (0.08 - 0.92) * x / 100;
      n.r("o", g, part(0, "Rp below", 20 + 5000 * k));
      n.r(s, "o", part(0, "Rp above", 20 + 5000 * (1 - k)));
      n.r("TP1", "TP2", part(1, "Rx", 1000)).r("TP2", "0", part(2, "Rin", 470e3));
      Map<String, Double> v = n.solve();
      ends(v, "TP1", "g");
      out.put("TP2", v.get("TP2"));
    }

    private void pulledDown() {
      electronics(5, 0);
      n.r("TP1", "0", part(1, "Rh", 100e3));
      Map<String, Double> v = n.solve();
      ends(v, "TP1", "g");
      out.put("TP2", v.get("TP1"));
    }

    private void hopper() {
      threeWires(5, "TP1");
      double d = given() / 5;
      n.r(s, "o", part(0, "arm 1", 350 * (1 - d))).r("o", g, part(0, "arm 2", 350 * (1 + d)));
      n.r(s, "m", part(0, "arm 3", 350 * (1 + d))).r("m", g, part(0, "arm 4", 350 * (1 - d)));
      Map<String, Double> v = n.solve();
      ends(v, "TP1", "m");
      double in = v.get("TP1") - v.get("m");
      out.put("receiver", in);
      double gain = 1 + 50e3 / part(1, "Rg", 127);
      if (is(FaultKind.PART_OPEN) && fault.part().equals("Rg")) gain = 1 + 50e3 / (127 * 1e12);
      out.put("TP2", Math.clamp(0.25 + gain * in, 0.05, 4.95));
    }

    private void aerator() {
      double peak = Math.sqrt(2) * x;
      double capacitor = is(FaultKind.CAPACITOR_OPEN) ? 2 / Math.PI : 1;
      wire(FaultKind.GROUND_OPEN, FaultKind.GROUND_LEAD, "0", "g");
      wire(FaultKind.SIGNAL_OPEN, FaultKind.SIGNAL_LEAD, "TP1", "o");
      n.v("e", "g", peak * capacitor);
      output(0);
      across("TP1");
      boolean cut = is(FaultKind.GROUND_OPEN) || is(FaultKind.SIGNAL_OPEN);
      double open = cut ? 0 : n.solve().get("TP1");
      double source = cut ? 0 : (open - n.i("TP1", "0", 1e-3).solve().get("TP1")) / 1e-3;
      // Four parts in a row, of which one is shorted.
      boolean one = is(FaultKind.PART_SHORT) && fault.part().equals("R1");
      double r1 = one ? 3 * 390e3 : part(2, "R1", 4 * 390e3);
      double r2 = part(2, "R2", 13e3);
      double ripple = 1 / (4 * (is(FaultKind.DIODE_OPEN) ? 25.0 : 50.0) * 1e-6);
      if (is(FaultKind.CAPACITOR_OPEN)) ripple = 0;
      // Conducting about the peak: the mean current is what flows while |cos| is above cos θ.
      double behind = ripple + r1 + r2;
      double share = behind / (behind + source);
      if (!is(FaultKind.CAPACITOR_OPEN)) {
        share = Math.cos(angle(source / behind, is(FaultKind.DIODE_OPEN) ? 1 : 2));
      }
      double given = Math.max(0, open - 1.6) * share;
      double amperes = given / behind;
      double peakThere = open <= 1.6 ? open : given + 1.6;
      // A stiff source holds its own end whatever hangs on it; only a short finds its driver.
      double atSensor = driver(0) > 0 ? peakThere : peak * capacitor;
      out.put("sensor", atSensor / capacitor / Math.sqrt(2));
      out.put("TP2", given - amperes * ripple);
      out.put("TP3", Double.isInfinite(r2) ? given : amperes * r2);
    }

    /** θ by halving: the charge of the pulses, ∫(cos φ − cos θ)dφ over ±θ, is what is drawn. */
    private static double angle(double ratio, int pulses) {
      double low = 0;
      double high = Math.PI / 2;
      for (int i = 0; i < 200; i++) {
        double a = (low + high) / 2;
        double charge = pulses * 2 * (Math.sin(a) - a * Math.cos(a)) / (2 * Math.PI);
        if (charge < ratio * Math.cos(a)) low = a;
        else high = a;
      }
      return low;
    }

    private void paddle() {
      electronics(5, 15);
      n.v("B", "0", 5);
      n.r("B", "q", part(1, "RA above", 800)).r("q", "0", part(1, "RA below", 200));
      n.r("TP1", "TP2", part(1, "RB before", 1100)).r("TP2", "q", part(1, "RB behind", 8900));
      Map<String, Double> v = n.solve();
      ends(v, "TP1", "g");
      out.put("TP2", v.get("TP2"));
    }
  }
}
