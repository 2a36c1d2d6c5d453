package nocking.channel;

import java.util.List;
import nocking.quantity.Unit;

/** What a channel measures, with the symbol that stands for it in equations. */
public enum QuantityKind {
  TEMPERATURE("temperature", "T", "°C"),
  PRESSURE("pressure", "p", "kPa"),
  LEVEL("level", "h", "m"),
  VOLUME("volume", "v", "L"),
  WEIGHT("weight", "m", "kg"),
  POSITION("position", "s", "mm"),
  ANGLE("angle", "theta", "°"),
  FORCE("force", "F", "N"),
  TORQUE("torque", "M", "N·m"),
  VOLTAGE("voltage", "U", "V"),
  CONCENTRATION("concentration", "c", "mg/L"),
  SHARE("share of travel", "k", "%"),
  OTHER("other quantity", "x", "");

  private final String title;
  private final String symbol;
  private final String usualUnit;

  QuantityKind(String title, String symbol, String usualUnit) {
    this.title = title;
    this.symbol = symbol;
    this.usualUnit = usualUnit;
  }

  /** The kind whose usual unit it is, else the first that is measured in units like it. */
  public static QuantityKind measuredIn(Unit quantity) {
    for (QuantityKind k : values()) {
      if (!k.usualUnit.isEmpty() && Unit.of(k.usualUnit).equals(quantity)) return k;
    }
    for (QuantityKind k : values()) {
      if (!k.usualUnit.isEmpty()
          && !quantity.symbol().isEmpty()
          && Unit.of(k.usualUnit).dimension().equals(quantity.dimension())) return k;
    }
    return OTHER;
  }

  /** True for what a part that is mounted and moved can be at: it has a mounting, and ends. */
  public boolean travels() {
    return switch (this) {
      case LEVEL, VOLUME, POSITION, ANGLE, SHARE, OTHER -> true;
      case TEMPERATURE, PRESSURE, WEIGHT, FORCE, TORQUE, VOLTAGE, CONCENTRATION -> false;
    };
  }

  /** What can hurt someone wherever such a quantity is; more is known of the place, not of it. */
  public List<Hazard> hazards() {
    return this == PRESSURE ? List.of(Hazard.PRESSURE) : List.of();
  }

  public String title() {
    return title;
  }

  public String symbol() {
    return symbol;
  }

  public String usualUnit() {
    return usualUnit;
  }
}
