package nocking.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nocking.channel.Adopted;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.converter.Converter;
import nocking.element.Signal;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.stage.InputPull;

/**
 * The sump: an odd shape of which nobody has a drawing, so that volume against voltage is found by
 * pouring. Two submerged probes hang in it, one as a spare.
 */
final class Sump {
  /** Metres of water between the rows of the shape as it was first guessed. */
  private static final double ROW = 0.1;

  private static final int ROWS = 9;

  private Sump() {}

  /** The volume as the first probe sees it, and as the spare does. */
  static List<Channel> probes() {
    return List.of(
        probe("SP-V1", "Sump volume", "J12"), probe("SP-V2", "Sump, spare probe", "J13"));
  }

  private static Channel probe(String tag, String name, String connector) {
    Channel c =
        Channel.blank("hatchery-" + tag.toLowerCase(Locale.ROOT), tag)
            .define(
                d ->
                    d.withName(name)
                        .withKind(QuantityKind.VOLUME)
                        .withUnit("L")
                        .withRange(Value.of(0), Value.of(600))
                        .withTolerance(Value.of(10))
                        .withHazards(List.of(Hazard.MOVING)))
            .design(
                d ->
                    d.withSensor(guessed())
                        .withStages(List.of(InputPull.toGround(Value.typed("100k", Unit.OHM))))
                        .withConverter(Converter.of(12, 5)))
            .wiring(
                w ->
                    w.withPlan(
                        Hatchery.wires(
                            Value.typed("5 V", Unit.VOLT), connector, 8, "red", "black", "green")))
            .calibration(k -> k.withAdopted(Adopted.DESIGN));
    return Hatchery.withLimits(c);
  }

  /** A trough that widens upwards, 3.6 V a metre from 0.45 V on. */
  private static TableSensor guessed() {
    var rows = new ArrayList<TablePoint>();
    for (int i = 0; i <= ROWS; i++) {
      double metres = ROW * i;
      double litres = 1000 * (0.35 * metres + 0.42 * metres * metres);
      rows.add(
          new TablePoint(
              Value.of(Double.parseDouble(Numbers.significant(litres, 4))),
              Value.of(Double.parseDouble(Numbers.significant(0.45 + 3.6 * metres, 4)))));
    }
    return new TableSensor(
        rows, TableSensor.Interpolation.MONOTONE_CUBIC, Signal.VOLTAGE, Value.of(0));
  }
}
