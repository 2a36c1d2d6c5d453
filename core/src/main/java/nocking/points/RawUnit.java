package nocking.points;

import java.util.Arrays;
import java.util.Locale;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;

/**
 * In what something is read: at the converter's input in volts or counts, at the sensor by itself
 * in ohms, in its loop in milliamperes. A receiver with a pull-up or a burden of its own counts in
 * these, too.
 */
public enum RawUnit {
  VOLTS(Unit.VOLT),
  COUNTS(Unit.COUNTS),
  OHMS(Unit.OHM),
  MILLIAMPERES(Unit.of("mA"));

  private final Unit unit;

  RawUnit(Unit unit) {
    this.unit = unit;
  }

  /** In words: {@code volts}. */
  public String title() {
    return name().toLowerCase(Locale.ROOT);
  }

  /** In as few letters as can be understood: {@code ohms}, {@code mA}. */
  public String brief() {
    return this == MILLIAMPERES ? unit.symbol() : title();
  }

  public Unit unit() {
    return unit;
  }

  /** True for what the sensor gives by itself, before any stage. */
  public boolean ofSensor() {
    return this == OHMS || this == MILLIAMPERES;
  }

  /** That of a unit, {@code mV} or {@code kΩ}; volts for what is none of them. */
  public static RawUnit of(Unit u) {
    return Arrays.stream(values())
        .filter(r -> r.unit.dimension().equals(u.dimension()))
        .findFirst()
        .orElse(VOLTS);
  }

  /** A reading for people: {@code 1.2345 V}, {@code 14.82 kΩ}, {@code 12.0043 mA}. */
  public String amount(double v) {
    return switch (this) {
      case VOLTS, MILLIAMPERES -> Numbers.fixed(v, 4) + " " + unit.symbol();
      case COUNTS -> Numbers.trimmed(v, 6) + " " + unit.symbol();
      case OHMS -> Numbers.compact(v, unit.symbol(), 6);
    };
  }

  /** A small amount for people, of a band or a scatter, to so many digits. */
  public String small(double v, int digits) {
    return switch (this) {
      case VOLTS -> Numbers.compact(v, unit.symbol(), digits);
      case OHMS -> ohms(v, digits);
      case MILLIAMPERES -> Numbers.compact(v / 1000, "A", digits);
      case COUNTS -> Numbers.significant(v, digits) + " " + title();
    };
  }

  /** A difference of two readings for people, with its sign. */
  public String signed(double v) {
    return switch (this) {
      case VOLTS -> Numbers.signed(1000 * v, 1) + " mV";
      case MILLIAMPERES -> Numbers.signed(1000 * v, 1) + " µA";
      case COUNTS -> Numbers.signed(v, 0) + " " + unit.symbol();
      case OHMS -> (v < 0 ? "−" : "+") + ohms(Math.abs(v), 3);
    };
  }

  /** Nobody says milliohms of a sensor. */
  private static String ohms(double v, int digits) {
    return Math.abs(v) < 1 ? Numbers.trimmed(v, digits) + " Ω" : Numbers.compact(v, "Ω", digits);
  }
}
