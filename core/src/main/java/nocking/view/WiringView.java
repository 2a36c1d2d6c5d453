package nocking.view;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import nocking.algebra.AlgebraException;
import nocking.band.BandPlan;
import nocking.band.Positions;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.converter.Converter;
import nocking.fault.FaultMatrix;
import nocking.fault.PairExpectation;
import nocking.fault.PinExpectation;
import nocking.fault.Subject;
import nocking.firmware.Decoder;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.wiring.Thresholds;

/** What the wires must carry, and what they carry when something is wrong. */
public final class WiringView {
  private final Channel channel;
  private final DesignView design;
  private final CalibrationView calibration;
  private final ReceiverView receiver;
  private final List<SensorCard> cards;
  private final Workings workings;
  private final Lazy<List<PinExpectation>> pins;
  private final Lazy<List<PairExpectation>> pairs;
  private final Lazy<Optional<FaultMatrix>> faults;
  private final Lazy<Optional<FaultMatrix>> brokenWires;
  private final Lazy<List<Positions.Window>> windows;

  /**
   * @param cards sensor cards of the book, among which a neighbour may have been taken
   */
  WiringView(
      Channel channel,
      DesignView design,
      CalibrationView calibration,
      ReceiverView receiver,
      List<SensorCard> cards,
      Workings workings) {
    this.channel = channel;
    this.design = design;
    this.calibration = calibration;
    this.receiver = receiver;
    this.cards = cards;
    this.workings = workings;
    pins = listed("what the pins read", PinExpectation::of);
    pairs = listed("what the pairs read", PairExpectation::of);
    faults = circuit("the faults", FaultMatrix::of);
    brokenWires = circuit("the broken wires", FaultMatrix::ofWires);
    windows = workings.once("the windows of the positions", this::judgedWindows, List.of());
  }

  private <T> Lazy<List<T>> listed(String part, Function<Subject, List<T>> made) {
    return workings.once(part, () -> ofCircuit(made).orElse(List.of()), List.of());
  }

  private <T> Lazy<Optional<T>> circuit(String part, Function<Subject, T> made) {
    return workings.once(part, () -> ofCircuit(made), Optional.empty());
  }

  private <T> Optional<T> ofCircuit(Function<Subject, T> made) {
    try {
      return subject().map(made);
    } catch (IllegalStateException | QuantityException | AlgebraException e) {
      // A circuit without a solution has nothing to say of its faults; the path's findings do.
      return Optional.empty();
    }
  }

  /** The channel with its circuit and wires; empty without a path. */
  public Optional<Subject> subject() {
    return workings.guarded(
        "the circuit",
        () ->
            design
                .path()
                .filter(p -> calibration.curve().isPresent())
                .map(p -> new Subject(channel, p, receiver.shown(), calibration::rawAt, cards)),
        Optional.empty());
  }

  /** What every pin must read after power. */
  public List<PinExpectation> pins() {
    return pins.get();
  }

  /** What the meter must show between the pins before power. */
  public List<PairExpectation> pairs() {
    return pairs.get();
  }

  /** Every fault of the channel; empty while there is no path. */
  public Optional<FaultMatrix> faults() {
    return faults.get();
  }

  /** The sound channel and its broken wires; empty without a path. */
  public Optional<FaultMatrix> brokenWires() {
    return brokenWires.get();
  }

  /** Windows of the positions over the converter's range. */
  private List<Positions.Window> windows() {
    return windows.get();
  }

  private List<Positions.Window> judgedWindows() {
    Span range = new Span(0, channel.design().converter().reference().number());
    return Positions.of(channel.wiring().bands(), range).windows();
  }

  private Thresholds limits() {
    return channel.wiring().plan().thresholds();
  }

  /**
   * The decoder of the positions.
   *
   * @throws QuantityException one sentence, where there is none
   */
  public Decoder positionDecoder() {
    return Decoder.ofPositions(
        windows(), limits(), channel.design().converter(), channel.wiring().bands().dwell());
  }

  /**
   * The decoder of the alarms.
   *
   * @throws QuantityException one sentence, where there is none
   */
  public Decoder alarmDecoder() {
    if (calibration.function().isEmpty()) {
      throw new QuantityException("without a path there is no reading that an alarm could be for");
    }
    return Decoder.ofAlarms(
        channel.wiring().bands(), receiver.shown(), limits(), channel.design().converter());
  }

  /** Position that holds at volts at the converter; empty where none are planned. */
  public Optional<String> positionAt(double volts) {
    List<Positions.Window> all = windows();
    return all.isEmpty() || Double.isNaN(volts)
        ? Optional.empty()
        : Optional.of(Decoder.positionAt(all, limits(), stepped(volts)));
  }

  /**
   * Alarm that holds at volts at the converter, coming from nowhere; empty where none are planned.
   */
  public Optional<String> alarmAt(double volts) {
    BandPlan plan = channel.wiring().bands();
    return plan.alarms().isEmpty() || calibration.function().isEmpty() || Double.isNaN(volts)
        ? Optional.empty()
        : Optional.of(Decoder.alarmAt(plan, receiver.shown(), limits(), stepped(volts)));
  }

  /** Volts as their code stands for them. */
  private double stepped(double volts) {
    Converter c = channel.design().converter();
    return c.volts(c.code(volts));
  }

  /** Volts that feed the sensor: its own definition's, else the wire plan's. */
  public Optional<Double> supply() {
    return subject()
        .flatMap(Subject::supply)
        .or(() -> Optional.ofNullable(channel.wiring().plan().supply()).map(Value::number));
  }
}
