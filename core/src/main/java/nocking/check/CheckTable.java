package nocking.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.quantity.Unit;
import nocking.sensor.Sensor;

/**
 * The check of a channel.
 *
 * @param measured what is entered: the display's reading, volts or counts at the converter, or what
 *     the sensor gives by itself
 */
public record CheckTable(Measured measured, List<CheckPoint> points) {
  /** What the technician reads off at a check input. */
  public enum Measured {
    READING(null),
    VOLTS(RawUnit.VOLTS),
    COUNTS(RawUnit.COUNTS),
    OHMS(RawUnit.OHMS),
    MILLIAMPERES(RawUnit.MILLIAMPERES);

    private final RawUnit raw;

    Measured(RawUnit raw) {
      this.raw = raw;
    }

    /** In words: {@code volts}. */
    public String title() {
      return name().toLowerCase(Locale.ROOT);
    }

    /** In as few letters as can be understood: {@code volts}, {@code mA}. */
    public String brief() {
      return raw == null ? title() : raw.brief();
    }

    /** Unit of what is entered on a channel of a unit. */
    public Unit unit(Unit quantity) {
      return raw == null ? quantity : raw.unit();
    }

    /** True for what the sensor gives by itself: nothing behind it is checked by that. */
    public boolean ofSensor() {
      return raw != null && raw.ofSensor();
    }

    /** The raw unit that it is; empty for the display. */
    public Optional<RawUnit> raw() {
      return Optional.ofNullable(raw);
    }

    /** What can be measured of a sensor and the channel behind it. */
    public static List<Measured> of(Sensor sensor) {
      Optional<RawUnit> own = RawScale.own(sensor);
      return Arrays.stream(values())
          .filter(m -> !m.ofSensor() || own.filter(u -> u == m.raw).isPresent())
          .toList();
    }

    /** What a unit says that a value was measured in; the display for the channel's own. */
    public static Measured in(Unit unit) {
      return Arrays.stream(values())
          .filter(m -> m.raw != null && m.raw.unit().dimension().equals(unit.dimension()))
          .findFirst()
          .orElse(READING);
    }
  }

  public static final CheckTable EMPTY = new CheckTable(Measured.VOLTS, List.of());

  public CheckTable {
    points = List.copyOf(points);
  }

  public CheckTable with(int index, CheckPoint point) {
    var next = new ArrayList<>(points);
    next.set(index, point);
    return new CheckTable(measured, next);
  }

  public CheckTable plus(CheckPoint point) {
    var next = new ArrayList<>(points);
    next.add(point);
    return new CheckTable(measured, next);
  }

  public CheckTable without(int index) {
    var next = new ArrayList<>(points);
    next.remove(index);
    return new CheckTable(measured, next);
  }
}
