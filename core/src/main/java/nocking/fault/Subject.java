package nocking.fault;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.algebra.Compiled;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.parts.PartString;
import nocking.path.SensorCurve;
import nocking.path.SignalPath;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.sensor.CurrentLoop;
import nocking.sensor.Sensor;
import nocking.stage.Shunt;
import nocking.stage.Stage;
import nocking.wiring.Supplied;

/**
 * A channel as the fault finder sees it: its circuit, its wires and what its receiver makes of the
 * volts.
 *
 * <p>Everything that does not depend on the fault is worked out once and kept; a subject is used by
 * one thread at a time.
 */
public final class Subject {
  /** Readings after which turning the equation round each time costs more than a table. */
  private static final int WORTH_A_TABLE = 3000;

  private static final double CALIBRATED_BEYOND = 0.1;

  private final Channel channel;
  private final SignalPath path;
  private final DoubleUnaryOperator reader;
  private final DoubleUnaryOperator calibration;
  private final List<SensorCard> cards;
  private ReadingTable readings;
  private int asked;
  private final Map<Sensor, SensorCurve> curves = new HashMap<>();
  private final Map<String, DoubleUnaryOperator> swapped = new HashMap<>();

  /**
   * @param path compiled path of the channel
   * @param reader quantity that the receiver shows for volts
   * @param calibration volts that the receiver takes for a quantity: the adopted curve turned round
   * @param cards sensor cards of the book, among which a neighbour may have been taken
   */
  public Subject(
      Channel channel,
      SignalPath path,
      DoubleUnaryOperator reader,
      DoubleUnaryOperator calibration,
      List<SensorCard> cards) {
    this.channel = channel;
    this.path = path;
    this.reader = reader;
    this.calibration = calibration;
    this.cards = List.copyOf(cards);
  }

  public Channel channel() {
    return channel;
  }

  public SignalPath path() {
    return path;
  }

  Sensor sensor() {
    return channel.design().sensor();
  }

  List<Stage> stages() {
    return channel.design().stages();
  }

  /** Share of a resistor of a stage that the largest part of its string takes; 1 for one part. */
  double largestShare(int element, String part) {
    if (element < 1 || element > stages().size() || part.contains(" ")) return 1;
    Stage stage = stages().get(element - 1);
    return stage.fields().stream()
        .filter(f -> f.symbol().equals(part) && stage.value(f) != null)
        .findFirst()
        .map(f -> PartString.largestShare(stage.value(f)))
        .orElse(1.0);
  }

  /** What the receiver shows for volts at the converter under a fault. */
  public double shown(Fault fault, double volts) {
    return shown(Faults.of(fault), volts);
  }

  /** What the receiver shows for volts at the converter under all of some faults. */
  public double shown(Faults faults, double volts) {
    return ShownReading.shown(this, faults, volts);
  }

  /**
   * What the receiver shows for volts at the converter when nothing is wrong. Where its equation
   * has no value the straight line at the end of the working range goes on.
   */
  double reading(double volts) {
    if (++asked < WORTH_A_TABLE) return exactReading(volts);
    if (readings == null)
      readings = ReadingTable.of(this::exactReading, channel.design().converter());
    double near = readings.at(volts);
    return Double.isNaN(near) ? exactReading(volts) : near;
  }

  private double exactReading(double volts) {
    double x = reader.applyAsDouble(volts);
    if (!Double.isNaN(x)) return x;
    Span w = channel.definition().working();
    double low = calibrated(path.output(w.low()));
    double high = calibrated(path.output(w.high()));
    double end = Math.abs(volts - low) < Math.abs(volts - high) ? w.low() : w.high();
    double inside = end == w.low() ? w.at(0.02) : w.at(0.98);
    double at = end == w.low() ? low : high;
    double slope = (calibrated(path.output(inside)) - at) / (inside - end);
    return end + (volts - at) / slope;
  }

  /**
   * Volts that the real circuit gives where the nominal one gives these. A channel that goes by a
   * measured curve departs from its design by what the calibration found; beyond the working range
   * nothing is known of that.
   */
  double calibrated(double volts) {
    if (channel.calibration().byDesign()) return volts;
    double x = path.quantity(volts);
    Span w = channel.definition().working();
    double slack = CALIBRATED_BEYOND * w.width();
    if (!(x >= w.low() - slack && x <= w.high() + slack)) return volts;
    return calibration.applyAsDouble(x);
  }

  /** How the sensor stands on its supply. */
  Supplied supplied() {
    return channel.wiring().plan().supplied();
  }

  /** The same with a sensor that draws so much from its supply. */
  Subject drawing(double amperes) {
    Supplied now = supplied();
    var stated = new Supplied(Value.of(amperes), now.dead(), now.within());
    Channel other = channel.wiring(w -> w.withPlan(w.plan().withSupplied(stated)));
    return new Subject(other, path, reader, calibration, cards);
  }

  /** Volts that feed the sensor: its own definition's, else the first stage's, else the plan's. */
  public Optional<Double> supply() {
    if (channel.design().sensor() instanceof CurrentLoop
        && !channel.design().stages().isEmpty()
        && channel.design().stages().getFirst() instanceof Shunt s
        && s.loopSupply() != null) {
      return Optional.of(s.loopSupply().number());
    }
    return channel
        .design()
        .sensor()
        .ratiometricSupply()
        .or(() -> channel.design().stages().stream().findFirst().flatMap(Stage::ratiometricSupply))
        .or(() -> Optional.ofNullable(channel.wiring().plan().supply()).map(Value::number));
  }

  /** Volts that any node of the channel may come to: supply, reference or the sensor's own. */
  public double widestVolts() {
    double most = Math.max(channel.design().converter().reference().number(), supply().orElse(0.0));
    Signal signal = channel.design().sensor().signal();
    if (signal != Signal.VOLTAGE && signal != Signal.ALTERNATING) return most;
    Span w = channel.definition().working();
    double low = Math.abs(output(channel.design().sensor(), w.low()));
    double high = Math.abs(output(channel.design().sensor(), w.high()));
    return Math.max(most, Math.max(low, high));
  }

  /** The curve of a sensor in the channel's unit. */
  SensorCurve curve(Sensor s) {
    return curves.computeIfAbsent(
        s,
        k ->
            SensorCurve.of(new Measurand(channel.definition().kind().symbol(), channel.unit()), k));
  }

  /** Output of a sensor, at the end of what it is known for where the input lies outside. */
  double output(Sensor s, double x) {
    return curve(s).at(held(s, x));
  }

  private double held(Sensor s, double x) {
    return s.known(channel.unit()).map(k -> k.clamp(x)).orElse(x);
  }

  /** Quantity for a sensor's output, by halving where the sensor's range ends. */
  double quantity(Sensor s, double output) {
    Span range = s.known(channel.unit()).orElse(null);
    if (range != null) {
      double low = curve(s).at(range.low());
      double high = curve(s).at(range.high());
      boolean rising = high > low;
      if (rising ? output <= low : output >= low) return range.low();
      if (rising ? output >= high : output <= high) return range.high();
    }
    try {
      return curve(s).quantity(output);
    } catch (QuantityException e) {
      // An output that the sensor cannot give: its straight line goes on.
      Span rated = s.rated(channel.unit());
      double slope = curve(s).slopeAt(rated.middle());
      return rated.middle() + (output - curve(s).at(rated.middle())) / slope;
    }
  }

  /** Quantity by the design's equation with two of its symbols swapped. */
  double swapped(String first, String second, double volts) {
    return swapped
        .computeIfAbsent(
            first + "/" + second,
            k -> {
              var constants = new HashMap<>(path.constants());
              double a = constants.get(first);
              constants.put(first, constants.get(second));
              constants.put(second, a);
              return Compiled.of(path.inverse(), SignalPath.OUT, constants);
            })
        .applyAsDouble(volts);
  }

  /** The book's cards that a hand could take for this channel's, its own left out. */
  List<SensorCard> neighbours() {
    var list = new ArrayList<SensorCard>();
    for (SensorCard card : cards) {
      if (card.kind() != channel.definition().kind()) continue;
      if (channel.design().card() != null && card.id().equals(channel.design().card().id()))
        continue;
      Sensor s = card.sensorIn(channel.unit());
      if (s.equals(channel.design().sensor()) || s.signal() != channel.design().sensor().signal())
        continue;
      list.add(card);
    }
    return list;
  }
}
