package nocking.analysis;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Stream;
import nocking.algebra.AlgebraException;
import nocking.channel.Adopted;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.channel.SensorCard;
import nocking.channel.Surroundings;
import nocking.channel.WorkStep;
import nocking.check.Check;
import nocking.check.CheckRow;
import nocking.check.Verdict;
import nocking.element.Element;
import nocking.element.Measurand;
import nocking.fault.FaultMatrix;
import nocking.fault.PairExpectation;
import nocking.fault.PinExpectation;
import nocking.fault.Subject;
import nocking.finding.Evidence;
import nocking.finding.Finding;
import nocking.finding.Rule;
import nocking.finding.Severity;
import nocking.fit.Curve;
import nocking.fit.Fit;
import nocking.fit.FitException;
import nocking.fit.FitModel;
import nocking.fit.Judgement;
import nocking.fit.Recommendation;
import nocking.fit.Samples;
import nocking.misfit.PointsMisfit;
import nocking.path.PathCircuit;
import nocking.path.ReadOut;
import nocking.path.SensorCurve;
import nocking.path.SignalPath;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.table.LinearTable;
import nocking.table.TableError;
import nocking.table.TableSpec;
import nocking.tolerance.Budget;
import nocking.tolerance.BudgetPoint;
import nocking.tolerance.ErrorModel;
import nocking.tolerance.Uncertain;
import nocking.wiring.Thresholds;

/**
 * Everything that can be known from a channel. Parts are computed when first asked for, and kept;
 * the channel is immutable, so they stay true.
 */
public final class Analysis implements Evidence {
  private record Compilation(Optional<SignalPath> path, Optional<String> problem) {}

  private static final Samples NO_SAMPLES = new Samples(new double[0], new double[0]);
  private static final int USUAL_DECIMALS = 3;

  private final Channel channel;
  private final List<Trouble> troubles = new CopyOnWriteArrayList<>();
  private final List<SensorCard> cards;
  private final Lazy<Compilation> compilation = new Lazy<>(this::compile);
  private final Lazy<Optional<SensorCurve>> sensorCurve =
      guarded("the sensor's curve", this::sense, Optional.empty());
  private final Lazy<Samples> samples = guarded("the reference points", this::gather, NO_SAMPLES);
  private final Lazy<List<Fit>> fits = guarded("the fits", this::fitAll, List.of());
  private final Lazy<Optional<Curve>> curve =
      guarded("the adopted curve", this::chooseCurve, Optional.empty());
  private final Lazy<Optional<DoubleUnaryOperator>> curveFunction =
      guarded("the adopted curve", () -> curve().map(Curve::function), Optional.empty());
  private final Lazy<List<BudgetPoint>> budget =
      guarded("the error budget", this::estimate, List.of());
  private final Lazy<TableOutcome> table =
      guarded("the table", this::tabulate, TableOutcome.none("it could not be worked out"));
  private final Lazy<List<CheckRow>> checkRows = guarded("the check", this::check, List.of());
  private final Lazy<List<Finding>> findings = new Lazy<>(this::examine);
  private final Lazy<List<PinExpectation>> pins =
      guarded(
          "what the pins read", () -> ofCircuit(PinExpectation::of).orElse(List.of()), List.of());
  private final Lazy<List<PairExpectation>> pairs =
      guarded(
          "what the pairs read", () -> ofCircuit(PairExpectation::of).orElse(List.of()), List.of());
  private final Lazy<Optional<FaultMatrix>> faults =
      guarded("the faults", () -> ofCircuit(FaultMatrix::of), Optional.empty());
  private final Lazy<Optional<FaultMatrix>> brokenWires =
      guarded("the broken wires", () -> ofCircuit(FaultMatrix::ofWires), Optional.empty());
  private final Lazy<Optional<PointsMisfit>> misfit =
      guarded("what the points contradict", this::contradiction, Optional.empty());
  private final Lazy<Integer> decimals =
      guarded("the decimals", this::justifiedDecimals, USUAL_DECIMALS);

  private <T> Lazy<T> guarded(String part, Supplier<T> work, T otherwise) {
    return new Lazy<>(() -> guard(part, work, otherwise));
  }

  /** One part that nobody can work out does not take the others with it. */
  private <T> T guard(String part, Supplier<T> work, T otherwise) {
    try {
      return work.get();
    } catch (RuntimeException e) {
      // The probe asks for the same part again and again.
      if (troubles.stream().noneMatch(t -> t.part().equals(part))) {
        troubles.add(new Trouble(part, e));
      }
      return otherwise;
    }
  }

  /**
   * What could not be worked out although it should have been, as far as it was asked for: for the
   * log, and for tests, in which there is none.
   */
  public List<Trouble> troubles() {
    return List.copyOf(troubles);
  }

  /** Why there is no circuit to look at: what is not defined yet, or cannot be worked out. */
  public String whyNoCircuit() {
    return pathProblem()
        .or(() -> troubles.stream().findFirst().map(Trouble::says))
        .orElse("no sensor is defined yet");
  }

  private List<Finding> examine() {
    List<Finding> found =
        Rule.ALL.stream()
            .flatMap(
                r ->
                    guard("one of the findings", () -> r.examine(this).toList(), List.<Finding>of())
                        .stream())
            .toList();
    return Stream.concat(found.stream(), troubles.stream().limit(1).map(t -> t.finding()))
        .sorted(Comparator.comparing(Finding::severity))
        .toList();
  }

  private Analysis(Channel channel, List<SensorCard> cards) {
    this.channel = channel;
    this.cards = List.copyOf(cards);
  }

  public static Analysis of(Channel channel) {
    return new Analysis(channel, List.of());
  }

  /** The analysis of a channel in a book that has these sensor cards. */
  public static Analysis of(Channel channel, List<SensorCard> cards) {
    return new Analysis(channel, cards);
  }

  @Override
  public Channel channel() {
    return channel;
  }

  private Measurand measurand() {
    return new Measurand(channel.definition().kind().symbol(), channel.unit());
  }

  private Compilation compile() {
    if (channel.design().sensor() == null)
      return new Compilation(Optional.empty(), Optional.empty());
    try {
      SignalPath path =
          SignalPath.of(
              measurand(),
              channel.design().sensor(),
              channel.design().stages(),
              channel.design().converter());
      Span working = channel.definition().working();
      path.require(working.low());
      path.require(working.high());
      return new Compilation(Optional.of(path), Optional.empty());
    } catch (QuantityException | AlgebraException e) {
      return new Compilation(Optional.empty(), Optional.of(e.getMessage()));
    } catch (RuntimeException e) {
      var trouble = new Trouble("the equation", e);
      troubles.add(trouble);
      return new Compilation(Optional.empty(), Optional.of(trouble.says()));
    }
  }

  @Override
  public Optional<SensorCurve> sensorCurve() {
    return sensorCurve.get();
  }

  private Optional<SensorCurve> sense() {
    if (channel.design().sensor() == null) return Optional.empty();
    try {
      return Optional.of(SensorCurve.of(measurand(), channel.design().sensor()));
    } catch (QuantityException | AlgebraException e) {
      // The path has the same trouble and says it.
      return Optional.empty();
    }
  }

  @Override
  public Optional<SignalPath> path() {
    return compilation.get().path;
  }

  @Override
  public Optional<String> pathProblem() {
    return compilation.get().problem;
  }

  @Override
  public Optional<PointsMisfit> misfit() {
    return misfit.get();
  }

  private Optional<PointsMisfit> contradiction() {
    try {
      return path().flatMap(p -> PointsMisfit.of(channel, p, cards));
    } catch (QuantityException | AlgebraException e) {
      // A design that cannot be varied has nothing to say of what would explain the points.
      return Optional.empty();
    }
  }

  /** The design equation as a curve. */
  public Optional<Curve> design() {
    return path().map(p -> new Curve("Design equation", p.inverse(), p.constantsOf(p.inverse())));
  }

  @Override
  public double volts(ReferencePoint point) {
    return channel.calibration().points().raw() == RawUnit.VOLTS
        ? point.mean()
        : channel.design().converter().volts(point.mean());
  }

  /** Volts and applied quantity of the points that count, in their order. */
  public Samples samples() {
    return samples.get();
  }

  private Samples gather() {
    List<ReferencePoint> points = channel.calibration().points().counting();
    return new Samples(
        points.stream().mapToDouble(this::volts).toArray(),
        points.stream().mapToDouble(p -> p.applied().number()).toArray());
  }

  @Override
  public List<Fit> fits() {
    return fits.get();
  }

  private List<Fit> fitAll() {
    var list = new ArrayList<Fit>();
    if (samples().size() == 0) return list;
    design().ifPresent(d -> list.add(Judgement.asItIs(Adopted.DESIGN_MODEL, d, samples())));
    for (FitModel model : FitModel.all()) {
      try {
        list.add(model.fit(samples()));
      } catch (FitException e) {
        // A model that these points cannot determine is not a candidate; fitProblem says why.
        continue;
      }
    }
    return List.copyOf(list);
  }

  /** Why a model is not among the fits; empty when it is. */
  public Optional<String> fitProblem(FitModel model) {
    try {
      model.coefficients(samples());
      return Optional.empty();
    } catch (FitException e) {
      return Optional.of(e.getMessage());
    }
  }

  public Optional<Recommendation> recommendation() {
    Definition d = channel.definition();
    return guard(
        "the recommendation",
        () -> Recommendation.of(fits(), d.toleranceOrNaN(), d.unit()),
        Optional.empty());
  }

  @Override
  public Optional<Curve> curve() {
    return curve.get();
  }

  private Optional<Curve> chooseCurve() {
    Adopted adopted = channel.calibration().adopted();
    if (adopted == null || adopted.isDesign()) return design();
    adopted.require();
    return FitModel.of(adopted.model()).map(m -> curveOf(m, adopted));
  }

  private static Curve curveOf(FitModel model, Adopted adopted) {
    var constants = new LinkedHashMap<String, Double>();
    adopted.coefficients().forEach(c -> constants.put(c.name(), c.value()));
    return new Curve(model.title(), model.equation(), constants);
  }

  /** The adopted curve judged against the points as they are now. */
  public Optional<Fit> adoptedFit() {
    if (samples().size() == 0) return Optional.empty();
    String model =
        channel.calibration().adopted() == null
            ? Adopted.DESIGN_MODEL
            : channel.calibration().adopted().model();
    return guard(
        "how the adopted curve fits",
        () -> curve().map(c -> Judgement.asItIs(model, c, samples())),
        Optional.empty());
  }

  @Override
  public Optional<Fit> refitted() {
    return channel.calibration().adopted() == null
        ? Optional.empty()
        : fit(channel.calibration().adopted().model());
  }

  @Override
  public Channel adopting(String model) {
    if (model.equals(Adopted.DESIGN_MODEL))
      return channel.calibration(k -> k.withAdopted(Adopted.DESIGN));
    return fit(model)
        .map(
            f ->
                channel.calibration(
                    k -> k.withAdopted(new Adopted(model, f.coefficients(), samples().size()))))
        .orElse(channel);
  }

  /** The path at an input; empty while there is no path. */
  public Optional<ProbeState> at(double x) {
    return guard("the reading at the probe", () -> probe(x), Optional.empty());
  }

  private Optional<ProbeState> probe(double x) {
    return path()
        .map(
            p -> {
              ReadOut read = p.at(x);
              double volts = p.converter().volts(read.code());
              boolean sensed = !Double.isNaN(read.output());
              double reading =
                  sensed
                      ? curveFunction.get().map(f -> f.applyAsDouble(volts)).orElse(Double.NaN)
                      : Double.NaN;
              boolean beyond = p.known().map(k -> !k.contains(reading)).orElse(false);
              return new ProbeState(
                  read, reading, reading - x, p.countsWorth(x), beyond && !Double.isNaN(reading));
            });
  }

  /** Sensor, stages and converter in their order; only while there is a sensor. */
  @Override
  public List<Element> elements() {
    var list = new ArrayList<Element>();
    list.add(channel.design().sensor());
    list.addAll(channel.design().stages());
    list.add(channel.design().converter());
    return list;
  }

  @Override
  public List<SensorCard> cards() {
    return cards;
  }

  @Override
  public List<PathCircuit.Stress> stresses(double x) {
    if (path().isEmpty()) return List.of();
    try {
      return PathCircuit.of(
              measurand(),
              channel.design().sensor(),
              channel.design().stages(),
              channel.design().converter(),
              x)
          .stresses();
    } catch (IllegalStateException e) {
      // Without a solution of the circuit there is nothing to say of its parts.
      return List.of();
    }
  }

  /** What makes the reading wrong; empty while there is no path. */
  public Optional<ErrorModel> errorModel() {
    return path()
        .map(
            p -> {
              Span ambient = channel.design().surroundings().ambient();
              double at = Surroundings.REFERENCE_TEMPERATURE;
              return new ErrorModel(
                  p,
                  Uncertain.of(p, elements()),
                  channel.definition().working(),
                  new Span(ambient.low() - at, ambient.high() - at),
                  x -> channel.design().sensor().classTolerance(x, channel.unit()),
                  channel.design().surroundings().referenceStandard());
            });
  }

  /** Worst case, first order and ranking at both ends and the middle of the working range. */
  @Override
  public List<BudgetPoint> budget() {
    return budget.get();
  }

  private List<BudgetPoint> estimate() {
    Span w = channel.definition().working();
    return errorModel()
        .map(m -> Budget.at(m, new double[] {w.low(), w.middle(), w.high()}))
        .orElse(List.of());
  }

  @Override
  public Optional<Subject> subject() {
    return guard(
        "the circuit",
        () ->
            path()
                .filter(p -> curve().isPresent())
                .map(p -> new Subject(channel, p, receiver(), this::rawAt, cards)),
        Optional.empty());
  }

  /** What the receiver shows for volts: its table where it has one, else the adopted curve. */
  private DoubleUnaryOperator receiver() {
    Optional<LinearTable> held = table().table();
    if (held.isEmpty()) return curveFunction.get().orElseThrow();
    return channel.receiver().table().axis() == RawUnit.VOLTS
        ? held.get()::look
        : v -> held.get().look(channel.design().converter().code(v));
  }

  @Override
  public List<PinExpectation> pins() {
    return pins.get();
  }

  @Override
  public List<PairExpectation> pairs() {
    return pairs.get();
  }

  /** Every fault of the channel; empty while there is no path. */
  public Optional<FaultMatrix> faults() {
    return faults.get();
  }

  @Override
  public Optional<FaultMatrix> brokenWires() {
    return brokenWires.get();
  }

  private <T> Optional<T> ofCircuit(Function<Subject, T> made) {
    try {
      return subject().map(made);
    } catch (IllegalStateException | QuantityException | AlgebraException e) {
      // A circuit without a solution has nothing to say of its faults; the path's findings do.
      return Optional.empty();
    }
  }

  /** Volts that feed the sensor: its own definition's, else the wire plan's. */
  public Optional<Double> supply() {
    return subject()
        .flatMap(Subject::supply)
        .or(() -> Optional.ofNullable(channel.wiring().plan().supply()).map(Value::number));
  }

  public TableOutcome table() {
    return table.get();
  }

  private TableOutcome tabulate() {
    TableSpec spec = channel.receiver().table();
    if (spec == null) return TableOutcome.none("no table is asked for yet");
    if (curve().isEmpty()) return TableOutcome.none("there is no curve yet: define the sensor");
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

  /** The fault thresholds on the raw axis of the table; empty where none are settled. */
  public Optional<Thresholds> tableLimits() {
    Thresholds t = channel.wiring().plan().thresholds();
    if (t == null || channel.receiver().table() == null) return Optional.empty();
    if (channel.receiver().table().axis() == RawUnit.VOLTS) return Optional.of(t);
    return Optional.of(new Thresholds(counts(t.low()), counts(t.high())));
  }

  private Value counts(Value volts) {
    return volts == null ? null : Value.of(channel.design().converter().code(volts.number()));
  }

  /** The adopted curve as a function of volts or of counts. */
  private DoubleUnaryOperator ofAxis(RawUnit axis) {
    DoubleUnaryOperator f = curveFunction.get().orElseThrow();
    return axis == RawUnit.VOLTS
        ? f
        : code -> f.applyAsDouble(channel.design().converter().volts(code));
  }

  /**
   * Volts that the adopted curve reads as a quantity; for the design the path itself knows them.
   */
  private double rawAt(double quantity) {
    Adopted adopted = channel.calibration().adopted();
    return adopted == null || adopted.isDesign()
        ? path().orElseThrow().output(quantity)
        : curve().orElseThrow().raw(quantity);
  }

  /** Raw values that belong to the ends of the working range, inside the converter's own. */
  private Span rawSpan(RawUnit axis) {
    Span working = channel.definition().working();
    Span volts = Span.between(rawAt(working.low()), rawAt(working.high()));
    Span range = new Span(0, channel.design().converter().reference().number());
    Span inside = Span.between(range.clamp(volts.low()), range.clamp(volts.high()));
    if (inside.width() == 0) {
      throw new QuantityException("the working range lies outside the converter's range");
    }
    if (axis == RawUnit.VOLTS) return inside;
    return new Span(
        channel.design().converter().code(inside.low()),
        channel.design().converter().code(inside.high()));
  }

  @Override
  public List<CheckRow> checkRows() {
    return checkRows.get();
  }

  private List<CheckRow> check() {
    if (path().isEmpty() || curve().isEmpty()) return List.of();
    Definition d = channel.definition();
    return Check.rows(
        channel.acceptance().check(),
        path().get(),
        curve().get(),
        d.working(),
        d.toleranceOrNaN(),
        channel.wiring().plan().thresholds());
  }

  public List<Finding> findings() {
    return findings.get();
  }

  @Override
  public int decimals() {
    return decimals.get();
  }

  /** The last digit shown is worth at least one count, but a tolerance is always visible. */
  private int justifiedDecimals() {
    Span working = channel.definition().working();
    double count = path().map(p -> p.countsWorth(working.middle())).orElse(working.width() / 1000);
    int byCount = (int) Math.floor(-Math.log10(count) + 1e-9);
    double tolerance = channel.definition().toleranceOrNaN();
    int byTolerance = Double.isNaN(tolerance) ? 0 : (int) Math.ceil(-Math.log10(tolerance) - 1e-9);
    return Math.clamp(Math.max(byCount, byTolerance), 0, 9);
  }

  /** How far a stage has come. */
  public Progress progress(WorkStep step) {
    boolean path = path().isPresent();
    return switch (step) {
      case DEFINE -> define();
      case CONDITION ->
          !path
              ? Progress.EMPTY
              : has(WorkStep.CONDITION, Severity.STOP) ? Progress.HALF : Progress.FULL;
      case WIRE -> wire();
      case COLLECT -> amount(channel.calibration().points().counting().size(), 3);
      case FIT ->
          channel.calibration().adopted() != null
              ? Progress.FULL
              : samples().size() > 0 ? Progress.HALF : Progress.EMPTY;
      case TABLE ->
          channel.receiver().table() == null
              ? Progress.EMPTY
              : table().table().isPresent() ? Progress.FULL : Progress.HALF;
      case CHECK -> checkProgress();
      case RECORD -> channel.journal().locked() ? Progress.FULL : Progress.EMPTY;
    };
  }

  private Progress define() {
    if (channel.design().sensor() == null) return Progress.EMPTY;
    boolean whole = path().isPresent() && channel.definition().tolerance() != null;
    return whole ? Progress.FULL : Progress.HALF;
  }

  private Progress wire() {
    long named =
        channel.wiring().plan().pins().stream().filter(p -> !p.terminal().isBlank()).count();
    return named == 0
        ? Progress.EMPTY
        : named < channel.wiring().plan().pins().size() ? Progress.HALF : Progress.FULL;
  }

  private Progress checkProgress() {
    long measured = checkRows().stream().filter(r -> !Double.isNaN(r.measured())).count();
    return amount((int) measured, Math.max(1, checkRows().size()));
  }

  private static Progress amount(int have, int enough) {
    return have == 0 ? Progress.EMPTY : have < enough ? Progress.HALF : Progress.FULL;
  }

  private boolean has(WorkStep step, Severity severity) {
    return findings().stream().anyMatch(f -> f.step() == step && f.severity() == severity);
  }

  public Verdict verdict() {
    return Check.overall(checkRows());
  }

  public ChannelState state() {
    if (channel.design().sensor() == null) return ChannelState.NOT_STARTED;
    if (findings().stream().anyMatch(f -> f.severity() == Severity.STOP)) return ChannelState.FAIL;
    if (findings().stream().anyMatch(f -> f.severity() == Severity.WARNING)) {
      return ChannelState.WARNING;
    }
    return verdict() == Verdict.PASS ? ChannelState.PASS : ChannelState.UNDER_WAY;
  }

  /** Worst error of the check where it is measured, else of the adopted curve at the points. */
  public Optional<Double> worstError() {
    var measured =
        checkRows().stream()
            .mapToDouble(r -> Math.abs(r.error()))
            .filter(v -> !Double.isNaN(v))
            .max();
    if (measured.isPresent()) return Optional.of(measured.getAsDouble());
    return adoptedFit().map(Fit::worstError);
  }

  /** Reads a value of the quantity with the digits that one count justifies. */
  public String reading(double value) {
    return Numbers.fixed(value, decimals());
  }
}
