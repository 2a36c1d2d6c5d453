package nocking.stage;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.element.Element;
import nocking.element.Symbols;
import nocking.network.Circuit;
import nocking.quantity.Span;

/** A conditioning stage between two test points. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "stage")
public sealed interface Stage extends Element permits Divider, NonInvertingAmp, DifferenceAmp {

  /** One of each stage with sensible values, in the order in which a menu offers them. */
  static List<Stage> kinds() {
    return List.of(Divider.EXAMPLE, NonInvertingAmp.EXAMPLE, DifferenceAmp.EXAMPLE);
  }

  /**
   * Voltage at the output node for a voltage at the input node, with {@code load} on the output.
   */
  Expr relation(Expr input, Optional<Load> load, Symbols own);

  /** What the stage draws from its input node when {@code load} hangs on its output. */
  Optional<Load> inputLoad(Optional<Load> load, Symbols own);

  /** Lowest and highest voltage that the output can reach; empty for a passive stage. */
  default Optional<Span> rails() {
    return Optional.empty();
  }

  /** Voltage about which the output swings, where the stage has one (a virtual ground). */
  default Optional<String> groundSymbol() {
    return Optional.empty();
  }

  /** Gain or ratio in a few words, shown under the parameters. */
  String gain();

  /** Adds the stage's parts to the referee circuit; extra nodes get names beginning with output. */
  void build(Circuit circuit, String input, String output);
}
