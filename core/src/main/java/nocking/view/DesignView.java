package nocking.view;

import java.util.List;
import java.util.Optional;
import nocking.algebra.AlgebraException;
import nocking.channel.Definition;
import nocking.channel.Design;
import nocking.channel.Surroundings;
import nocking.element.Signal;
import nocking.fit.Curve;
import nocking.path.PathCircuit;
import nocking.path.SensorCurve;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.stage.RcFilter;
import nocking.tolerance.Budget;
import nocking.tolerance.BudgetPoint;
import nocking.tolerance.ErrorModel;
import nocking.tolerance.Uncertain;

/** What follows from the design: the path, its equation, its errors, the digits it justifies. */
public final class DesignView {
  private static final int USUAL_DECIMALS = 3;

  private record Compilation(Optional<SignalPath> path, Optional<String> problem) {}

  private final Design design;
  private final Workings workings;
  private final Lazy<Compilation> compilation = new Lazy<>(this::compile);
  private final Lazy<Optional<SensorCurve>> sensorCurve;
  private final Lazy<List<BudgetPoint>> budget;
  private final Lazy<Integer> decimals;

  DesignView(Design design, Workings workings) {
    this.design = design;
    this.workings = workings;
    sensorCurve = workings.once("the sensor's curve", this::sense, Optional.empty());
    budget = workings.once("the error budget", this::estimate, List.of());
    decimals = workings.once("the decimals", this::justifiedDecimals, USUAL_DECIMALS);
  }

  private Compilation compile() {
    if (design.sensor() == null) return new Compilation(Optional.empty(), Optional.empty());
    try {
      SignalPath path =
          SignalPath.of(design.measurand(), design.sensor(), design.stages(), design.converter());
      Span working = design.definition().working();
      path.require(working.low());
      path.require(working.high());
      return new Compilation(Optional.of(path), Optional.empty());
    } catch (QuantityException | AlgebraException e) {
      return new Compilation(Optional.empty(), Optional.of(e.getMessage()));
    } catch (RuntimeException e) {
      var trouble = new Trouble("the equation", e);
      workings.note(trouble);
      return new Compilation(Optional.empty(), Optional.of(trouble.says()));
    }
  }

  /** The compiled path; empty while the sensor is undefined or the path makes no sense. */
  public Optional<SignalPath> path() {
    return compilation.get().path;
  }

  /**
   * Seconds until a step of the input is within half a count behind a filter, what feeds and loads
   * it among what charges its capacitor, at its slowest over the working range; NaN where the path
   * does not say it.
   *
   * @param filter at this index among the stages
   */
  public double settling(RcFilter filter, int index) {
    if (path().isEmpty()) return Double.NaN;
    return workings.guarded(
        "the settling of a filter",
        () -> {
          double ohms =
              PathCircuit.mostOhmsAt(
                  design.measurand(),
                  design.sensor(),
                  design.stages(),
                  design.converter(),
                  design.definition().working(),
                  index + 1);
          return filter.settling(ohms, design.converter().effectiveBits());
        },
        Double.NaN);
  }

  /** Why there is no path; empty while nothing is wrong. */
  public Optional<String> problem() {
    return compilation.get().problem;
  }

  /** The sensor by itself; empty while it is undefined or its numbers make no sense. */
  public Optional<SensorCurve> sensorCurve() {
    return sensorCurve.get();
  }

  private Optional<SensorCurve> sense() {
    if (design.sensor() == null) return Optional.empty();
    try {
      return Optional.of(SensorCurve.of(design.measurand(), design.sensor()));
    } catch (QuantityException | AlgebraException e) {
      // The path has the same trouble and says it.
      return Optional.empty();
    }
  }

  /** The design equation as a curve. */
  public Optional<Curve> equation() {
    return path().map(p -> new Curve("Design equation", p.inverse(), p.constantsOf(p.inverse())));
  }

  /** What the resistors of the path take at an input; empty without a path. */
  public List<PathCircuit.Stress> stresses(double x) {
    if (path().isEmpty()) return List.of();
    try {
      return PathCircuit.of(
              design.measurand(), design.sensor(), design.stages(), design.converter(), x)
          .stresses();
    } catch (IllegalStateException e) {
      // Without a solution of the circuit there is nothing to say of its parts.
      return List.of();
    }
  }

  /**
   * The sensor's rated range in the channel's unit, where somebody gave one: a card, a datasheet, a
   * standard, or whoever typed it. The range that a form begins with is nobody's.
   */
  public Optional<Span> rated() {
    if (design.sensor() == null) return Optional.empty();
    boolean given = design.card() != null || !design.sensor().ratedAsBegun(design.unit());
    return given ? Optional.of(design.sensor().rated(design.unit())) : Optional.empty();
  }

  /**
   * Watts that a resistive sensor takes at an input, by the current that the circuit drives through
   * it; 0 for another sensor, and where nothing is known of it.
   */
  public double sensorWatts(double x) {
    if (path().isEmpty() || design.sensor().signal() != Signal.RESISTANCE) return 0;
    return workings.guarded(
        "the sensor's power",
        () -> {
          double amperes =
              PathCircuit.sensorAmperes(
                  design.measurand(), design.sensor(), design.stages(), design.converter(), x);
          return amperes * amperes * path().get().at(x).nodes().getFirst().value();
        },
        0.0);
  }

  /** What makes the reading wrong; empty while there is no path. */
  public Optional<ErrorModel> errorModel() {
    return path().map(this::errorModel);
  }

  private ErrorModel errorModel(SignalPath p) {
    Surroundings around = design.surroundings();
    Span ambient = around.ambient();
    double at = Surroundings.REFERENCE_TEMPERATURE;
    return new ErrorModel(
        p,
        Uncertain.of(p, design.elements()),
        design.definition().working(),
        new Span(ambient.low() - at, ambient.high() - at),
        x -> design.sensor().classTolerance(x, design.unit()),
        around.referenceStandard());
  }

  /**
   * Worst case, first order and ranking at both ends and the middle of the working range; empty
   * without a path.
   */
  public List<BudgetPoint> budget() {
    return budget.get();
  }

  private List<BudgetPoint> estimate() {
    Span w = design.definition().working();
    return errorModel()
        .map(m -> Budget.at(m, new double[] {w.low(), w.middle(), w.high()}))
        .orElse(List.of());
  }

  /**
   * Decimals of a reading: the last digit shown is worth at least one count, but a tolerance is
   * always visible.
   */
  public int decimals() {
    return decimals.get();
  }

  private int justifiedDecimals() {
    Span working = design.definition().working();
    double count = path().map(p -> p.countsWorth(working.middle())).orElse(working.width() / 1000);
    int byCount = (int) Math.floor(-Math.log10(count) + 1e-9);
    double tolerance = design.definition().toleranceOrNaN();
    int byTolerance = Double.isNaN(tolerance) ? 0 : (int) Math.ceil(-Math.log10(tolerance) - 1e-9);
    return Math.clamp(Math.max(byCount, byTolerance), 0, 9);
  }

  /** What the channel is for. */
  Definition definition() {
    return design.definition();
  }

  /** A value of the quantity with the digits that one count justifies. */
  public String reading(double value) {
    return Numbers.fixed(value, decimals());
  }

  /** A value of the quantity with its unit. */
  public String amount(double value) {
    return withUnit(reading(value));
  }

  /** A small error of the quantity with its unit: two significant digits. */
  public String error(double value) {
    // What is less than a billionth of the range is how computers count, and no error.
    boolean nothing = Math.abs(value) < 1e-9 * design.definition().working().width();
    return withUnit(nothing ? "0" : Numbers.significant(value, 2));
  }

  private String withUnit(String number) {
    return (number + " " + design.definition().unit()).strip();
  }
}
