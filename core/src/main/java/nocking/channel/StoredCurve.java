package nocking.channel;

import java.util.ArrayList;
import java.util.List;
import nocking.element.Signal;
import nocking.fit.Trim;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.Sensor;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.sensor.TwoPointSensor;
import nocking.stage.Stage;

/**
 * The curve that a receiver has stored and goes by, whatever the path has become meanwhile: the
 * sensor that it takes to be there, and what it takes to stand between that and its converter.
 *
 * @param origin where the curve comes from, in words
 * @param unit of the quantity that the receiver counts in
 * @param stages empty where the receiver takes the sensor to be wired straight to it
 * @param adopted a measured curve in the place of the sensor's equation; null for none
 * @param trim zero and span on top of it; null for none
 */
public record StoredCurve(
    String origin, String unit, Sensor sensor, List<Stage> stages, Adopted adopted, Trim trim) {
  private static final String TYPED = "points typed in";
  private static final int DIGITS = 5;

  public StoredCurve {
    if (origin == null || origin.isBlank()) {
      throw new QuantityException("the receiver's own curve needs an origin");
    }
    if (sensor == null) throw new QuantityException("the receiver's own curve needs a sensor");
    stages = stages == null ? List.of() : List.copyOf(stages);
  }

  /**
   * What the receiver goes by while the channel is as it stands now: kept before the path is
   * changed.
   *
   * @throws QuantityException while there is no sensor
   */
  public static StoredCurve asItStands(Channel c) {
    Design d = c.design();
    if (d.sensor() == null) {
      throw new QuantityException("there is no sensor yet whose curve could be kept");
    }
    Adopted measured = c.calibration().designAdopted() ? null : c.calibration().adopted();
    String origin =
        (d.card() == null ? d.sensor().title() : d.card().name())
            + (c.calibration().byDesign() ? ", as designed" : ", as calibrated");
    return new StoredCurve(
        origin, d.unit().symbol(), d.sensor(), d.stages(), measured, c.calibration().trim());
  }

  /**
   * The stock curve of a card: straight at the converter where the sensor gives volts, else behind
   * the stages of the channel that make volts of what it gives.
   */
  public static StoredCurve ofCard(SensorCard card, Channel c) {
    var before = new ArrayList<Stage>();
    Signal carried = card.sensor().signal();
    for (Stage s : c.design().stages()) {
      if (carried == Signal.VOLTAGE || !s.accepts().contains(carried)) break;
      before.add(s);
      carried = s.gives(carried);
    }
    return new StoredCurve(card.name(), card.unit(), card.sensor(), before, null, null);
  }

  /**
   * Points typed in, of the quantity over volts at the converter: a line through two, straight
   * lines between more.
   *
   * @throws QuantityException naming the rows that turn back
   */
  public static StoredCurve through(Unit unit, List<TablePoint> rows) {
    if (rows.size() == 2) {
      TablePoint a = rows.get(0);
      TablePoint b = rows.get(1);
      if (a.at().number() == b.at().number() || a.output().number() == b.output().number()) {
        throw new QuantityException("two points of a line differ in both their volts and readings");
      }
      var line = new TwoPointSensor(a.at(), a.output(), b.at(), b.output(), Value.of(0));
      return new StoredCurve(TYPED, unit.symbol(), line, List.of(), null, null);
    }
    var table =
        new TableSensor(rows, TableSensor.Interpolation.LINEAR, Signal.VOLTAGE, Value.of(0));
    table.graph();
    return new StoredCurve(TYPED, unit.symbol(), table, List.of(), null, null);
  }

  /** The line through what the ends of a range give, to a start from which to type. */
  public static StoredCurve between(Unit unit, double x1, double v1, double x2, double v2) {
    return through(
        unit,
        List.of(
            new TablePoint(rounded(x1), rounded(v1)), new TablePoint(rounded(x2), rounded(v2))));
  }

  /** The points that were typed in; none for a curve that was kept or taken from a card. */
  public List<TablePoint> rows() {
    if (!origin.equals(TYPED)) return List.of();
    return switch (sensor) {
      case TwoPointSensor p ->
          List.of(
              new TablePoint(p.lowAt(), p.lowOutput()), new TablePoint(p.highAt(), p.highOutput()));
      case TableSensor t -> t.points();
      default -> List.of();
    };
  }

  private static Value rounded(double v) {
    return Value.of(Double.parseDouble(Numbers.significant(v, DIGITS)));
  }

  /**
   * Refuses numbers that make no curve.
   *
   * @throws QuantityException naming them
   */
  void require() {
    Unit own = Unit.of(unit);
    sensor.require(own);
    stages.forEach(s -> s.require(own));
    if (adopted != null) adopted.require();
  }
}
