package nocking.channel;

import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.Sensor;
import nocking.wiring.Supplied;

/**
 * A sensor definition that the book keeps for many channels.
 *
 * @param name own name, unique in the book
 * @param source where the numbers come from
 * @param date of the entry, as it was written
 * @param unit of the quantity that the sensor's numbers are in
 * @param revision from 1, one more with every change
 * @param supplied how the sensor stands on its supply; null where the card does not say
 * @param overload what the sensor bears beyond its range; null where the card does not say
 */
public record SensorCard(
    String id,
    String name,
    String source,
    String date,
    QuantityKind kind,
    String unit,
    Sensor sensor,
    int revision,
    Supplied supplied,
    Overload overload) {

  public SensorCard {
    if (name == null || name.isBlank()) throw new QuantityException("a sensor card needs a name");
  }

  /** A card that says nothing of the supply. */
  public SensorCard(
      String id,
      String name,
      String source,
      String date,
      QuantityKind kind,
      String unit,
      Sensor sensor,
      int revision) {
    this(id, name, source, date, kind, unit, sensor, revision, null, null);
  }

  public CardRef ref() {
    return new CardRef(id, name, revision);
  }

  /** The same card with other numbers; a new revision where they differ. */
  public SensorCard withSensor(Sensor v) {
    int next = v.equals(sensor) ? revision : revision + 1;
    return new SensorCard(id, name, source, date, kind, unit, v, next, supplied, overload);
  }

  public SensorCard withName(String v) {
    return new SensorCard(id, v, source, date, kind, unit, sensor, revision, supplied, overload);
  }

  /** The card's sensor with its numbers in another unit of the same dimension. */
  public Sensor sensorIn(Unit to) {
    return UnitChange.sensor(sensor, Unit.of(unit), to);
  }

  /**
   * A channel that begins with this card: where it was made for another quantity, it takes the
   * card's quantity, unit and range as well.
   *
   * @throws QuantityException where it measures something else already
   */
  public Channel begin(Channel c) {
    Unit own = Unit.of(unit);
    if (own.dimension().equals(c.unit().dimension())) return putInto(c);
    if (c.design().sensor() != null || !c.calibration().points().points().isEmpty()) {
      throw new QuantityException(
          "%s measures %s and the channel %s".formatted(name, unit, c.unit().symbol()));
    }
    Span rated = sensor.rated(own);
    return putInto(
        c.define(
            d ->
                d.withKind(kind)
                    .withUnit(unit)
                    .withRange(Value.of(rated.low()), Value.of(rated.high()))));
  }

  /** The channel with this card's sensor in its own unit; its definition and stages stay. */
  public Channel putInto(Channel c) {
    Channel next =
        c.design(
            d ->
                d.withSensor(sensorIn(c.unit()))
                    .withCard(ref())
                    .withOverload(UnitChange.overload(overload, Unit.of(unit), c.unit())));
    return supplied == null ? next : next.wiring(w -> w.withPlan(w.plan().withSupplied(supplied)));
  }

  /**
   * The same under a receiver that goes on by the curve that it has now: one of its own, else what
   * the channel goes by. What was calibrated stays in that curve and is no longer the channel's.
   */
  public Channel putUnderReceiver(Channel c) {
    StoredCurve own = c.receiver().stored();
    StoredCurve kept = own == null ? StoredCurve.asItStands(c) : own;
    return putInto(c).calibration(k -> k.withAdopted(null)).receiver(r -> r.withStored(kept));
  }

  public SensorCard withSupplied(Supplied v) {
    return new SensorCard(id, name, source, date, kind, unit, sensor, revision, v, overload);
  }

  public SensorCard withOverload(Overload v) {
    return new SensorCard(id, name, source, date, kind, unit, sensor, revision, supplied, v);
  }
}
