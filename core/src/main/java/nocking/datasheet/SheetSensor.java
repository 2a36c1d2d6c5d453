package nocking.datasheet;

import java.util.Optional;
import nocking.channel.Overload;
import nocking.channel.QuantityKind;
import nocking.channel.SensorCard;
import nocking.channel.UnitChange;
import nocking.quantity.Unit;
import nocking.sensor.Sensor;

/**
 * A sensor that a datasheet describes.
 *
 * @param type name of the column that it stands in; empty where there is one type only
 * @param sensor its numbers in {@code unit}
 * @param says what it was made of
 */
public record SheetSensor(
    String type, Sensor sensor, Unit unit, Optional<Overload> overload, String says) {

  /** The sensor with its numbers in another unit of the same dimension. */
  public Sensor sensorIn(Unit to) {
    return UnitChange.sensor(sensor, unit, to);
  }

  /** What it bears, in another unit of the same dimension. */
  public Overload overloadIn(Unit to) {
    return UnitChange.overload(overload.orElse(null), unit, to);
  }

  /**
   * A card of the book with this sensor.
   *
   * @param date of the entry
   */
  public SensorCard card(String id, String name, String date) {
    return new SensorCard(
            id,
            name,
            "datasheet, pasted",
            date,
            QuantityKind.measuredIn(unit),
            unit.symbol(),
            sensor,
            1)
        .withOverload(overload.orElse(null));
  }
}
