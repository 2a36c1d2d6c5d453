package nocking.firmware;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.band.Positions;
import nocking.band.SwitchPoint;
import nocking.converter.Converter;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.wiring.Thresholds;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** States of all codes of random plans, by their definition, by the tool, by C and by Python. */
class DecoderTest {
  private static final int PLANS = 50;
  private static final int WALK = 400;

  @TempDir Path folder;

  /** A plan with its converter and limits; the reading is a straight line. */
  private record Plan(
      BandPlan bands, Converter converter, Thresholds limits, double slope, double offset) {
    static Plan any(Random r) {
      var converter = Converter.of(6 + r.nextInt(7), 2 + 3 * r.nextDouble());
      double top = converter.reference().number();
      Thresholds limits =
          r.nextInt(3) == 0
              ? null
              : new Thresholds(
                  r.nextInt(4) == 0 ? null : v(0.04 * top * r.nextDouble()),
                  v(top * (0.9 + 0.1 * r.nextDouble())));
      double slope = (r.nextBoolean() ? 1 : -1) * (5 + 20 * r.nextDouble());
      BandPlan bands =
          switch (r.nextInt(3)) {
            case 0 -> positions(r, top);
            case 1 -> alarms(r);
            default -> contact(r);
          };
      return new Plan(bands, converter, limits, slope, 30 * r.nextDouble());
    }

    private static BandPlan positions(Random r, double top) {
      int n = 1 + r.nextInt(7);
      var list = new ArrayList<BandPosition>();
      for (int i = 0; i < n; i++) {
        double centre = top * (i + 0.3 + 0.4 * r.nextDouble()) / n;
        // Windows may overlap: then the nearer centre has the code.
        Value half = v(top / n * (0.2 + 0.6 * r.nextDouble()));
        list.add(new BandPosition("Sluice " + (i % 5), v(centre), half, List.of(), List.of()));
      }
      return BandPlan.EMPTY.withPositions(list).withDwell(v(0.05 * r.nextInt(4)));
    }

    private static BandPlan contact(Random r) {
      Value at = v(-10 + 40 * r.nextDouble());
      Value window = v(0.2 + 3 * r.nextDouble());
      return BandPlan.EMPTY.withSwitches(
          List.of(new SwitchPoint("end of travel", at, window, null, null, r.nextBoolean())));
    }

    private static BandPlan alarms(Random r) {
      var list = new ArrayList<AlarmBand>();
      double at = -20 + 20 * r.nextDouble();
      list.add(new AlarmBand("low", null, v(at)));
      for (int i = 0; i < r.nextInt(4); i++) {
        double from = at + (r.nextBoolean() ? 0 : 3 * r.nextDouble());
        at = from + 5 + 10 * r.nextDouble();
        list.add(new AlarmBand("band \"" + i + "\"", v(from), v(at)));
      }
      list.add(new AlarmBand("high", v(at), null));
      return BandPlan.EMPTY.withAlarms(list).withHysteresis(v(3 * r.nextDouble()));
    }

    double reading(double volts) {
      return offset + slope * volts;
    }

    boolean selects() {
      return !bands.positions().isEmpty();
    }

    List<Positions.Window> windows() {
      return Positions.of(bands, new Span(0, converter.reference().number())).windows();
    }

    boolean contact() {
      return !bands.switches().isEmpty();
    }

    Decoder decoder() {
      if (contact()) {
        return Decoder.ofContact(bands.switches().getFirst(), this::reading, limits, converter);
      }
      return selects()
          ? Decoder.ofPositions(windows(), limits, converter, bands.dwell())
          : Decoder.ofAlarms(bands, this::reading, limits, converter);
    }

    /** By the words of the definition. */
    String expected(int code) {
      double volts = (code + 0.5) * converter.reference().number() / converter.codes();
      if (limits != null && limits.low() != null && volts < limits.low().number()) {
        return "fault low";
      }
      if (limits != null && limits.high() != null && volts > limits.high().number()) {
        return "fault high";
      }
      if (contact()) return level(reading(volts));
      return selects() ? position(volts) : alarm(reading(volts));
    }

    /** A contact to ground that closes above its place pulls its input low there. */
    private String level(double x) {
      SwitchPoint s = bands.switches().getFirst();
      double low = s.at().number() - s.window().number();
      double high = s.at().number() + s.window().number();
      if (x >= low && x <= high) return "either";
      boolean above = x > high;
      if (s.activeLow()) return above ? "low" : "high";
      return above ? "high" : "low";
    }

    private String position(double volts) {
      String best = "between";
      double nearest = Double.POSITIVE_INFINITY;
      for (BandPosition p : bands.positions()) {
        double off = Math.abs(volts - p.centre().number());
        boolean inside =
            volts >= p.centre().number() - p.half().number()
                && volts <= p.centre().number() + p.half().number();
        if (inside && off < nearest) {
          nearest = off;
          best = p.name();
        }
      }
      return best;
    }

    private String alarm(double x) {
      for (AlarmBand b : bands.alarms()) {
        if ((b.from() == null || x >= b.from().number()) && (b.to() == null || x < b.to().number()))
          return b.name();
      }
      return "between";
    }
  }

  private static List<Plan> plans() {
    var random = new Random(20261126);
    var list = new ArrayList<Plan>();
    for (int i = 0; i < PLANS; i++) list.add(Plan.any(random));
    return list;
  }

  /** The walk that a hand makes over the codes, with the milliseconds that it takes. */
  private static int[][] walk(Plan p, long seed) {
    var random = new Random(seed);
    int[][] steps = new int[WALK][2];
    int code = random.nextInt(p.converter.codes());
    int ms = 0;
    for (int i = 0; i < WALK; i++) {
      int reach = 1 + p.converter.codes() / 12;
      code =
          Math.clamp(
              (long) code + random.nextInt(2 * reach + 1) - reach, 0, p.converter.codes() - 1);
      ms += random.nextInt(60);
      steps[i][0] = code;
      steps[i][1] = ms;
    }
    return steps;
  }

  @Test
  void everyCodeHasTheStateThatTheWordsGiveIt() {
    for (Plan p : plans()) {
      Decoder d = p.decoder();
      for (int code = 0; code < p.converter.codes(); code++) {
        assertThat(d.states().get(d.state(code)))
            .as("%s, code %d", p, code)
            .isEqualTo(p.expected(code));
      }
    }
  }

  /** A state holds while the reading is inside its band and the hysteresis beside it. */
  @Test
  void hysteresisKeepsAState() {
    for (Plan p : plans()) {
      if (p.selects() || p.contact()) continue;
      Decoder d = p.decoder();
      double h = p.bands.hysteresis().number();
      for (int before = 0; before < p.bands.alarms().size(); before++) {
        AlarmBand b = p.bands.alarms().get(before);
        for (int code = 0; code < p.converter.codes(); code += 3) {
          double x = p.reading(p.converter.volts(code));
          boolean kept =
              (b.from() == null || x >= b.from().number() - h)
                  && (b.to() == null || x < b.to().number() + h);
          boolean fault = p.expected(code).startsWith("fault");
          int expected = kept && !fault ? before : d.state(code);
          assertThat(d.next(before, code)).as("%s, code %d", p, code).isEqualTo(expected);
        }
      }
    }
  }

  private static boolean runs(String program) {
    try {
      return new ProcessBuilder(program, "--version").redirectErrorStream(true).start().waitFor()
          == 0;
    } catch (IOException | InterruptedException e) {
      return false;
    }
  }

  private static List<String> run(String... command) throws IOException, InterruptedException {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    List<String> lines = new String(p.getInputStream().readAllBytes()).lines().toList();
    assertThat(p.waitFor()).as("%s: %s", String.join(" ", command), lines).isZero();
    return lines;
  }

  /** What every program has to print: states of all codes, then of a walk, then its own test. */
  private static List<String> expected() {
    var lines = new ArrayList<String>();
    List<Plan> plans = plans();
    for (int i = 0; i < PLANS; i++) {
      Decoder d = plans.get(i).decoder();
      for (int code = 0; code < d.codes(); code++) lines.add(String.valueOf(d.state(code)));
      int[][] walk = walk(plans.get(i), i);
      Decoder.Follower follower = d.new Follower(walk[0][0], walk[0][1]);
      for (int[] step : walk) lines.add(String.valueOf(follower.update(step[0], step[1])));
      lines.add("0");
    }
    return lines;
  }

  @Test
  void compiledCodeAgreesOverAllCodesAndAlongAWalk() throws IOException, InterruptedException {
    assumeThat(runs("cc")).as("a C compiler").isTrue();
    var main = new StringBuilder("#include <stdio.h>\n");
    var body = new StringBuilder();
    List<Plan> plans = plans();
    for (int i = 0; i < PLANS; i++) {
      String name = "p" + i;
      var source = new DecoderSource(name, "Plan " + i + " */ of the hatchery");
      Decoder d = plans.get(i).decoder();
      Files.writeString(folder.resolve(name + ".h"), source.header(d));
      main.append("#include \"").append(name).append(".h\"\n");
      body.append(
          "for (int32_t r = 0; r < %d; r++) printf(\"%%d\\n\", %s_state(r));\n"
              .formatted(d.codes(), name));
      int[][] walk = walk(plans.get(i), i);
      body.append(
          "{ %s_decoder d; %s_begin(&d, %d, %d);\n".formatted(name, name, walk[0][0], walk[0][1]));
      for (int[] step : walk) {
        body.append(
            "printf(\"%%d\\n\", %s_update(&d, %d, %d));\n".formatted(name, step[0], step[1]));
      }
      body.append("(void)%s_word; printf(\"%%d\\n\", %s_selftest()); }\n".formatted(name, name));
    }
    main.append("int main(void)\n{\n").append(body).append("return 0;\n}\n");
    Path file = folder.resolve("main.c");
    Files.writeString(file, main);
    Path binary = folder.resolve("main");
    run("cc", "-std=c99", "-Wall", "-Wextra", "-Werror", "-o", binary.toString(), file.toString());
    assertThat(run(binary.toString())).isEqualTo(expected());
  }

  @Test
  void pythonAgreesOverAllCodesAndAlongAWalk() throws IOException, InterruptedException {
    assumeThat(runs("python3")).as("Python").isTrue();
    var main = new StringBuilder();
    List<Plan> plans = plans();
    for (int i = 0; i < PLANS; i++) {
      Decoder d = plans.get(i).decoder();
      Files.writeString(
          folder.resolve("p" + i + ".py"), new DecoderSource("p" + i, "Plan " + i).python(d));
      main.append(
          "import p%d\nfor r in range(%d): print(p%d.state(r))\n".formatted(i, d.codes(), i));
      int[][] walk = walk(plans.get(i), i);
      main.append("d = p%d.Decoder(%d, %d)\n".formatted(i, walk[0][0], walk[0][1]));
      for (int[] step : walk) main.append("print(d.update(%d, %d))\n".formatted(step[0], step[1]));
      main.append("print(p%d.selftest())\n".formatted(i));
    }
    Path file = folder.resolve("main.py");
    Files.writeString(file, main);
    assertThat(run("python3", file.toString())).isEqualTo(expected());
  }

  /** Names that a technician may give and that mean something to a compiler. */
  @Test
  void namesOfStatesNeverClashWithTheSource() throws IOException, InterruptedException {
    assumeThat(runs("cc") && runs("python3")).as("a C compiler and Python").isTrue();
    List<String> names =
        List.of(
            "States",
            "faults",
            "dwell ms",
            "decoder h",
            "1 open",
            "1 open",
            "what??/",
            "a\\b\"c\"",
            "Überlauf",
            "—",
            "int",
            "between");
    var list = new ArrayList<BandPosition>();
    for (int i = 0; i < names.size(); i++) {
      list.add(new BandPosition(names.get(i), v(0.1 + 0.25 * i), v(0.1), List.of(), List.of()));
    }
    BandPlan plan = BandPlan.EMPTY.withPositions(list).withDwell(v(0.1));
    Decoder d =
        Decoder.ofPositions(
            Positions.of(plan, new Span(0, 3.3)).windows(),
            new Thresholds(v(0.001), v(3.2)),
            Converter.of(10, 3.3),
            plan.dwell());
    var source = new DecoderSource("odd", "Odd names */ ??/");
    Files.writeString(folder.resolve("odd.h"), source.header(d));
    Files.writeString(folder.resolve("odd.py"), source.python(d));
    Files.writeString(
        folder.resolve("m.c"),
        """
        #include <stdio.h>
        #include "odd.h"
        int main(void)
        {
            odd_decoder d;
            odd_begin(&d, 0, 0);
            (void)odd_update(&d, 5, 1);
            for (int i = 0; i < ODD_STATES; i++) printf("%s\\n", odd_word(i));
            return odd_selftest();
        }
        """);
    Path binary = folder.resolve("m");
    Path main = folder.resolve("m.c");
    run("cc", "-std=c99", "-Wall", "-Werror", "-o", binary.toString(), main.toString());
    assertThat(run(binary.toString())).isEqualTo(d.states());
    Files.writeString(
        folder.resolve("m.py"),
        "import odd\nassert odd.selftest() == 0\nprint('\\n'.join(odd.STATES))\nodd.Decoder(0, 0)\n");
    assertThat(run("python3", "-X", "utf8", folder.resolve("m.py").toString()))
        .isEqualTo(d.states());
  }

  @Test
  void whatIsNoDecoderIsRefused() {
    assertThatThrownBy(() -> Decoder.ofPositions(List.of(), null, Converter.of(12, 3.3), null))
        .isInstanceOf(QuantityException.class)
        .hasMessage("there is no position to decode");
    BandPlan plan =
        BandPlan.EMPTY
            .withAlarms(
                List.of(new AlarmBand("low", null, v(1)), new AlarmBand("high", v(1), null)))
            .withHysteresis(v(0.1));
    assertThatThrownBy(
            () -> Decoder.ofAlarms(plan, x -> Math.sin(5 * x), null, Converter.of(10, 3.3)))
        .hasMessageContaining("no single stretch of codes is that band");
    assertThatThrownBy(() -> Decoder.ofAlarms(plan, x -> x, null, Converter.of(24, 3.3)))
        .hasMessage("a decoder is made for converters of at most 20 bits; this one has 24");
  }
}
