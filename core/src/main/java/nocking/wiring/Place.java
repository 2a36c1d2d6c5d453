package nocking.wiring;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Arrays;
import java.util.stream.Collectors;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;

/**
 * Where a meter can be put, or the display.
 *
 * @param kind what is measured
 * @param node number of the test point for {@link Kind#TEST_POINT}, from 1; 0 for the others
 */
public record Place(Kind kind, int node) {

  /** What is measured against what. */
  public enum Kind {
    DISPLAY("display", "display", null),
    SUPPLY_AT_RECEIVER("supply at the receiver", "supply-receiver", Unit.VOLT),
    SUPPLY_AT_SENSOR("supply at the sensor", "supply-sensor", Unit.VOLT),
    GROUND_AT_SENSOR("sensor's ground against the receiver's", "ground", Unit.VOLT),
    SIGNAL_AT_SENSOR("signal at the sensor", "sensor", Unit.VOLT),
    SIGNAL_AT_RECEIVER("signal at the receiver", "receiver", Unit.VOLT),
    TEST_POINT("", "TP", Unit.VOLT),
    OHMS_AT_SENSOR("sensor alone, unplugged", "sensor-ohms", Unit.OHM),
    OHMS_AT_RECEIVER("sensor through the cable, unplugged", "receiver-ohms", Unit.OHM),
    LOOP_CURRENT("loop current", "loop", Unit.AMPERE);

    private final String title;
    private final String key;
    private final Unit unit;

    Kind(String title, String key, Unit unit) {
      this.title = title;
      this.key = key;
      this.unit = unit;
    }

    /** Word that stands for the place in a file. */
    public String key() {
      return key;
    }
  }

  public static final Place DISPLAY = of(Kind.DISPLAY);

  public static Place of(Kind kind) {
    return new Place(kind, 0);
  }

  public static Place testPoint(int node) {
    return new Place(Kind.TEST_POINT, node);
  }

  public String title() {
    return kind == Kind.TEST_POINT ? "TP" + node : kind.title;
  }

  /** Word that stands for the place in a file: {@code display}, {@code sensor}, {@code TP2}. */
  @JsonValue
  public String key() {
    return kind == Kind.TEST_POINT ? "TP" + node : kind.key;
  }

  /**
   * @throws QuantityException naming the word and those that are known
   */
  @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
  public static Place ofKey(String key) {
    if (key.matches("TP[1-9][0-9]?")) return testPoint(Integer.parseInt(key.substring(2)));
    for (Kind k : Kind.values()) {
      if (k != Kind.TEST_POINT && k.key.equals(key)) return of(k);
    }
    throw new QuantityException(
        "'%s' is no place; known are %s, TP2"
            .formatted(
                key,
                Arrays.stream(Kind.values())
                    .filter(k -> k != Kind.TEST_POINT)
                    .map(Kind::key)
                    .collect(Collectors.joining(", "))));
  }

  /** Unit of what is read there. */
  public Unit unit(Unit quantity) {
    return kind.unit == null ? quantity : kind.unit;
  }

  /** True when the channel is live while this is measured. */
  public boolean live() {
    return kind != Kind.DISPLAY && kind != Kind.OHMS_AT_SENSOR && kind != Kind.OHMS_AT_RECEIVER;
  }
}
