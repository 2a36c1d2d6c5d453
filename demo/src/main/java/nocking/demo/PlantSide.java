package nocking.demo;

import java.util.List;
import java.util.function.DoubleUnaryOperator;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.channel.Adopted;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.channel.StoredCurve;
import nocking.converter.Converter;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.AcVoltage;
import nocking.sensor.BipolarSensor;
import nocking.sensor.StrainBridge;
import nocking.sensor.TablePoint;
import nocking.stage.BridgeRectifier;
import nocking.stage.Divider;
import nocking.stage.InstrumentationAmp;
import nocking.stage.ReferenceBlend;
import nocking.wiring.Pin;
import nocking.wiring.WirePlan;

/** The channels of hopper, aerators and paddle wheel. */
final class PlantSide {
  private static final Value ZERO = Value.of(0);

  private PlantSide() {}

  private static Value ohms(String text) {
    return Value.typed(text, Unit.OHM);
  }

  private static Value volts(String text) {
    return Value.typed(text, Unit.VOLT);
  }

  /** Feed hopper: a strain bridge and an instrumentation amplifier on one 5 V supply. */
  static Channel hopper(long seed) {
    var bridge = new StrainBridge(Value.of(60), Value.of(2), ZERO, volts("5 V"), ohms("350"));
    var amp =
        new InstrumentationAmp(
            Value.of(1),
            ohms("50k ±0.05%"),
            ohms("127 ±0.1% 25ppm"),
            ZERO,
            volts("0.25"),
            volts("0.05"),
            volts("4.95"));
    DoubleUnaryOperator truth = x -> 394.5 * 5 * 0.001 * (2.002 * x / 60 + 0.012) + 0.251;
    Channel c =
        Channel.blank("hatchery-fh-w1", "FH-W1")
            .define(
                d ->
                    d.withName("Feed hopper")
                        .withKind(QuantityKind.WEIGHT)
                        .withUnit("kg")
                        .withRange(ZERO, Value.of(60))
                        .withTolerance(Value.of(0.2)))
            .design(
                d ->
                    d.withSensor(bridge)
                        .withStages(List.of(amp))
                        .withConverter(Converter.of(16, 5)))
            .wiring(
                w ->
                    w.withPlan(
                        Hatchery.wires(null, "J7", 6, "red", "black", "green")
                            .withSharedReference(true)))
            .calibration(
                k ->
                    k.withPoints(
                        new Bench(seed)
                            .points(
                                new double[] {0, 10, 20, 30, 40, 50, 60}, 3, truth, 0.0006, 0, 0)));
    return Hatchery.withLimits(c);
  }

  /** Aerator supply: rectified behind an isolating stand-in, divided by a string of four. */
  static Channel aerator() {
    var rectifier =
        new BridgeRectifier(volts("0.8"), Value.typed("1u", Unit.of("F")), Value.of(50), null);
    Channel c =
        Channel.blank("hatchery-ae-v1", "AE-V1")
            .define(
                d ->
                    d.withName("Aerator supply")
                        .withKind(QuantityKind.VOLTAGE)
                        .withUnit("V")
                        .withRange(Value.of(180), Value.of(260))
                        .withTolerance(Value.of(3))
                        .withRest(Value.of(230))
                        .withHazards(List.of(Hazard.MAINS)))
            .design(
                d ->
                    d.withSensor(AcVoltage.sine(1, 300))
                        .withStages(List.of(rectifier, new Divider(ohms("4*390k"), ohms("13k"))))
                        .withConverter(Converter.of(12, 3.3)))
            .wiring(
                w ->
                    w.withPlan(
                            WirePlan.of(
                                null,
                                List.of(
                                    Hatchery.wire(Pin.Function.SIGNAL, "brown", "1", "J9-1", 2),
                                    Hatchery.wire(Pin.Function.GROUND, "blue", "2", "J9-2", 2))))
                        .withBands(
                            BandPlan.EMPTY
                                .withAlarms(
                                    List.of(
                                        new AlarmBand("low", null, Value.of(207)),
                                        new AlarmBand("in range", Value.of(207), Value.of(253)),
                                        new AlarmBand("high", Value.of(253), null)))
                                .withHysteresis(Value.of(2))))
            .calibration(k -> k.withAdopted(Adopted.DESIGN));
    return Hatchery.withLimits(c);
  }

  /** Paddle torque: a signal about 2.5 V, attenuated about a reference by two potentiometers. */
  static Channel paddle() {
    Channel c =
        Channel.blank("hatchery-pd-q1", "PD-Q1")
            .define(
                d ->
                    d.withName("Paddle torque")
                        .withKind(QuantityKind.TORQUE)
                        .withUnit("N·m")
                        .withRange(Value.of(-40), Value.of(40))
                        .withTolerance(Value.of(0.5))
                        .withRest(ZERO)
                        .withHazards(List.of(Hazard.MOVING, Hazard.SAFETY_SIGNAL)))
            .design(
                d ->
                    d.withSensor(
                            new BipolarSensor(
                                volts("2.5 V"), volts("25 mV"), Value.of(40), ohms("15")))
                        .withStages(
                            List.of(
                                new ReferenceBlend(
                                    volts("5 V"),
                                    ohms("1k"),
                                    Value.typed("20%", Unit.ONE),
                                    ohms("10k"),
                                    Value.typed("89%", Unit.ONE))))
                        .withConverter(Converter.of(12, 3.3)))
            .wiring(
                w -> w.withPlan(Hatchery.wires(volts("5 V"), "J10", 4, "red", "black", "white")))
            // The drive still goes by the torque sensor's own curve, although its swing is shrunk.
            .receiver(
                r ->
                    r.withStored(
                        StoredCurve.through(
                            Unit.of("N·m"),
                            List.of(
                                new TablePoint(Value.of(-40), volts("1.5 V")),
                                new TablePoint(Value.of(40), volts("3.5 V"))))));
    return Hatchery.withLimits(c);
  }
}
