package nocking.path;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.Collectors;
import nocking.algebra.AlgebraException;
import nocking.algebra.Calculus;
import nocking.algebra.Compiled;
import nocking.algebra.Expr;
import nocking.algebra.NumericalInverse;
import nocking.converter.Converter;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.network.Circuit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.sensor.Sensor;
import nocking.stage.BridgeRectifier;
import nocking.stage.Load;
import nocking.stage.Stage;

/**
 * A compiled path: sensor → stages → converter.
 *
 * <p>Loads are worked out from the converter backwards, then every element states the true voltage
 * of its output node in terms of the node before it. Substituting one into the next gives the
 * transfer equation V_out = f(x); undoing its operations one by one gives x = f⁻¹(V_out).
 */
public final class SignalPath {
  private static final double[] WIDER = {0.5, 0.25, 0.1, 0.05};
  private static final Span NO_LIMIT = new Span(-1e6, 1e6);

  /** Symbol of the voltage at the converter. */
  public static final String OUT = "Vout";

  private final String quantity;
  private final Unit unit;
  private final Optional<Span> known;
  private final Span rated;
  private final Measurand measured;
  private final Sensor sensor;
  private final List<Stage> stages;
  private final Converter converter;
  private final List<TestPoint> points;
  private final List<DoubleUnaryOperator> relations;
  private final Map<String, Double> constants;
  private final Map<String, ParameterRef> owners;
  private final Expr forward;
  private final Expr inverse;
  private final DoubleUnaryOperator inverseFunction;
  private final DoubleUnaryOperator slopeFunction;
  private final Optional<String> ground;
  private final List<Optional<Span>> rails = new ArrayList<>();

  private SignalPath(Measurand measured, Sensor sensor, List<Stage> stages, Converter converter) {
    this.quantity = measured.symbol();
    this.unit = measured.unit();
    this.converter = converter;
    this.measured = measured;
    this.sensor = sensor;
    this.stages = List.copyOf(stages);
    this.known = sensor.known(unit);
    this.rated = sensor.rated(unit);
    int n = stages.size();
    var nodeSymbols = nodeSymbols(sensor, stages);
    var reserved = new ArrayList<>(nodeSymbols);
    reserved.add(quantity);
    var table = new SymbolTable(reserved);
    Symbols ofSensor = table.add(sensor, 0);
    var ofStages = new ArrayList<Symbols>();
    for (int i = 0; i < n; i++) ofStages.add(table.add(stages.get(i), i + 1));
    Symbols ofConverter = table.add(converter, n + 1);
    constants = Map.copyOf(table.values());
    owners = Map.copyOf(table.owners());

    var loads = loads(stages, ofStages, ofConverter);
    points = new ArrayList<>();
    relations = new ArrayList<>();
    Optional<Expr> series = sensor.seriesResistance(measured, ofSensor);
    Expr open = sensor.output(measured, ofSensor);
    boolean loaded = series.isPresent() && loads.getFirst().isPresent();
    Expr sensed = loaded ? loads.getFirst().get().node(open, series.get()) : open;
    rails.add(Optional.empty());
    addPoint(
        nodeSymbols.getFirst(),
        sensed,
        sensor.title(),
        n == 0 ? input() : sensor.possibleOutput().orElse(NO_LIMIT),
        quantity,
        sensor.signal());
    ground = groundOf(stages, ofStages);
    Signal carried = sensor.signal();
    for (int i = 0; i < n; i++) {
      Stage stage = stages.get(i);
      requireFits(carried, stage, points.getLast());
      carried = stage.gives(carried);
      String before = nodeSymbols.get(i);
      Expr relation = stage.relation(Expr.sym(before), loads.get(i + 1), ofStages.get(i));
      rails.add(stage.rails());
      Span usable = stage.rails().orElse(NO_LIMIT);
      if (i == n - 1) usable = overlap(usable, input());
      addPoint(nodeSymbols.get(i + 1), relation, stage.title(), usable, before, carried);
    }
    requireVoltage(carried, points.getLast());

    Expr combined = points.getFirst().relation();
    for (int i = 1; i < points.size(); i++) {
      combined = points.get(i).relation().substitute(points.get(i - 1).symbol(), combined);
    }
    forward = combined;
    slopeFunction = Compiled.of(Calculus.derivative(forward, quantity), quantity, constants);
    double slope = slopeFunction.applyAsDouble(rated.middle());
    if (slope == 0 || !Double.isFinite(slope)) {
      throw new QuantityException(
          "the path does not respond to the quantity: its slope is "
              + (slope == 0 ? "0" : "not finite"));
    }
    inverse = solved(sensor, measured, ofSensor, loaded);
    inverseFunction = Compiled.of(inverse, OUT, constants);
  }

  private static List<String> nodeSymbols(Sensor sensor, List<Stage> stages) {
    int n = stages.size();
    var symbols = new ArrayList<String>();
    Signal carried = sensor.signal();
    for (int i = 0; i <= n; i++) {
      String letter = carried == Signal.RESISTANCE ? "R" : carried == Signal.CURRENT ? "I" : "V";
      symbols.add(i < n ? letter + (letter.equals("V") ? String.valueOf(i + 1) : "sen") : OUT);
      if (i < n) carried = stages.get(i).gives(carried);
    }
    return symbols;
  }

  private static void requireFits(Signal carried, Stage stage, TestPoint at) {
    if (stage.accepts().contains(carried)) return;
    String wanted =
        stage.accepts().stream().map(Signal::says).sorted().collect(Collectors.joining(" or "));
    throw new QuantityException(
        "%s carries %s, and the %s takes %s"
            .formatted(at.name(), carried.says(), stage.title().toLowerCase(Locale.ROOT), wanted));
  }

  private static void requireVoltage(Signal carried, TestPoint at) {
    String remedy =
        switch (carried) {
          case VOLTAGE -> "";
          case RESISTANCE -> "a pull-up, a pull-down or a bridge";
          case CURRENT -> "a burden";
          case ALTERNATING -> "a rectifier";
        };
    if (remedy.isEmpty()) return;
    throw new QuantityException(
        "%s carries %s, which a converter cannot read: insert %s"
            .formatted(at.name(), carried.says(), remedy));
  }

  /**
   * The quantity as an expression in the output: the stages undone one by one, then the sensor by
   * its own inverse where it has one; where that is not possible, a bracketed root.
   */
  private Expr solved(Sensor sensor, Measurand measured, Symbols own, boolean loaded) {
    Expr out = Expr.sym(OUT);
    try {
      if (points.size() == 1 && !loaded) {
        Optional<Expr> closed = sensor.input(out, measured, own);
        if (closed.isPresent()) return closed.get();
      } else if (!loaded && sensor.input(out, measured, own).isPresent()) {
        String first = points.getFirst().symbol();
        Expr combined = points.get(1).relation();
        for (int i = 2; i < points.size(); i++) {
          combined = points.get(i).relation().substitute(points.get(i - 1).symbol(), combined);
        }
        return sensor.input(Calculus.solve(out, combined, first), measured, own).orElseThrow();
      }
      return Calculus.solve(out, forward, quantity);
    } catch (AlgebraException e) {
      return out.through(turned(), Expr.Mode.INVERSE);
    }
  }

  /** A sensor that has a value everywhere goes on by its own equation for a part of its range. */
  private NumericalInverse turned() {
    Map<String, Double> numbers = constantsOf(forward);
    for (double share : known.isPresent() ? new double[0] : WIDER) {
      double more = share * rated.width();
      try {
        Span wide = new Span(rated.low() - more, rated.high() + more);
        return new NumericalInverse(forward, quantity, numbers, wide);
      } catch (AlgebraException e) {
        // Too wide: it turns back out there.
        continue;
      }
    }
    return new NumericalInverse(forward, quantity, numbers, known.orElse(rated));
  }

  /**
   * Compiles a path.
   *
   * @throws QuantityException when the elements do not fit one another or the output does not
   *     depend on the quantity
   */
  public static SignalPath of(
      Measurand measured, Sensor sensor, List<Stage> stages, Converter converter) {
    return new SignalPath(measured, sensor, stages, converter);
  }

  /** Inputs for which the sensor has a value at all; empty where it has one everywhere. */
  public Optional<Span> known() {
    return known;
  }

  /** Rated range of the sensor, channel's unit. */
  public Span rated() {
    return rated;
  }

  /**
   * Refuses an input for which the sensor has no value.
   *
   * @throws QuantityException naming the input and the range
   */
  public void require(double x) {
    if (known.isEmpty() || known.get().contains(x)) return;
    throw new QuantityException(
        "%s %s lies outside what the sensor is known for, %s … %s %s"
            .formatted(
                Numbers.trimmed(x, 7),
                unit.symbol(),
                Numbers.trimmed(known.get().low(), 6),
                Numbers.trimmed(known.get().high(), 6),
                unit.symbol()));
  }

  /** Symbol of the virtual ground nearest to the converter. */
  private static Optional<String> groundOf(List<Stage> stages, List<Symbols> names) {
    for (int i = stages.size() - 1; i >= 0; i--) {
      Symbols own = names.get(i);
      Optional<String> ground = stages.get(i).groundSymbol();
      if (ground.isPresent()) return ground.map(g -> ((Expr.Sym) own.of(g)).name());
    }
    return Optional.empty();
  }

  private Span input() {
    return new Span(0, converter.reference().number());
  }

  private static Span overlap(Span a, Span b) {
    double low = Math.max(a.low(), b.low());
    double high = Math.min(a.high(), b.high());
    return low <= high ? new Span(low, high) : b;
  }

  /** Load on every node, the sensor's first. */
  private List<Optional<Load>> loads(
      List<Stage> stages, List<Symbols> ofStages, Symbols ofConverter) {
    var loads = new ArrayList<Optional<Load>>();
    Optional<Load> load =
        Optional.ofNullable(converter.inputResistance())
            .map(r -> Load.toGround(ofConverter.of("Rin")));
    loads.add(load);
    for (int i = stages.size() - 1; i >= 0; i--) {
      load =
          stages.get(i) instanceof BridgeRectifier b
              ? drawing(b, i, load, ofStages.get(i))
              : stages.get(i).inputLoad(load, ofStages.get(i));
      loads.addFirst(load);
    }
    return loads;
  }

  /** What a rectifier draws, worked out with the circuit, since it depends on what feeds it. */
  private Optional<Load> drawing(BridgeRectifier b, int stage, Optional<Load> load, Symbols own) {
    try {
      double share = circuit(rated.middle()).rectifierShare(stage);
      return b.drawing(load, own, share);
    } catch (IllegalStateException e) {
      throw new QuantityException("the circuit before the rectifier has no solution");
    }
  }

  private PathCircuit circuit(double x) {
    return PathCircuit.of(measured, sensor, stages, converter, x);
  }

  private void addPoint(
      String symbol, Expr relation, String from, Span usable, String variable, Signal carried) {
    String name = "TP" + (points.size() + 1);
    points.add(new TestPoint(name, symbol, relation, from, usable, carried.unit()));
    relations.add(Compiled.of(relation, variable, constants));
  }

  /** Symbol of the quantity. */
  public String quantitySymbol() {
    return quantity;
  }

  public List<TestPoint> points() {
    return List.copyOf(points);
  }

  /** Every symbol of the elements with its number, in the unit that its field states. */
  public Map<String, Double> constants() {
    return constants;
  }

  /** Which parameter of which element each symbol is. */
  public Map<String, ParameterRef> owners() {
    return owners;
  }

  /** True where the equation was solved in symbols, false where a bracketed root stands in it. */
  public boolean solvedInSymbols() {
    return inverse.graphs().stream().noneMatch(g -> g instanceof NumericalInverse);
  }

  /** V_out as an expression in the quantity. */
  public Expr forward() {
    return forward;
  }

  /** The quantity as an expression in V_out. */
  public Expr inverse() {
    return inverse;
  }

  /** The derivation: each element's own relation, the combined equation, the solved one. */
  public List<DerivationStep> derivation() {
    var steps = new ArrayList<DerivationStep>();
    for (TestPoint p : points) {
      steps.add(new DerivationStep(steps.size() + 1, p.from(), Expr.sym(p.symbol()), p.relation()));
    }
    if (points.size() > 1) {
      String lines =
          points.size() == 2 ? "(1) in (2)" : "(1) … (%d) put together".formatted(points.size());
      steps.add(new DerivationStep(steps.size() + 1, lines, Expr.sym(OUT), forward));
    }
    steps.add(
        new DerivationStep(
            steps.size() + 1,
            (solvedInSymbols() ? "solved for " : "turned round for ") + quantity,
            Expr.sym(quantity),
            inverse));
    return steps;
  }

  /** Slope, intercept and pivot when the equation is a straight line. */
  public Optional<LinearForm> linear() {
    if (!inverse.graphs().isEmpty()) return Optional.empty();
    Expr slope = Calculus.derivative(inverse, OUT);
    if (slope.contains(OUT)) return Optional.empty();
    double volts = ground.map(constants::get).orElse(converter.reference().number() / 2);
    return Optional.of(
        new LinearForm(
            slope.evaluate(constants),
            inverseFunction.applyAsDouble(0),
            ground.orElse("mid-scale"),
            volts,
            inverseFunction.applyAsDouble(volts)));
  }

  /** The whole path at one input, with rails and the converter's ends in force. */
  public PathState at(double x) {
    var nodes = new ArrayList<PathState.Node>(points.size());
    boolean held = false;
    double volts = x;
    for (int i = 0; i < points.size(); i++) {
      double wanted = relations.get(i).applyAsDouble(volts);
      // The converter's ends bound the code, not the voltage of the node: only rails do that.
      volts = rails.get(i).map(r -> r.clamp(wanted)).orElse(wanted);
      held |= volts != wanted && !Double.isNaN(wanted);
      nodes.add(new PathState.Node(points.get(i), volts, wanted));
    }
    if (held) settle(x, nodes);
    double output = nodes.getLast().value();
    return new PathState(x, nodes, converter.code(output), slopeFunction.applyAsDouble(x));
  }

  /**
   * What the nodes read with an output at its rail: an inverting amplifier there no longer holds
   * its summing point, and a clamp that conducts pulls on what stands before it.
   */
  private void settle(double x, List<PathState.Node> nodes) {
    PathCircuit circuit;
    Circuit.OperatingPoint at;
    try {
      circuit = circuit(x);
      at = circuit.operatingPoint();
    } catch (IllegalStateException | IllegalArgumentException e) {
      // Without a solution of the whole, or for a sensor that beyond its range would be less than
      // no resistance, the relations one by one are the best that is known.
      return;
    }
    for (int i = 0; i < nodes.size(); i++) {
      String name = PathCircuit.node(i);
      if (!points.get(i).unit().equals(Unit.VOLT) || !circuit.has(name)) continue;
      double value = at.volts(name, Circuit.GROUND);
      PathState.Node node = nodes.get(i);
      double slack = 1e-9 * Math.max(1, Math.abs(value));
      boolean clipped = node.clipped() && Math.abs(value - node.value()) <= slack;
      double shown = clipped ? node.value() : value;
      nodes.set(i, new PathState.Node(node.point(), shown, clipped ? node.wanted() : shown));
    }
  }

  /**
   * Value of a node for the value of the node before it, without rails; node 0 for the quantity.
   */
  public double relation(int node, double before) {
    return relations.get(node).applyAsDouble(before);
  }

  /** Volts at the converter by the closed form alone, without rails. */
  public double output(double x) {
    double volts = x;
    for (DoubleUnaryOperator relation : relations) volts = relation.applyAsDouble(volts);
    return volts;
  }

  /**
   * Volts at the converter for what the sensor itself gives, whatever made it give that; rails are
   * in force. For a sensor that no stage loads: a resistance, or a current.
   */
  public double outputOf(double signal) {
    double volts = signal;
    for (int i = 1; i < relations.size(); i++) {
      double wanted = relations.get(i).applyAsDouble(volts);
      volts = rails.get(i).map(r -> r.clamp(wanted)).orElse(wanted);
    }
    return volts;
  }

  /** The quantity for volts at the converter, without rails. */
  public double quantity(double volts) {
    return inverseFunction.applyAsDouble(volts);
  }

  /** What one count is worth in the quantity at an input, always positive. */
  public double countsWorth(double x) {
    return Math.abs(converter.step() / slopeFunction.applyAsDouble(x));
  }

  public Converter converter() {
    return converter;
  }

  /** The line with numbers: {@code T = 3.7037·Vout + 2.8889}, empty when it is no straight line. */
  public Optional<String> numbers(int digits) {
    return linear()
        .map(
            f ->
                "%s = %s·Vout %s %s"
                    .formatted(
                        quantity,
                        Numbers.significant(f.slope(), digits),
                        f.intercept() < 0 ? "−" : "+",
                        Numbers.significant(Math.abs(f.intercept()), digits)));
  }

  /** Constants that occur in an expression, in reading order. */
  public Map<String, Double> constantsOf(Expr e) {
    var used = new LinkedHashMap<String, Double>();
    for (String s : e.symbols()) {
      if (constants.containsKey(s)) used.put(s, constants.get(s));
    }
    return used;
  }
}
