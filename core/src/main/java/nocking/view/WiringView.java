package nocking.view;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Function;
import nocking.algebra.AlgebraException;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.Positions;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.converter.Converter;
import nocking.fault.FaultMatrix;
import nocking.fault.Harmful;
import nocking.fault.PairExpectation;
import nocking.fault.PinExpectation;
import nocking.fault.Subject;
import nocking.firmware.Decoder;
import nocking.path.SignalPath;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.tolerance.Budget;
import nocking.tolerance.BudgetPoint;
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
  private final Lazy<List<Harmful>> harms;
  private final Lazy<List<Positions.Window>> windows;
  private final Lazy<List<AlarmEdge>> alarmEdges;

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
    harms = listed("the harm of faults", FaultMatrix::harms);
    alarmEdges = workings.once("the ends of the alarms", this::edges, List.of());
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

  /** What single faults do beside falsifying the reading, the worst first. */
  public List<Harmful> harms() {
    return harms.get();
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
        channel.wiring().bands(), receiver.taken(), limits(), channel.design().converter());
  }

  /**
   * The decoder of a contact's input: which level it must have at a code. The contact sits on the
   * mechanism: what a receiver with a curve of its own believes does not move it.
   *
   * @param index of the contact in the plan
   * @throws QuantityException one sentence, where there is none
   */
  public Decoder contactDecoder(int index) {
    DoubleUnaryOperator place =
        calibration
            .function()
            .orElseThrow(
                () ->
                    new QuantityException(
                        "without a path there is no reading that a contact could be for"));
    return Decoder.ofContact(
        channel.wiring().bands().switches().get(index),
        place,
        limits(),
        channel.design().converter());
  }

  /** What the contacts' inputs must read at volts at the converter; one for each contact. */
  public List<String> contactsAt(double volts) {
    if (calibration.function().isEmpty() || Double.isNaN(volts)) return List.of();
    double place = calibration.function().get().applyAsDouble(stepped(volts));
    return channel.wiring().bands().switches().stream().map(s -> s.levelAt(place)).toList();
  }

  /** Volts at the converter for a quantity by this channel's curve; empty while there is none. */
  public Optional<Double> voltsAt(double quantity) {
    return calibration.function().map(f -> calibration.rawAt(quantity));
  }

  /** The ends of the alarm bands in their order; none while there is no path. */
  public List<AlarmEdge> alarmEdges() {
    return alarmEdges.get();
  }

  private List<AlarmEdge> edges() {
    if (design.path().isEmpty() || calibration.function().isEmpty()) return List.of();
    List<AlarmBand> alarms = channel.wiring().bands().alarms();
    var list = new ArrayList<AlarmEdge>();
    for (int i = 0; i < alarms.size(); i++) {
      if (alarms.get(i).from() != null) list.add(edge(i, false, alarms.get(i).low()));
      if (alarms.get(i).to() != null) list.add(edge(i, true, alarms.get(i).high()));
    }
    return list;
  }

  private AlarmEdge edge(int band, boolean upper, double x) {
    double volts = receiver.rawOfTaken(x);
    double truly = calibration.function().orElseThrow().applyAsDouble(volts);
    SignalPath path = design.path().orElseThrow();
    boolean known = !Double.isNaN(truly) && path.known().map(k -> k.contains(truly)).orElse(true);
    if (!known) {
      double beyond =
          receiver.believed().isEmpty() && knows(path, x) ? calibration.rawAt(x) : volts;
      return outOfReach(band, upper, x, beyond);
    }
    if (path.at(truly).clipped()) return outOfReach(band, upper, x, volts);
    List<BudgetPoint> budget =
        design.errorModel().map(m -> Budget.at(m, new double[] {truly})).orElse(List.of());
    return new AlarmEdge(
        band,
        upper,
        x,
        volts,
        path.converter().code(volts),
        truly,
        true,
        budget.isEmpty() ? Double.NaN : budget.getFirst().before().worstCase(),
        budget.isEmpty() ? Double.NaN : budget.getFirst().after().worstCase());
  }

  private AlarmEdge outOfReach(int band, boolean upper, double x, double volts) {
    int code = Double.isNaN(volts) ? 0 : channel.design().converter().code(volts);
    return AlarmEdge.outOfReach(band, upper, x, volts, code);
  }

  private static boolean knows(SignalPath path, double x) {
    return path.known().map(k -> k.contains(x)).orElse(true);
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
        : Optional.of(Decoder.alarmAt(plan, receiver.taken(), limits(), stepped(volts)));
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
