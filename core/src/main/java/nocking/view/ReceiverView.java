package nocking.view;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.algebra.AlgebraException;
import nocking.channel.Channel;
import nocking.channel.StoredCurve;
import nocking.element.Measurand;
import nocking.firmware.FixedPoint;
import nocking.firmware.Guards;
import nocking.firmware.TableFirmware;
import nocking.path.PathState;
import nocking.path.SignalPath;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.table.Arithmetic;
import nocking.table.DisplayLimits;
import nocking.table.TableSearch;
import nocking.table.TableSpec;
import nocking.wiring.Thresholds;

/** What the receiver is given, what it goes by meanwhile, and what it makes of the volts. */
public final class ReceiverView {
  /** Steps in which the converter's range is looked through, and halvings of the one that holds. */
  private static final int LOOKS = 400;

  private static final int HALVINGS = 60;

  private record Stored(Optional<DoubleUnaryOperator> function, Optional<String> problem) {}

  private final Channel channel;
  private final DesignView design;
  private final CalibrationView calibration;
  private final Workings workings;
  private final Lazy<TableOutcome> table;
  private final Lazy<Stored> stored;
  private final Lazy<Optional<Belief>> belief;

  ReceiverView(Channel channel, DesignView design, CalibrationView calibration, Workings workings) {
    this.channel = channel;
    this.design = design;
    this.calibration = calibration;
    this.workings = workings;
    table =
        workings.once("the table", this::tabulate, TableOutcome.none("it could not be worked out"));
    stored =
        workings.once(
            "the receiver's own curve",
            this::store,
            new Stored(Optional.empty(), Optional.of("it could not be worked out")));
    belief = workings.once("what the receiver believes", this::believe, Optional.empty());
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
    double unlimited =
        sensed ? believed().map(f -> f.applyAsDouble(volts)).orElse(reading) : Double.NaN;
    double display = limited(unlimited);
    return new ProbeState(
        read,
        reading,
        reading - x,
        p.countsWorth(x),
        beyond && !Double.isNaN(reading),
        display,
        display != unlimited && !Double.isNaN(unlimited));
  }

  private double limited(double reading) {
    DisplayLimits limits = channel.receiver().limits();
    return limits == null ? reading : limits.shown(reading);
  }

  private Stored store() {
    StoredCurve s = channel.receiver().stored();
    if (s == null) return new Stored(Optional.empty(), Optional.empty());
    try {
      Unit own = Unit.of(s.unit());
      Unit to = channel.unit();
      if (!own.dimension().equals(to.dimension())) {
        throw new QuantityException(
            "it counts in %s, and this channel in %s".formatted(own.symbol(), to.symbol()));
      }
      DoubleUnaryOperator f = functionOf(s, own);
      // Most receivers count in the unit of the channel, and then nothing is rounded twice.
      DoubleUnaryOperator converted =
          own.equals(to) ? f : volts -> own.convert(f.applyAsDouble(volts), to);
      return new Stored(Optional.of(converted), Optional.empty());
    } catch (QuantityException | AlgebraException e) {
      return new Stored(Optional.empty(), Optional.of(e.getMessage()));
    }
  }

  private DoubleUnaryOperator functionOf(StoredCurve s, Unit own) {
    DoubleUnaryOperator bare = withoutTrim(s, own);
    return s.trim() == null ? bare : volts -> s.trim().of(bare.applyAsDouble(volts));
  }

  private DoubleUnaryOperator withoutTrim(StoredCurve s, Unit own) {
    if (s.adopted() != null && !s.adopted().isDesign()) {
      return CalibrationView.curveOf(s.adopted()).function();
    }
    var measured = new Measurand(channel.definition().kind().symbol(), own);
    SignalPath path = SignalPath.of(measured, s.sensor(), s.stages(), channel.design().converter());
    return path::quantity;
  }

  /** The quantity that the receiver takes volts for by its own curve; empty where it has none. */
  public Optional<DoubleUnaryOperator> believed() {
    return stored.get().function;
  }

  /** Why the receiver's own curve gives nothing; empty where nothing is wrong. */
  public Optional<String> storedProblem() {
    return stored.get().problem;
  }

  /** What the receiver believes over the working range; empty where it has no curve of its own. */
  public Optional<Belief> belief() {
    return belief.get();
  }

  private Optional<Belief> believe() {
    if (believed().isEmpty() || calibration.curve().isEmpty()) return Optional.empty();
    return Optional.of(Belief.of(this::shownAt, channel.definition().working()));
  }

  /** What the receiver shows for a true value; NaN where it shows nothing. */
  public double shownAt(double x) {
    Span range = new Span(0, channel.design().converter().reference().number());
    double volts = calibration.rawAt(x);
    return Double.isNaN(volts) ? Double.NaN : shown().applyAsDouble(range.clamp(volts));
  }

  /** The table; a search for the smallest one takes its time. */
  public TableOutcome table() {
    return table.get();
  }

  /** The table where it need not be searched for; empty while it is not made yet. */
  public Optional<TableOutcome> tableIfKnown() {
    if (channel.receiver().table() == null) return Optional.of(table());
    return table.ifKnown().or(() -> RecentTables.known(channel));
  }

  /** The search for the table while it is under way, whoever asked for it. */
  public Optional<TableSearch> tableSearch() {
    return RecentTables.search(channel);
  }

  /**
   * The look-up of the table as a receiver's firmware has it, with the limits of its raw codes and
   * of its display built in.
   *
   * @throws QuantityException where there is no table, or it does not fit its widths: one sentence
   */
  public TableFirmware firmware() {
    TableResult r = table().result().orElseThrow(() -> new QuantityException(table().problem()));
    Arithmetic a = r.spec().arithmetic();
    int bits = a.whole() ? a.rawBits() : TableFirmware.bitsFor(r.table());
    int outBits = a.whole() ? a.outBits() : Integer.SIZE;
    return TableFirmware.of(r.table(), a.outside(), bits, outBits, !a.whole()).with(guards(r));
  }

  /**
   * The curve as one expression of integers over the codes of the working range, where it is a line
   * or a polynomial.
   *
   * @throws QuantityException where there is none: one sentence
   */
  public FixedPoint expression() {
    TableSpec spec = channel.receiver().table();
    if (spec == null || calibration.curve().isEmpty()) {
      throw new QuantityException("there is no curve and no receiver yet");
    }
    var column = new RawColumn(channel, design, calibration, RawUnit.COUNTS);
    Span codes = column.span();
    OutputColumn output = OutputColumn.of(channel, spec);
    DoubleUnaryOperator curve = column.curve().andThen(output::of);
    String why = "";
    for (int degree = 1; degree <= FixedPoint.MOST_DEGREE; degree++) {
      try {
        return FixedPoint.of(
            curve, degree, (int) codes.low(), (int) codes.high(), output.decimals());
      } catch (QuantityException e) {
        why = e.getMessage();
      }
    }
    throw new QuantityException(why + "; take the table, or adopt a polynomial");
  }

  private Guards guards(TableResult r) {
    double scale = Math.pow(10, r.table().rawDecimals());
    Value low = limits().map(Thresholds::low).orElse(null);
    Value high = limits().map(Thresholds::high).orElse(null);
    DisplayLimits shown = channel.receiver().limits();
    return new Guards(
        low == null ? null : (Integer) (int) Math.ceil(low.number() * scale - 1e-6),
        high == null ? null : (Integer) (int) Math.floor(high.number() * scale + 1e-6),
        shown == null ? null : steps(r, shown.low()),
        shown == null ? null : steps(r, shown.high()));
  }

  private static Long steps(TableResult r, Value reading) {
    if (reading == null) return null;
    return Math.round(r.output().of(reading.number()) * Math.pow(10, r.table().outDecimals()));
  }

  private TableOutcome tabulate() {
    if (channel.receiver().table() == null) {
      return TableOutcome.none("no table is asked for yet");
    }
    return RecentTables.of(channel, this::made);
  }

  private TableOutcome made(TableSearch search) {
    TableSpec spec = channel.receiver().table();
    boolean bySensor = spec.axis().ofSensor() && channel.design().sensor() != null;
    if (calibration.curve().isEmpty() && !bySensor && !spec.goal().bench()) {
      return TableOutcome.none("there is no curve yet: define the sensor");
    }
    try {
      return TableOutcome.of(new TableWork(channel, column(spec)).result(search));
    } catch (QuantityException | AlgebraException e) {
      return TableOutcome.none(e.getMessage());
    }
  }

  private RawColumn column(TableSpec spec) {
    return new RawColumn(channel, design, calibration, spec.axis());
  }

  /** The raw value of the table for volts; NaN where the path that makes them is not known. */
  public double rawOf(double volts) {
    return column(channel.receiver().table())
        .ofVolts()
        .map(f -> f.applyAsDouble(volts))
        .orElse(Double.NaN);
  }

  /** The fault thresholds on the raw axis of the table; empty where none are settled. */
  public Optional<Thresholds> limits() {
    Thresholds t = channel.wiring().plan().thresholds();
    TableSpec spec = channel.receiver().table();
    if (t == null || spec == null) return Optional.empty();
    return switch (spec.axis()) {
      case VOLTS -> Optional.of(t);
      case COUNTS -> Optional.of(new Thresholds(counts(t.low()), counts(t.high())));
      // What a broken wire gives is volts; as ohms or a current it would be any number at all.
      case OHMS, MILLIAMPERES -> Optional.empty();
    };
  }

  private Value counts(Value volts) {
    return volts == null ? null : Value.of(channel.design().converter().code(volts.number()));
  }

  /**
   * What the receiver takes volts for: by its own curve where it goes by one, else by its table,
   * else by the adopted curve.
   */
  DoubleUnaryOperator taken() {
    return believed().orElseGet(this::byThisChannel);
  }

  /** What the receiver shows for volts: what it takes them for, not beyond its display's limits. */
  DoubleUnaryOperator shown() {
    DoubleUnaryOperator f = taken();
    return channel.receiver().limits() == null ? f : volts -> limited(f.applyAsDouble(volts));
  }

  /**
   * Volts inside the converter's range that the receiver takes for a quantity, where it first comes
   * to it from 0 V; NaN where none are.
   */
  double rawOfTaken(double quantity) {
    DoubleUnaryOperator off = taken().andThen(x -> x - quantity);
    Span range = new Span(0, channel.design().converter().reference().number());
    double low = 0;
    double atLow = off.applyAsDouble(low);
    for (int i = 1; i <= LOOKS; i++) {
      double high = range.at((double) i / LOOKS);
      double atHigh = off.applyAsDouble(high);
      if (atLow * atHigh <= 0) return crossing(off, low, high, atLow);
      low = high;
      atLow = atHigh;
    }
    return Double.NaN;
  }

  private static double crossing(DoubleUnaryOperator off, double from, double to, double atFrom) {
    double low = from;
    double high = to;
    for (int i = 0; i < HALVINGS; i++) {
      double middle = (low + high) / 2;
      if (off.applyAsDouble(middle) * atFrom > 0) low = middle;
      else high = middle;
    }
    return high;
  }

  private DoubleUnaryOperator byThisChannel() {
    Optional<TableResult> held = table().result();
    if (held.isEmpty()) return calibration.function().orElseThrow();
    Optional<DoubleUnaryOperator> raw = column(channel.receiver().table()).ofVolts();
    if (raw.isEmpty()) return calibration.function().orElseThrow();
    return raw.get().andThen(held.get()::reading);
  }
}
