package nocking.table;

import java.util.List;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * What a receiver asks of the list that is entered into it.
 *
 * @param shape name of the shape that it was taken from; empty for none
 * @param refusesEqual true when it takes no two cells with the same raw value
 * @param rawAxis raw values that it dictates, rising; empty where it dictates none
 * @param lowEnd raw value at which its first cell has to stand; null where it may stand anywhere
 * @param highEnd raw value of its last cell; null likewise
 */
public record Demands(
    String shape, boolean refusesEqual, List<Double> rawAxis, Value lowEnd, Value highEnd) {
  public static final Demands NONE = new Demands("", true, List.of(), null, null);

  public Demands {
    shape = shape == null ? "" : shape;
    rawAxis = rawAxis == null ? List.of() : List.copyOf(rawAxis);
    for (int i = 1; i < rawAxis.size(); i++) {
      if (rawAxis.get(i) > rawAxis.get(i - 1)) continue;
      throw new QuantityException(
          "a fixed axis rises; read %s after %s".formatted(rawAxis.get(i), rawAxis.get(i - 1)));
    }
    if (lowEnd != null && highEnd != null && !(lowEnd.number() < highEnd.number())) {
      throw new QuantityException(
          "the first cell has to stand below the last one; read %s and %s"
              .formatted(lowEnd.typed(), highEnd.typed()));
    }
  }

  public Demands withShape(String v) {
    return new Demands(v, refusesEqual, rawAxis, lowEnd, highEnd);
  }

  public Demands withRefusesEqual(boolean v) {
    return new Demands(shape, v, rawAxis, lowEnd, highEnd);
  }

  public Demands withRawAxis(List<Double> v) {
    return new Demands(shape, refusesEqual, v, lowEnd, highEnd);
  }

  public Demands withEnds(Value low, Value high) {
    return new Demands(shape, refusesEqual, rawAxis, low, high);
  }
}
