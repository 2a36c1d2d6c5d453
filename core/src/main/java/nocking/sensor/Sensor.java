package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import nocking.algebra.Expr;
import nocking.element.Element;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** A sensor: from the quantity to a voltage, a resistance or a current. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "model")
public sealed interface Sensor extends Element
    permits TwoPointSensor,
        LinearSensor,
        RatiometricSensor,
        TableSensor,
        NtcBeta,
        NtcSteinhart,
        PlatinumRtd,
        Thermocouple,
        CurrentLoop,
        Potentiometer,
        StrainBridge,
        BipolarSensor,
        SteppedSensor,
        AcVoltage,
        FormulaSensor {

  /** Fields that say nothing of what it gives: source resistance and dissipation constant. */
  Set<String> BESIDE_THE_CURVE = Set.of("Rs", "delta");

  /** Peak over RMS of the waveform of what it gives, where that alternates. */
  default double peakOverRms() {
    return 1;
  }

  /** One of each model, in the order in which a form offers them. */
  static List<Sensor> models() {
    return List.of(
        TwoPointSensor.EXAMPLE,
        LinearSensor.EXAMPLE,
        RatiometricSensor.EXAMPLE,
        TableSensor.EXAMPLE,
        NtcBeta.EXAMPLE,
        NtcSteinhart.EXAMPLE,
        PlatinumRtd.EXAMPLE,
        Thermocouple.EXAMPLE,
        CurrentLoop.EXAMPLE,
        Potentiometer.EXAMPLE,
        StrainBridge.EXAMPLE,
        BipolarSensor.EXAMPLE,
        SteppedSensor.EXAMPLE,
        AcVoltage.EXAMPLE,
        FormulaSensor.EXAMPLE);
  }

  /** Key of the model on the command line and in the document, for example {@code two-point}. */
  String model();

  /** What the technician has in hand, for example {@code two points}. */
  String inHand();

  /** Other words that someone may look for it by; empty for none. */
  default String alsoCalled() {
    return "";
  }

  /** What comes out of it. */
  default Signal signal() {
    return Signal.VOLTAGE;
  }

  /** Unloaded output in V, Ω or A for the quantity. */
  Expr output(Measurand x, Symbols own);

  /**
   * The quantity for an output, where the model has a closed form that cannot be found by undoing
   * one operation after the other.
   */
  default Optional<Expr> input(Expr output, Measurand x, Symbols own) {
    return Optional.empty();
  }

  /** Resistance between the ideal source and the output terminal in ohms; empty for a stiff one. */
  default Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    return Optional.empty();
  }

  /** Rated range in the channel's unit. */
  Span rated(Unit quantity);

  /** True where a standard says the rated range, and nobody has to. */
  default boolean ratedByStandard() {
    return false;
  }

  /**
   * True while its range and what it gives there are those that a form begins with: no rating that
   * somebody gave.
   */
  default boolean ratedAsBegun(Unit quantity) {
    return !ratedByStandard()
        && models().stream()
            .filter(m -> m.model().equals(model()))
            .anyMatch(m -> m.rated(quantity).equals(rated(quantity)) && m.gives(this));
  }

  /** True where another of the same model gives the same, whatever stands behind its output. */
  private boolean gives(Sensor other) {
    return fields().stream()
        .filter(f -> !BESIDE_THE_CURVE.contains(f.symbol()))
        .allMatch(
            f -> {
              Value a = value(f);
              Value b = other.value(f);
              return a == null || b == null ? a == b : a.number() == b.number();
            });
  }

  /**
   * Names of the stations of a selector, whose quantity counts them from 1; empty for a quantity
   * that moves evenly.
   */
  default List<String> stations() {
    return List.of();
  }

  /** Inputs for which the model has a value at all; empty where it has one everywhere. */
  default Optional<Span> known(Unit quantity) {
    return Optional.empty();
  }

  /** Volts that the output can reach at all; empty where the model sets no limit. */
  default Optional<Span> possibleOutput() {
    return ratiometricSupply().map(supply -> new Span(0, supply));
  }

  /** Supply voltage that the output is a fraction of, if it is. */
  default Optional<Double> ratiometricSupply() {
    return Optional.empty();
  }

  /** Power that warms the sensor by 1 K, in W/K, where the datasheet gives it. */
  default Optional<Double> dissipationConstant() {
    return Optional.empty();
  }

  /**
   * Largest error of any sensor of this make at an input, in the channel's unit; 0 unless known.
   */
  default double classTolerance(double x, Unit quantity) {
    return 0;
  }

  /** The sensor with values that no parameter holds taken to another unit of the quantity. */
  default Sensor convert(Unit from, Unit to, UnaryOperator<Value> value) {
    return this;
  }

  /** A source resistance that is 0 is none. */
  static Optional<Expr> source(Value resistance, Symbols own) {
    return resistance.number() == 0 ? Optional.empty() : Optional.of(own.of("Rs"));
  }
}
