package nocking.stage;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import nocking.algebra.Expr;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.network.Circuit;
import nocking.quantity.Span;

/** A conditioning stage between two test points. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "stage")
public sealed interface Stage extends Element
    permits Divider,
        SeriesResistor,
        PullUp,
        PullDown,
        WheatstoneBridge,
        Shunt,
        NonInvertingAmp,
        InvertingAmp,
        InvertingSummer,
        DifferenceAmp,
        FourResistorAmp,
        InstrumentationAmp,
        Follower,
        ReferenceBlend,
        OffsetAdder,
        InputPull,
        RcFilter,
        BridgeRectifier,
        Clamp {

  /** One of each stage with sensible values, grouped as a menu offers them. */
  static List<List<Stage>> groups() {
    return List.of(
        List.of(
            Divider.EXAMPLE,
            SeriesResistor.EXAMPLE,
            PullUp.EXAMPLE,
            PullDown.EXAMPLE,
            WheatstoneBridge.EXAMPLE,
            Shunt.EXAMPLE),
        List.of(
            NonInvertingAmp.EXAMPLE,
            InvertingAmp.EXAMPLE,
            InvertingSummer.EXAMPLE,
            DifferenceAmp.EXAMPLE,
            FourResistorAmp.EXAMPLE,
            InstrumentationAmp.EXAMPLE,
            Follower.EXAMPLE),
        List.of(ReferenceBlend.EXAMPLE, OffsetAdder.EXAMPLE),
        List.of(InputPull.EXAMPLE, RcFilter.EXAMPLE, BridgeRectifier.EXAMPLE, Clamp.EXAMPLE));
  }

  /** One of each stage in the order of the groups. */
  static List<Stage> kinds() {
    return groups().stream().flatMap(List::stream).toList();
  }

  /**
   * True where a stage can stand among others.
   *
   * @param input what comes in there
   * @param next the stage behind it; empty for the converter
   */
  default boolean fits(Signal input, Optional<Stage> next) {
    if (!accepts().contains(input)) return false;
    Signal output = gives(input);
    return next.map(s -> s.accepts().contains(output)).orElse(output == Signal.VOLTAGE);
  }

  /** What may come in. */
  default Set<Signal> accepts() {
    return Set.of(Signal.VOLTAGE);
  }

  /** What goes out for what comes in. */
  default Signal gives(Signal input) {
    return Signal.VOLTAGE;
  }

  /** Value at the output node for the value at the input node, with {@code load} on the output. */
  Expr relation(Expr input, Optional<Load> load, Symbols own);

  /** What the stage draws from its input node when {@code load} hangs on its output. */
  Optional<Load> inputLoad(Optional<Load> load, Symbols own);

  /**
   * Resistance seen at the output, in ohms, when the input is stiff; 0 for an amplifier's output.
   */
  default double outputResistance() {
    return 0;
  }

  /** Lowest and highest voltage that the output can reach; empty for a passive stage. */
  default Optional<Span> rails() {
    return Optional.empty();
  }

  /** Voltage about which the output swings, where the stage has one (a virtual ground). */
  default Optional<String> groundSymbol() {
    return Optional.empty();
  }

  /** Supply that the output is a fraction of, where the stage feeds the sensor itself. */
  default Optional<Double> ratiometricSupply() {
    return Optional.empty();
  }

  /** Gain, ratio or time in a few words, shown under the parameters. */
  String gain();

  /**
   * Adds the stage's parts to the referee circuit; extra nodes get names beginning with output.
   *
   * <p>Resistors carry the symbol of their parameter as their name; where one parameter stands for
   * two parts, words behind it tell them apart.
   *
   * @param sensed resistive or current sensor that the stage itself builds in; a stage with a
   *     voltage at its input does not look at it
   */
  void build(Circuit circuit, String input, String output, Sensed sensed);

  /** The only resistance of the stage that must be there; empty where there are none or several. */
  default Optional<Field> onlyResistance() {
    List<Field> ohms =
        fields().stream().filter(f -> f.parameter().unit().equals("ohm") && !f.optional()).toList();
    return ohms.size() == 1 ? Optional.of(ohms.getFirst()) : Optional.empty();
  }

  /** Which parts can be searched for. */
  default PartChoice parts() {
    return onlyResistance().isPresent() ? PartChoice.RESISTANCE : PartChoice.NONE;
  }

  /** Draws the stage's circuit with its values. */
  void sketch(CircuitSketch sketch);
}
