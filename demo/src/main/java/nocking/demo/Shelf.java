package nocking.demo;

import java.util.ArrayList;
import java.util.List;
import nocking.channel.QuantityKind;
import nocking.channel.SensorCard;
import nocking.parts.StockPart;
import nocking.points.RawUnit;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Instrument;
import nocking.sensor.LinearSensor;
import nocking.sensor.NtcBeta;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.Sensor;
import nocking.table.Arithmetic;
import nocking.table.Outside;
import nocking.table.Placement;
import nocking.table.ReceiverShape;
import nocking.table.TableGoal;
import nocking.table.TableSpec;

/** The sensor cards, the drawer and the instruments of the hatchery. */
final class Shelf {
  private static final Value ZERO = Value.of(0);
  private static final String DATE = "2026-03-18";

  private Shelf() {}

  /** The card that the blower manifold's sensor was taken from. */
  static SensorCard manifold() {
    return pressure("manifold-100", "Manifold 100 g", 100);
  }

  private static SensorCard pressure(String id, String name, double kPa) {
    var sensor =
        new RatiometricSensor(
            ZERO, Value.of(8), Value.of(kPa), Value.of(92), Value.typed("5 V", Unit.VOLT), ZERO);
    return card(id, name, QuantityKind.PRESSURE, "kPa", sensor);
  }

  private static SensorCard card(
      String id, String name, QuantityKind kind, String unit, Sensor sensor) {
    return new SensorCard(
        "card-" + id, name, "datasheet in the binder", DATE, kind, unit, sensor, 1);
  }

  static List<SensorCard> cards() {
    return List.of(
        manifold(),
        pressure("manifold-250", "Manifold 250 g", 250),
        pressure("line-1000", "Line 1000 g", 1000),
        pressure("suction-50", "Suction 50 g", 50),
        card(
            "probe-20",
            "Probe 20 mV",
            QuantityKind.TEMPERATURE,
            "°C",
            new LinearSensor(
                Value.typed("350 mV", Unit.VOLT),
                ZERO,
                Value.typed("20 mV", Unit.VOLT),
                ZERO,
                Value.of(40),
                ZERO)),
        card(
            "raceway-table",
            "Thermistor 10 k",
            QuantityKind.TEMPERATURE,
            "°C",
            WaterSide.thermistor()),
        card("bead-3950", "Bead 10 k", QuantityKind.TEMPERATURE, "°C", NtcBeta.of(10e3, 25, 3950)));
  }

  /** What stands on the bench; the addresses are ones that nobody has (RFC 5737). */
  static List<Instrument> instruments() {
    Instrument bath =
        Instrument.of(
                "Bath R-14", Instrument.Language.SCPI, "192.0.2.14:5025", "READ?", Unit.CELSIUS)
            .withSet("SOUR %s")
            .withAccuracy(Value.typed("0.03", Unit.of("K")))
            .withDue("2027-01-07");
    Instrument meter =
        Instrument.of(
                "Bench meter", Instrument.Language.SCPI, "192.0.2.20:5025", "READ?", Unit.VOLT)
            .withAccuracy(Value.typed("0.2 mV", Unit.VOLT))
            .withDue("2027-03-01");
    Instrument gauge = Instrument.byHand("Gauge P-2", Unit.of("kPa")).withDue("2026-12-15");
    return List.of(bath, meter, gauge);
  }

  /** What the controllers of the raceways and the screen's own firmware want. */
  static List<ReceiverShape> shapes() {
    TableGoal best = TableGoal.USUAL.withPlacement(Placement.OPTIMAL);
    return List.of(
        new ReceiverShape(
            "Raceway controller", new TableSpec(16, RawUnit.VOLTS, true, 3, 1).with(best)),
        new ReceiverShape(
            "Screen firmware",
            new TableSpec(32, RawUnit.COUNTS, false, 0, 2)
                .with(best.withFewest(true))
                .with(new Arithmetic(true, 4096, 12, 16, Outside.EXTEND))));
  }

  /** E12 from 100 Ω to 820 kΩ with gaps, as a drawer has. */
  static List<StockPart> drawer() {
    double[] decade = {1, 1.2, 1.5, 2.2, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2};
    var list = new ArrayList<StockPart>();
    for (int d = 2; d <= 5; d++) {
      for (int i = 0; i < decade.length; i++) {
        double ohms = Math.round(decade[i] * Math.pow(10, d));
        list.add(new StockPart("", ohms, 1, 0.25, 250, 2 + (3 * i + d) % 9));
      }
    }
    list.add(new StockPart("precision", 10e3, 0.1, 0.25, 250, 4));
    list.add(new StockPart("high voltage", 390e3, 1, 0.5, 500, 8));
    return list;
  }
}
