package nocking.proposal;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.channel.Channel;
import nocking.element.Measurand;
import nocking.parts.Candidates;
import nocking.parts.Corners;
import nocking.parts.GainShift;
import nocking.parts.Solution;
import nocking.path.PathCircuit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.ResistorCode;
import nocking.quantity.Span;
import nocking.quantity.Spread;
import nocking.quantity.Value;
import nocking.sensor.AcVoltage;
import nocking.sensor.CurrentLoop;
import nocking.sensor.StrainBridge;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import nocking.stage.Follower;
import nocking.stage.InputPull;
import nocking.stage.InstrumentationAmp;
import nocking.stage.NonInvertingAmp;
import nocking.stage.PullDown;
import nocking.stage.PullUp;
import nocking.stage.Shunt;
import nocking.stage.Stage;

/**
 * The circuits that can stand between a sensor and a converter, each with its best parts.
 *
 * <p>Best is the largest swing at the converter that stays between 0 V and the reference, and
 * between an amplifier's rails, at both ends of the working range in every corner of the parts'
 * tolerances. For one or two resistors every choice is looked at; a gain with a shift is the first
 * of what {@link GainShift} finds near the ends that stays inside in every corner.
 */
final class Topologies {
  /** What a gain with a shift leaves free at either end of the converter. */
  private static final double INSET = 0.05;

  /** More of it, where tolerances ask for more. */
  private static final double[] INSETS = {INSET, 0.1, 0.15, 0.2};

  /** Two pairs, and a divider each for the offset and the virtual ground. */
  private static final int DIFFERENCE_RESISTORS = 8;

  /** One for the gain, and a divider for the reference. */
  private static final int INSTRUMENTATION_RESISTORS = 3;

  /** Volts that are none. */
  private static final double SLACK = 1e-9;

  private static final double LEAST_OHMS = 1e3;
  private static final double MOST_OHMS = 1e6;

  /**
   * One circuit.
   *
   * @param resistors single ones, those that make a reference or an offset among them
   */
  record Circuit(String name, List<Stage> stages, int resistors) {}

  private final Channel channel;
  private final Wanted wanted;
  private final Source source;
  private final double top;
  private final double amplifierTop;
  private final double input;
  private final List<Circuit> found = new ArrayList<>();

  private Topologies(Channel channel, Wanted wanted) {
    this.channel = channel;
    this.wanted = wanted;
    source = Source.of(channel);
    top = channel.design().converter().reference().number();
    amplifierTop = Math.min(top, wanted.supply());
    Value rin = channel.design().converter().inputResistance();
    input = rin == null ? Double.POSITIVE_INFINITY : rin.number();
  }

  /**
   * @throws QuantityException where nothing is proposed for this kind of signal
   */
  static List<Circuit> of(Channel channel, Wanted wanted) {
    if (channel.design().sensor() instanceof AcVoltage) {
      throw new QuantityException(
          "for an alternating voltage nothing is proposed: what isolates it has to be chosen first");
    }
    var t = new Topologies(channel, wanted);
    switch (t.source.signal()) {
      case VOLTAGE -> t.voltage();
      case RESISTANCE -> t.resistance();
      case CURRENT -> t.current();
      case ALTERNATING -> throw new IllegalStateException("no sensor but an alternating one");
    }
    return t.found;
  }

  private double loaded(double ohms) {
    return Double.isInfinite(input) ? ohms : ohms * input / (ohms + input);
  }

  private double volts(boolean high) {
    return high ? source.high() : source.low();
  }

  private double series(boolean high) {
    return high ? source.seriesHigh() : source.seriesLow();
  }

  private Value part(int i) {
    return toleranced(
        new Value(wanted.parts().ohms(i), ResistorCode.of(wanted.parts().ohms(i))),
        wanted.parts().part(i).tolerance());
  }

  private static Value toleranced(Value v, double percent) {
    return percent > 0 && v.spread() == null ? v.withSpread(Spread.percent(percent)) : v;
  }

  /** What drives the converter goes no higher than its reference, whatever comes in. */
  private Value rail(int which) {
    return Value.of(which == 0 ? 0 : amplifierTop);
  }

  private static Stage follower(double top) {
    return new Follower(Value.of(0), Value.of(top));
  }

  private void voltage() {
    boolean bridge = channel.design().sensor() instanceof StrainBridge;
    if (source.least() >= 0 && source.most() <= top) {
      found.add(new Circuit("direct path", List.of(), 0));
      if (!bridge) pulled();
      if (!bridge && !source.stiff() && source.most() <= amplifierTop) {
        found.add(new Circuit("follower", List.of(follower(amplifierTop)), 0));
      }
    }
    if (bridge) {
      instrumentation();
      return;
    }
    if (source.least() >= 0 && source.most() > top) {
      divider(false);
      if (!source.stiff() && source.most() <= wanted.supply()) divider(true);
    }
    if (source.least() >= 0) amplifier();
    gainShift("", List.of(), 0, source.low(), source.high(), source.stiff());
    difference();
  }

  /** A resistor to ground at the converter, so that an open wire reads nothing. */
  private void pulled() {
    new BestParts(
            wanted.parts(),
            (high, a, none) -> {
              double ohms = loaded(a);
              return volts(high) * ohms / (series(high) + ohms);
            },
            0,
            top)
        .one(i -> wanted.parts().ohms(i) <= MOST_OHMS)
        .ifPresent(
            c ->
                found.add(
                    new Circuit(
                        "direct path with a pull-down",
                        List.of(InputPull.toGround(part(c.first()))),
                        1)));
  }

  private void divider(boolean followed) {
    var best =
        new BestParts(
                wanted.parts(),
                (high, a, b) -> {
                  double lower = loaded(b);
                  double before = followed ? 0 : series(high);
                  return volts(high) * lower / (before + a + lower);
                },
                0,
                top)
            .two((a, b) -> wanted.total().contains(a + b));
    best.ifPresent(
        c -> {
          var stage = new Divider(part(c.first()), part(c.second()));
          found.add(
              followed
                  ? new Circuit(
                      "follower and divider", List.of(follower(wanted.supply()), stage), 2)
                  : new Circuit("divider", List.of(stage), 2));
        });
  }

  /** A gain above 1 about ground. */
  private void amplifier() {
    var best =
        new BestParts(wanted.parts(), (high, a, b) -> volts(high) * (1 + a / b), 0, amplifierTop)
            .two(Topologies::usual);
    best.ifPresent(
        c -> {
          var stage =
              new NonInvertingAmp(part(c.first()), part(c.second()), Value.of(0), rail(0), rail(1));
          found.add(new Circuit("amplifier", List.of(stage), 2));
        });
  }

  private static boolean usual(double a, double b) {
    return a >= LEAST_OHMS && a <= MOST_OHMS && b >= LEAST_OHMS && b <= MOST_OHMS;
  }

  /**
   * A gain and a shift that put the range between the insets; rising and falling, whichever an
   * amplifier can make. The least inset is taken with which no corner of the tolerances leaves the
   * rails.
   *
   * @param resistors in the stages before it
   */
  private void gainShift(
      String name, List<Stage> before, int resistors, double low, double high, boolean stiff) {
    for (boolean turned : new boolean[] {false, true}) {
      String what = turned ? "inverting amplifier" : "gain and shift";
      String whole = name.isEmpty() ? what : name + ", " + what;
      for (double inset : INSETS) {
        Optional<Circuit> c = gainShift(whole, before, resistors, low, high, stiff, turned, inset);
        if (c.isEmpty()) continue;
        found.add(c.get());
        break;
      }
    }
  }

  private Optional<Circuit> gainShift(
      String name,
      List<Stage> before,
      int resistors,
      double low,
      double high,
      boolean stiff,
      boolean turned,
      double inset) {
    double from = inset * amplifierTop;
    double to = (1 - inset) * amplifierTop;
    boolean up = high > low != turned;
    Candidates c;
    try {
      c =
          GainShift.search(
              wanted.parts(),
              new GainShift.Goal(
                  low, high, up ? from : to, up ? to : from, top, new Span(0, amplifierTop)));
    } catch (QuantityException e) {
      // A goal that no amplifier can have is no circuit.
      return Optional.empty();
    }
    for (Solution s : c.solutions()) {
      var stages = new ArrayList<>(before);
      if (!stiff && draws(s.stages().getFirst())) {
        if (Math.max(low, high) > wanted.supply() || Math.min(low, high) < 0) continue;
        stages.add(follower(wanted.supply()));
      }
      stages.addAll(s.stages());
      if (holds(stages)) {
        return Optional.of(new Circuit(name, List.copyOf(stages), resistors + s.count()));
      }
    }
    return Optional.empty();
  }

  /** True where no corner of the tolerances takes the last node out of its limits. */
  private boolean holds(List<Stage> stages) {
    Span w = channel.definition().working();
    for (List<Stage> corner : Corners.of(stages)) {
      for (double x : new double[] {w.low(), w.high()}) {
        double volts =
            PathCircuit.of(
                    new Measurand(channel.definition().kind().symbol(), channel.unit()),
                    channel.design().sensor(),
                    corner,
                    channel.design().converter(),
                    x)
                .solve()
                .get(PathCircuit.node(corner.size()));
        if (!(volts >= -SLACK && volts <= amplifierTop + SLACK)) return false;
      }
    }
    return true;
  }

  private static boolean draws(Stage stage) {
    return stage.inputLoad(Optional.empty(), Expr::sym).isPresent();
  }

  /** The range about the middle of the converter: the offset is the voltage of mid-range. */
  private void difference() {
    if (!source.stiff() && (source.least() < 0 || source.most() > wanted.supply())) return;
    double middle = Double.parseDouble(Numbers.fixed((source.low() + source.high()) / 2, 3));
    double ground = Double.parseDouble(Numbers.fixed(amplifierTop / 2, 3));
    var best =
        new BestParts(
                wanted.parts(),
                (high, a, b) -> (volts(high) - middle) * a / b + ground,
                0,
                amplifierTop)
            .two((a, b) -> usual(a, b) && a > b);
    best.ifPresent(
        c -> {
          var stage =
              new DifferenceAmp(
                  part(c.first()),
                  part(c.second()),
                  Value.of(middle),
                  Value.of(ground),
                  rail(0),
                  rail(1));
          found.add(
              source.stiff()
                  ? new Circuit("difference amplifier", List.of(stage), DIFFERENCE_RESISTORS)
                  : new Circuit(
                      "follower and difference amplifier",
                      List.of(follower(wanted.supply()), stage),
                      DIFFERENCE_RESISTORS));
        });
  }

  /** One resistor sets the gain by the law of the usual part, 1 + 50 kΩ/R_g. */
  private void instrumentation() {
    var law =
        (InstrumentationAmp)
            Stage.kinds().stream()
                .filter(InstrumentationAmp.class::isInstance)
                .findFirst()
                .orElseThrow();
    double a = law.constant().number();
    double b = law.law().number();
    // Off the rail, so that a broken wire can be told from the start of the range.
    double reference =
        Double.parseDouble(Numbers.fixed(amplifierTop * (source.least() >= 0 ? INSET : 0.5), 3));
    var best =
        new BestParts(
                wanted.parts(),
                (high, r, none) -> volts(high) * (a + b / r) + reference,
                0,
                amplifierTop)
            .one(i -> true);
    best.ifPresent(
        c ->
            found.add(
                new Circuit(
                    "instrumentation amplifier",
                    List.of(
                        new InstrumentationAmp(
                            law.constant(),
                            law.law(),
                            part(c.first()),
                            Value.of(0),
                            Value.of(reference),
                            rail(0),
                            rail(1))),
                    INSTRUMENTATION_RESISTORS)));
  }

  private void resistance() {
    // An open wire must not bring more than its reference to the converter.
    double vs = Math.min(wanted.supply(), top);
    var up =
        new BestParts(
                wanted.parts(),
                (high, a, none) -> vs * loaded(volts(high)) / (loaded(volts(high)) + a),
                0,
                top)
            .one(i -> allowed(vs, i));
    up.ifPresent(
        c -> {
          Stage stage = new PullUp(Value.of(vs), part(c.first()));
          found.add(new Circuit("pull-up", List.of(stage), 1));
          behind("pull-up", stage, vs, wanted.parts().ohms(c.first()), true);
        });
    var down =
        new BestParts(
                wanted.parts(),
                (high, a, none) -> vs * loaded(a) / (loaded(a) + volts(high)),
                0,
                top)
            .one(i -> allowed(vs, i));
    down.ifPresent(
        c -> {
          Stage stage = new PullDown(Value.of(vs), part(c.first()));
          found.add(new Circuit("pull-down", List.of(stage), 1));
          behind("pull-down", stage, vs, wanted.parts().ohms(c.first()), false);
        });
  }

  private boolean allowed(double vs, int i) {
    double t = wanted.parts().part(i).tolerance() / 100;
    return vs / (wanted.parts().ohms(i) * (1 - t) + source.least()) <= wanted.mostCurrent();
  }

  /** Where a resistance changes little an amplifier behind its pull-up makes the most of it. */
  private void behind(String name, Stage stage, double vs, double ohms, boolean up) {
    double low = up ? source.low() / (source.low() + ohms) : ohms / (ohms + source.low());
    double high = up ? source.high() / (source.high() + ohms) : ohms / (ohms + source.high());
    gainShift(name, List.of(stage), 1, vs * low, vs * high, false);
  }

  private void current() {
    var loop = channel.design().sensor() instanceof CurrentLoop l ? l : null;
    boolean live = loop != null && loop.least() > CurrentLoop.FAILURE_LOW;
    // What a failing transmitter signals must still be seen below the reference.
    double most = live ? Math.max(source.most(), CurrentLoop.FAILURE_HIGH) : source.most();
    Optional<Shunt> now =
        channel.design().stages().stream()
            .filter(Shunt.class::isInstance)
            .map(Shunt.class::cast)
            .findFirst();
    var best =
        new BestParts(wanted.parts(), (high, a, none) -> volts(high) * loaded(a), 0, top)
            .one(i -> feeds(now, most, i) && most * loaded(highest(i)) <= top);
    best.ifPresent(
        c -> {
          Value burden = part(c.first());
          Stage stage =
              now.map(s -> new Shunt(burden, s.loopSupply(), s.transmitter(), s.wire()))
                  .orElse(new Shunt(burden, Value.of(wanted.supply()), null, null));
          found.add(new Circuit("burden", List.of(stage), 1));
        });
  }

  /** Whether what is left of the loop's supply is enough for the transmitter. */
  private boolean feeds(Optional<Shunt> now, double most, int i) {
    double supply = now.map(Shunt::loopSupply).map(Value::number).orElse(wanted.supply());
    double needs = now.map(Shunt::transmitter).map(Value::number).orElse(0.0);
    double wire = now.map(Shunt::wire).map(Value::number).orElse(0.0);
    return supply - most * (highest(i) + wire) >= needs;
  }

  private double highest(int i) {
    return wanted.parts().ohms(i) * (1 + wanted.parts().part(i).tolerance() / 100);
  }
}
