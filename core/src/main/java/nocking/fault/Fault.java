package nocking.fault;

import nocking.channel.SensorCard;
import nocking.prior.FaultKind;
import nocking.quantity.Numbers;
import nocking.quantity.Sentence;
import nocking.quantity.Unit;
import nocking.sensor.Sensor;

/**
 * One thing that is wrong.
 *
 * @param what the part, card, unit or symbols that it concerns; empty where the kind says it all
 * @param element 0 for the sensor, 1 … for the stages, one more for the converter; −1 for none
 * @param part name of a resistor in its element; empty for none
 * @param other sensor that is fitted or whose curve is used instead; null for none
 * @param unit unit that the number really is in; null for none
 * @param severity what the kind counts: a factor, volts or ohms; NaN where there is no degree
 * @param segment stretch of the wires that it sits in, 0 beside the sensor, one more behind each
 *     place between the ends; −1 where that does not arise
 */
public record Fault(
    FaultKind kind,
    String what,
    int element,
    String part,
    Sensor other,
    Unit unit,
    double severity,
    int segment) {

  /** The sound channel. */
  public static final Fault NONE = of(FaultKind.NONE);

  /** A fault that concerns no part. */
  static Fault of(FaultKind kind) {
    return of(kind, Double.NaN);
  }

  static Fault of(FaultKind kind, double severity) {
    return new Fault(kind, "", -1, "", null, null, severity, -1);
  }

  static Fault ofPart(FaultKind kind, int element, String part, String what, double severity) {
    return new Fault(kind, what, element, part, null, null, severity, -1);
  }

  static Fault ofSensor(FaultKind kind, SensorCard card, Sensor sensor) {
    return new Fault(kind, card.name(), 0, "", sensor, null, Double.NaN, -1);
  }

  /**
   * The same in a stretch of the wires.
   *
   * @param where in words, for example {@code between splice and the receiver}
   */
  Fault in(int stretch, String where) {
    return new Fault(kind, where, element, part, other, unit, severity, stretch);
  }

  /** The same without saying in which stretch of the wires. */
  public Fault anywhere() {
    return segment < 0 ? this : new Fault(kind, "", element, part, other, unit, severity, -1);
  }

  public Fault withSeverity(double v) {
    return new Fault(kind, what, element, part, other, unit, v, segment);
  }

  /** True when it may be there to one degree or another. */
  public boolean graded() {
    return !Double.isNaN(severity) && (kind.graded() || kind == FaultKind.GROUND_OPEN);
  }

  /** True when both are the same apart from how bad it is. */
  public boolean same(Fault f) {
    return kind == f.kind && what.equals(f.what) && element == f.element && part.equals(f.part);
  }

  /** The fault without its degree, for example {@code R1 of the divider drifted}. */
  public String name() {
    return switch (kind) {
      case PART_OPEN, PART_SHORT, PART_DRIFT -> what + " " + kind.title();
      case PART_DECADE -> what;
      case OTHER_SENSOR -> what + " is fitted";
      case OTHER_CURVE -> "receiver has the curve of " + what;
      case WRONG_UNIT, SWAPPED_SYMBOLS, DECIMAL, SENSOR_PREFIX, RMS_PEAK, REFERENCE_UNIT ->
          kind.title() + ": " + what;
      default -> segment < 0 ? kind.title() : kind.title() + " " + what;
    };
  }

  /** The fault with its degree, for example {@code ground offset 50 mV}. */
  public String says() {
    if (!kind.graded() || Double.isNaN(severity)) return name();
    return name() + " " + degree();
  }

  /** How bad it is, in words. */
  public String degree() {
    return switch (kind) {
      case SUPPLY_LOW, SUPPLY_HIGH ->
          "by " + Numbers.significant(100 * Math.abs(1 - severity), 2) + " %";
      case GROUND_OFFSET -> sign(severity) + Numbers.engineering(Math.abs(severity), "V", 2);
      case SENSOR_DRIFT, PART_DRIFT, REFERENCE_SCALE -> "×" + Numbers.significant(severity, 3);
      case SENSOR_OFFSET, REFERENCE_OFF ->
          "by "
              + sign(severity)
              + Numbers.significant(100 * Math.abs(severity), 2)
              + (kind == FaultKind.SENSOR_OFFSET ? " % of its span" : " % of the range");
      case SUPPLY_LEAD, GROUND_LEAD, SIGNAL_LEAD, LEAK_TO_GROUND, LEAK_TO_SUPPLY ->
          Numbers.engineering(severity, "Ω", 2);
      default -> "";
    };
  }

  private static String sign(double v) {
    return v < 0 ? "−" : "+";
  }

  /** First letter in upper case, for a line of its own. */
  public String line() {
    String text = says();
    return Sentence.capital(text);
  }
}
