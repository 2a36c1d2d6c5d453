package nocking.bench.simulated;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import nocking.points.RawUnit;
import nocking.procedure.LearntEnds;
import nocking.procedure.MechanicalTrim;
import nocking.procedure.Procedure;
import nocking.procedure.Stations;
import nocking.procedure.TaughtEnds;
import nocking.procedure.ZeroAndSpan;
import nocking.quantity.Unit;
import nocking.run.Instrument;
import nocking.run.Instrument.Language;

/**
 * A bench that is set up for one job at the hatchery.
 *
 * @param caution what to heed at a real one; shown where the work is done
 * @param fixture what the hands can do there beside moving the stimulus; empty for nothing
 */
public record Scene(
    String name,
    String title,
    Stimulus stimulus,
    List<TrueSensor> sensors,
    String caution,
    Optional<Fixture> fixture) {

  private Scene(
      String name, String title, Stimulus stimulus, List<TrueSensor> sensors, String caution) {
    this(name, title, stimulus, sensors, caution, Optional.empty());
  }

  private static final double ZERO_CELSIUS = 273.15;

  private static final double RACEWAY_PULL_UP = 18.02e3;

  /** Burden of the header tank's loop as it is. */
  private static final double TANK_BURDEN = 149.9;

  /** Thermistor and pull-up as they are: 20 Ω and 8 K of β from nominal. */
  private static double raceway(double t) {
    double ohms = 10020 * Math.exp(3858 * (1 / (t + ZERO_CELSIUS) - 1 / (25 + ZERO_CELSIUS)));
    return 3.3 * ohms / (ohms + RACEWAY_PULL_UP);
  }

  private static TrueSensor thermistor() {
    return new TrueSensor("RW-T1", Scene::raceway, 6, 0.0004, 0, 0.0002, 3.3)
        .withOwn(RawUnit.OHMS, v -> RACEWAY_PULL_UP * v / (3.3 - v));
  }

  /** Litres in the sump at a level in metres: a trough that widens upwards. */
  static double litres(double metres) {
    return 1000 * (0.35 * metres + 0.42 * metres * metres);
  }

  private static double metres(double litres) {
    double v = Math.max(0, litres) / 1000;
    return (Math.sqrt(0.35 * 0.35 + 4 * 0.42 * v) - 0.35) / (2 * 0.42);
  }

  /** Volts of the drum screen's sensor at an angle, which go up and down about a straight line. */
  private static double screen(double angle) {
    return 0.35 + 2.6 * angle / 90 + 0.03 * Math.sin(2 * Math.PI * angle / 100 + 0.9);
  }

  private static final List<Scene> ALL =
      List.of(
          new Scene(
              "bath",
              "liquid bath with heater and stirrer",
              Stimulus.steady("°C", -5, 60, 25, 0.004, 0.01)
                  .withRest(12)
                  .withRate(0.25)
                  .withGradient(-0.0008),
              List.of(thermistor(), incubator()),
              "Wet hands and a mains stirrer: use the isolated outlet. Above 50 °C the bath scalds."),
          new Scene(
              "pump",
              "hand pump with a slow leak",
              Stimulus.steady("kPa", 0, 100, 1.5, 0.01, 0.01).withRate(20).withLeak(4000),
              List.of(
                  new TrueSensor(
                      "BL-P1",
                      x -> (0.403 + 0.04188 * x) * 10 / 15.1,
                      0.1,
                      0.0006,
                      0.03,
                      0.0005,
                      3.3)),
              "Bleed before a fitting is loosened; rated fittings only, eye protection on."),
          new Scene(
              "slide",
              "slide with a scale and some play",
              Stimulus.steady("%", 0, 100, 0.3, 0.01, 0.05).withRate(40).withBacklash(0.4),
              List.of(
                  new TrueSensor(
                      "SG-P1", x -> 5 * (0.923 - 0.00842 * x) * 0.9975, 0.05, 0.0008, 0, 0, 5)),
              "Moving parts: fingers out of the slide while it is driven."),
          new Scene(
              "tank",
              "header tank with a metering pump, and waves",
              Stimulus.steady("m", 0, 4, 4, 0.0005, 0.001).withRate(0.05).withWaves(0.004, 2.3),
              List.of(
                  new TrueSensor(
                          "HD-L1",
                          x -> TANK_BURDEN * (0.00402 + 0.003996 * x),
                          1,
                          0.0004,
                          0,
                          0,
                          3.3)
                      .withOwn(RawUnit.MILLIAMPERES, v -> v / TANK_BURDEN)),
              "Water and pumps: isolate the pump before reaching into the tank."),
          new Scene(
              "sump",
              "odd-shaped sump that is filled in measured pours",
              Stimulus.steady("L", 0, 600, 3, 0.02, 0.1).withRate(2).withWaves(0.8, 1.7),
              List.of(
                  new TrueSensor("SP-V1", x -> 0.45 + 3.61 * metres(x - 6), 0.8, 0.0008, 0, 0, 4.6),
                  new TrueSensor(
                      "SP-V2", x -> 0.46 + 3.58 * metres(x - 9), 0.8, 0.0008, 0, 0, 4.6)),
              "Water and pumps: isolate the pump before reaching into the sump."),
          new Scene(
              "well",
              "dry-block well, where a shallow probe reads low",
              Stimulus.steady("°C", 0, 150, 40, 0.006, 0.01)
                  .withRest(22)
                  .withRate(0.4)
                  .withGradient(-0.004),
              List.of(thermistor()),
              "The block stays hot long after it is switched off; keep it upright."),
          new Scene(
              "mains",
              "mains source behind an isolating stand-in",
              Stimulus.steady("V", 0, 260, 0.5, 0.05, 0.1).withRate(60),
              List.of(new TrueSensor("AE-V1", x -> 0.01263 * x, 1.2, 0.0008, 0, 0, 3.3)),
              "The stand-in is isolated; the mains is not. Work on live mains is for a licensed"
                  + " person under local codes."),
          new Scene(
              "frame",
              "load frame with test masses",
              Stimulus.steady("kg", 0, 70, 0.8, 0, 0.01).withRate(15),
              List.of(
                  new TrueSensor(
                      "FH-W1",
                      x -> 394.5 * 5 * 0.001 * (2.002 * x / 60 + 0.012) + 0.251,
                      0.4,
                      0.0006,
                      0.02,
                      0.0003,
                      4.9)),
              "Masses fall: nothing below the frame that should not be hit, feet included."),
          new Scene(
              "oxygen",
              "oxygen vessel, stirred",
              Stimulus.steady("mg/L", 0, 22, 20, 0.01, 0.01).withRest(9).withRate(0.2),
              List.of(
                  new TrueSensor(
                      "OX-D1",
                      x -> 50 * (0.0001 + 0.00243 * x - 0.0000018 * x * x),
                      12,
                      0.0012,
                      0,
                      0.002,
                      3.2)),
              "Oxygen feeds fire: no grease, no flame, ventilate."),
          new Scene(
              "stroke",
              "gate actuator on a rule",
              Stimulus.steady("mm", 0, 220, 0.3, 0.02, 0.1).withRate(60).withBacklash(0.3),
              List.of(
                  new TrueSensor(
                      "GV-P1", x -> 0.5952 * (0.012 + 5.011 * x / 220), 0.1, 0.0008, 0, 0, 3)),
              "The gate crushes: lock it before reaching in. A teach wire goes to ground only,"
                  + " never to the positive supply."),
          new Scene(
              "lever",
              "lever of the flow diverter, with slack",
              Stimulus.steady("", 1, 5, 0.2, 0, 1).withRate(4).withBacklash(0.04),
              List.of(new TrueSensor("FD-S1", x -> 0.8 + 0.4 * x, 0.05, 0.002, 0, 0, 5)),
              "Moving parts: keep clear of the rod while the lever is thrown."),
          new Scene(
              "drum",
              "drum screen on a dividing head",
              Stimulus.steady("°", 0, 90, 0.3, 0.003, 0.01).withRate(30).withBacklash(0.02),
              List.of(new TrueSensor("SC-A1", Scene::screen, 0.05, 0.0003, 0.006, 0, 3.3)),
              "Moving parts: the drum is isolated and locked before a hand goes in."),
          new Scene(
              "clamp",
              "sensor in a clamp that shifts it when it is tightened",
              Stimulus.steady("°", -15, 15, 0.2, 0, 0.1).withRest(0).withRate(10),
              List.of(new TrueSensor("SG-P1", a -> 4.318 + 0.0231 * a, 0.05, 0.0008, 0, 0, 5)),
              "Moving parts: the gate is locked before a hand goes to the clamp.",
              Optional.of(new Fixture.Clamp(-0.012, 0.0015))),
          new Scene(
              "teach",
              "gate actuator with a teach wire",
              Stimulus.steady("mm", 0, 220, 0.3, 0.02, 0.1).withRate(60),
              List.of(new TrueSensor("GV-P1", x -> 0, 0.1, 0.0008, 0, 0, 3)),
              "The gate crushes: lock it before reaching in.",
              Optional.of(new Fixture.TeachWire(0, 220, 0.0062, 2.981, 0.298, 0.25, 2.5, 9, 130))));

  /** Its reference as it would stand in a book. */
  Instrument reference(String address) {
    Unit unit = stimulus.unit().isEmpty() ? Unit.ONE : Unit.of(stimulus.unit());
    return Instrument.of("Reference of the " + name, Language.SCPI, address, "READ?", unit)
        .withSet("SOUR %s");
  }

  /** The meter of a sensor as it would stand in a book. */
  Instrument meter(int sensor, String address) {
    return Instrument.of(
        "Meter at " + sensors.get(sensor).tag(), Language.SCPI, address, "READ?", Unit.VOLT);
  }

  /** Place of a channel's sensor on this bench; empty where it does not stand here. */
  public OptionalInt place(String tag) {
    return IntStream.range(0, sensors.size())
        .filter(i -> sensors.get(i).tag().equals(tag))
        .findFirst();
  }

  private static TrueSensor incubator() {
    return new TrueSensor(
        "IN-T2", x -> 13.47 * (0.35 + 0.02 * x - 0.528) + 1.65, 9, 0.0006, 0, 0.0002, 3.3);
  }

  public static List<Scene> all() {
    return ALL;
  }

  /** A scene by its name. */
  public static Optional<Scene> named(String name) {
    return ALL.stream().filter(s -> s.name.equals(name)).findFirst();
  }

  /** The scene in which a channel of the hatchery is read. */
  public static Optional<Scene> of(String tag) {
    return ALL.stream().filter(s -> s.place(tag).isPresent()).findFirst();
  }

  /** The scene in which a procedure is done on a channel of the hatchery. */
  public static Optional<Scene> of(String tag, Procedure procedure) {
    Predicate<Scene> fits =
        switch (procedure) {
          case MechanicalTrim _ ->
              s -> s.fixture.filter(Fixture.Clamp.class::isInstance).isPresent();
          case TaughtEnds _ ->
              s -> s.fixture.filter(Fixture.TeachWire.class::isInstance).isPresent();
          case LearntEnds _, Stations _, ZeroAndSpan _ -> s -> s.fixture.isEmpty();
        };
    return ALL.stream().filter(s -> s.place(tag).isPresent()).filter(fits).findFirst();
  }
}
