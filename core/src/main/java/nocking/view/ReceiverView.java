package nocking.view;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.path.PathState;
import nocking.path.SignalPath;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.table.LinearTable;
import nocking.table.TableError;
import nocking.table.TableSpec;
import nocking.wiring.Thresholds;

/** What the receiver is given, and what it makes of the volts. */
public final class ReceiverView {
  private final Channel channel;
  private final DesignView design;
  private final CalibrationView calibration;
  private final Workings workings;
  private final Lazy<TableOutcome> table;

  ReceiverView(Channel channel, DesignView design, CalibrationView calibration, Workings workings) {
    this.channel = channel;
    this.design = design;
    this.calibration = calibration;
    this.workings = workings;
    table =
        workings.once("the table", this::tabulate, TableOutcome.none("it could not be worked out"));
  }

  /** The path at an input, with what the display says; empty while there is no path. */
  public Optional<ProbeState> at(double x) {
    return workings.guarded(
        "the reading at the probe", () -> design.path().map(p -> at(p, x)), Optional.empty());
  }

  private ProbeState at(SignalPath p, double x) {
    PathState read = p.at(x);
    double volts = p.converter().volts(read.code());
    boolean sensed = !Double.isNaN(read.output());
    double reading =
        sensed
            ? calibration.function().map(f -> f.applyAsDouble(volts)).orElse(Double.NaN)
            : Double.NaN;
    boolean beyond = p.known().map(k -> !k.contains(reading)).orElse(false);
    return new ProbeState(
        read, reading, reading - x, p.countsWorth(x), beyond && !Double.isNaN(reading));
  }

  public TableOutcome table() {
    return table.get();
  }

  private TableOutcome tabulate() {
    TableSpec spec = channel.receiver().table();
    if (spec == null) return TableOutcome.none("no table is asked for yet");
    if (calibration.curve().isEmpty()) {
      return TableOutcome.none("there is no curve yet: define the sensor");
    }
    try {
      DoubleUnaryOperator f = ofAxis(spec.axis());
      Span raw = rawSpan(spec.axis());
      LinearTable made =
          LinearTable.equalSteps(f, raw, spec.cells(), spec.rawDecimals(), spec.outDecimals());
      TableError error = made.against(f, spec.axis() == RawUnit.COUNTS);
      return new TableOutcome(Optional.of(made), Optional.of(error), "");
    } catch (QuantityException e) {
      return TableOutcome.none(e.getMessage());
    }
  }

  /** The adopted curve as a function of volts or of counts. */
  private DoubleUnaryOperator ofAxis(RawUnit axis) {
    DoubleUnaryOperator f = calibration.function().orElseThrow();
    Converter converter = channel.design().converter();
    return axis == RawUnit.VOLTS ? f : code -> f.applyAsDouble(converter.volts(code));
  }

  /** Raw values that belong to the ends of the working range, inside the converter's own. */
  private Span rawSpan(RawUnit axis) {
    Span working = channel.definition().working();
    Converter converter = channel.design().converter();
    Span volts = Span.between(calibration.rawAt(working.low()), calibration.rawAt(working.high()));
    Span range = new Span(0, converter.reference().number());
    Span inside = Span.between(range.clamp(volts.low()), range.clamp(volts.high()));
    if (inside.width() == 0) {
      throw new QuantityException("the working range lies outside the converter's range");
    }
    if (axis == RawUnit.VOLTS) return inside;
    return new Span(converter.code(inside.low()), converter.code(inside.high()));
  }

  /** The fault thresholds on the raw axis of the table; empty where none are settled. */
  public Optional<Thresholds> limits() {
    Thresholds t = channel.wiring().plan().thresholds();
    TableSpec spec = channel.receiver().table();
    if (t == null || spec == null) return Optional.empty();
    if (spec.axis() == RawUnit.VOLTS) return Optional.of(t);
    return Optional.of(new Thresholds(counts(t.low()), counts(t.high())));
  }

  private Value counts(Value volts) {
    return volts == null ? null : Value.of(channel.design().converter().code(volts.number()));
  }

  /** What the receiver shows for volts: its table where it has one, else the adopted curve. */
  DoubleUnaryOperator shown() {
    Optional<LinearTable> held = table().table();
    if (held.isEmpty()) return calibration.function().orElseThrow();
    Converter converter = channel.design().converter();
    return channel.receiver().table().axis() == RawUnit.VOLTS
        ? held.get()::look
        : v -> held.get().look(converter.code(v));
  }
}
