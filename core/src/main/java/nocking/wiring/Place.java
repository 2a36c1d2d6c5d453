package nocking.wiring;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Arrays;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;

/**
 * Where a meter can be put, or the display.
 *
 * @param kind what is measured
 * @param node number from 1 of the test point, of the place between the ends counted from the
 *     sensor, or of the stage whose wiper it is; 0 for places of which there is one
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
    SIGNAL_AT_JOINT("signal at place", "signal", Unit.VOLT),
    SUPPLY_AT_JOINT("supply at place", "supply", Unit.VOLT),
    GROUND_AT_JOINT("ground at place", "ground", Unit.VOLT),
    REFERENCE_WIPER("reference wiper of stage", "wiper", Unit.VOLT),
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

    /** True for a place between the ends of the wires. */
    public boolean between() {
      return this == SIGNAL_AT_JOINT || this == SUPPLY_AT_JOINT || this == GROUND_AT_JOINT;
    }

    /** True where there are several of a kind, told apart by their number. */
    public boolean numbered() {
      return switch (this) {
        case TEST_POINT, SIGNAL_AT_JOINT, SUPPLY_AT_JOINT, GROUND_AT_JOINT, REFERENCE_WIPER -> true;
        default -> false;
      };
    }
  }

  private static final Pattern NUMBERED = Pattern.compile("([a-z]+)-([1-9][0-9]?)");

  public static final Place DISPLAY = of(Kind.DISPLAY);

  public static Place of(Kind kind) {
    return new Place(kind, 0);
  }

  public static Place testPoint(int node) {
    return new Place(Kind.TEST_POINT, node);
  }

  /** A numbered place of a kind. */
  public static Place of(Kind kind, int node) {
    return new Place(kind, node);
  }

  public String title() {
    if (kind == Kind.TEST_POINT) return "TP" + node;
    return kind.numbered() ? kind.title + " " + node : kind.title;
  }

  /** Word that stands for the place in a file: {@code display}, {@code sensor}, {@code TP2}. */
  @JsonValue
  public String key() {
    if (kind == Kind.TEST_POINT) return "TP" + node;
    return kind.numbered() ? kind.key + "-" + node : kind.key;
  }

  /**
   * @throws QuantityException naming the word and those that are known
   */
  @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
  public static Place ofKey(String key) {
    if (key.matches("TP[1-9][0-9]?")) return testPoint(Integer.parseInt(key.substring(2)));
    Matcher numbered = NUMBERED.matcher(key);
    for (Kind k : Kind.values()) {
      if (!k.numbered() && k.key.equals(key)) return of(k);
      if (k.numbered() && numbered.matches() && k.key.equals(numbered.group(1))) {
        return of(k, Integer.parseInt(numbered.group(2)));
      }
    }
    throw new QuantityException(
        "'%s' is no place; known are %s, TP2, signal-1, supply-1, ground-1, wiper-1"
            .formatted(
                key,
                Arrays.stream(Kind.values())
                    .filter(k -> !k.numbered())
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
