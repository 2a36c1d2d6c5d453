package nocking.view;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.Stream;
import nocking.algebra.AlgebraException;
import nocking.channel.Adopted;
import nocking.channel.Calibration;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.channel.SensorCard;
import nocking.fit.Curve;
import nocking.fit.Fit;
import nocking.fit.FitException;
import nocking.fit.FitModel;
import nocking.fit.Judgement;
import nocking.fit.Recommendation;
import nocking.fit.Samples;
import nocking.fit.SecondOpinion;
import nocking.fit.Trim;
import nocking.misfit.PointsMisfit;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.QuantityException;

/** What follows from the reference points: fits, the curve that is gone by, contradictions. */
public final class CalibrationView {
  private static final Samples NO_SAMPLES = new Samples(new double[0], new double[0]);

  private final Channel channel;
  private final DesignView design;
  private final List<SensorCard> cards;
  private final Workings workings;
  private final Lazy<Optional<RawScale>> scale;
  private final Lazy<Samples> samples;
  private final Map<String, Lazy<Optional<Fit>>> fitted = new ConcurrentHashMap<>();
  private final Lazy<Optional<Curve>> untrimmed;
  private final Lazy<Optional<Curve>> curve;
  private final Lazy<Optional<DoubleUnaryOperator>> function;
  private final Lazy<Optional<PointsMisfit>> misfit;

  /**
   * @param cards sensor cards of the book, among which another sensor may be found
   */
  CalibrationView(Channel channel, DesignView design, List<SensorCard> cards, Workings workings) {
    this.channel = channel;
    this.design = design;
    this.cards = cards;
    this.workings = workings;
    scale =
        workings.once(
            "what the readings stand for",
            () ->
                RawScale.of(
                    channel.calibration().points().raw(),
                    channel.design().converter(),
                    design.path()),
            Optional.empty());
    samples = workings.once("the reference points", this::gather, NO_SAMPLES);
    untrimmed = workings.once("the adopted curve", this::chooseCurve, Optional.empty());
    curve = workings.once("the trimmed curve", this::trimmed, Optional.empty());
    function =
        workings.once("the adopted curve", () -> curve().map(Curve::function), Optional.empty());
    misfit = workings.once("what the points contradict", this::contradiction, Optional.empty());
  }

  /**
   * What the readings of the points stand for at the converter; empty for ohms or milliamperes of a
   * sensor that gives something else, or before a path that makes no sense.
   */
  public Optional<RawScale> scale() {
    return scale.get();
  }

  /**
   * What readings in a unit stand for at the converter, to be read by the curve that is gone by.
   * Empty also for ohms and milliamperes where that curve was measured at the converter: it has in
   * it what the stages really are, and what they make of the sensor's signal is known as designed
   * only.
   */
  public Optional<RawScale> scaleOf(RawUnit unit) {
    Calibration own = channel.calibration();
    boolean asDesigned = own.designAdopted() || own.points().raw().ofSensor();
    boolean apart = unit.ofSensor() && (!asDesigned || own.trim() != null);
    return apart
        ? Optional.empty()
        : RawScale.of(unit, channel.design().converter(), design.path());
  }

  /** Volts at the converter for a reference point's mean reading; NaN where there are none. */
  public double volts(ReferencePoint point) {
    return scale().map(s -> s.volts(point.mean())).orElse(Double.NaN);
  }

  /** Volts and applied quantity of the points that count, in their order. */
  public Samples samples() {
    return samples.get();
  }

  private Samples gather() {
    if (scale().isEmpty()) return NO_SAMPLES;
    List<ReferencePoint> points = channel.calibration().points().counting();
    return new Samples(
        points.stream().mapToDouble(this::volts).toArray(),
        points.stream().mapToDouble(p -> p.applied().number()).toArray());
  }

  /**
   * Judged models, the design equation among them. The curved ones take their time: a view asks for
   * all of them away from its own thread.
   */
  public List<Fit> fits() {
    return Stream.concat(
            Stream.of(Adopted.DESIGN_MODEL), FitModel.all().stream().map(FitModel::key))
        .flatMap(m -> fit(m).stream())
        .toList();
  }

  /** Those that are known at once: no model among them is bent. */
  public List<Fit> straightFits() {
    return Stream.of(Adopted.DESIGN_MODEL, "line-zero", "ends", "line")
        .flatMap(m -> fit(m).stream())
        .toList();
  }

  /** A judged model; empty where the points do not determine it. */
  public Optional<Fit> fit(String model) {
    return fitted
        .computeIfAbsent(model, m -> workings.once("the fit " + m, () -> made(m), Optional.empty()))
        .get();
  }

  private Optional<Fit> made(String model) {
    if (samples().size() == 0) return Optional.empty();
    if (model.equals(Adopted.DESIGN_MODEL)) {
      return design.equation().map(d -> Judgement.asItIs(model, d, samples()));
    }
    try {
      return FitModel.of(model).map(m -> m.fit(samples()));
    } catch (FitException e) {
      // A model that these points cannot determine is not a candidate; fitProblem says why.
      return Optional.empty();
    }
  }

  /**
   * A model of volts on the quantity, as if all the scatter were in the raw value; empty where it
   * cannot be fitted.
   */
  public Optional<Fit> otherWay(String model) {
    Samples s = samples();
    try {
      return FitModel.of(model).map(m -> m.fit(new Samples(s.quantity(), s.raw(), s.weights())));
    } catch (FitException e) {
      return Optional.empty();
    }
  }

  /** Why a model is not among the fits; empty when it is. */
  public Optional<String> fitProblem(FitModel model) {
    if (fit(model.key()).isPresent()) return Optional.empty();
    try {
      model.estimate(samples());
      return Optional.empty();
    } catch (FitException e) {
      return Optional.of(e.getMessage());
    }
  }

  public Optional<Recommendation> recommendation() {
    Definition d = channel.definition();
    return workings.guarded(
        "the recommendation",
        () -> Recommendation.of(fits(), samples(), d.toleranceOrNaN(), d.unit()),
        Optional.empty());
  }

  /**
   * Which points do not go with the others: by the polynomial of the highest degree, three at most,
   * of which the points can tell it. What bends is no point's fault.
   */
  public Optional<SecondOpinion> secondOpinion() {
    return workings.guarded(
        "the second opinion",
        () ->
            Stream.of("poly:3", "poly:2", "line")
                .map(m -> FitModel.of(m).orElseThrow())
                .filter(m -> SecondOpinion.canTell(m, samples()))
                .findFirst()
                .flatMap(m -> SecondOpinion.of(m, samples())),
        Optional.empty());
  }

  /** The curve that the channel goes by. */
  public Optional<Curve> curve() {
    return curve.get();
  }

  private Optional<Curve> trimmed() {
    Trim trim = channel.calibration().trim();
    return trim == null ? untrimmed() : untrimmed().map(trim::on);
  }

  /** The curve under the trim, for a trim that is made anew. */
  public Optional<Curve> untrimmed() {
    return untrimmed.get();
  }

  private Optional<Curve> chooseCurve() {
    Adopted adopted = channel.calibration().adopted();
    if (channel.calibration().designAdopted()) return design.equation();
    return Optional.of(curveOf(adopted));
  }

  /**
   * A measured curve with its constants.
   *
   * @throws QuantityException where the model is not known or the constants are not its own
   */
  static Curve curveOf(Adopted adopted) {
    adopted.require();
    return FitModel.of(adopted.model()).orElseThrow().curve(adopted.coefficients());
  }

  /** The quantity for volts by the curve that the channel goes by; empty without one. */
  Optional<DoubleUnaryOperator> function() {
    return function.get();
  }

  /**
   * Volts that the adopted curve reads as a quantity; for the design the path itself knows them.
   */
  double rawAt(double quantity) {
    Trim trim = channel.calibration().trim();
    double bare = trim == null ? quantity : trim.before(quantity);
    return channel.calibration().designAdopted()
        ? design.path().orElseThrow().output(bare)
        : untrimmed().orElseThrow().raw(bare);
  }

  /** The adopted curve judged against the points as they are now. */
  public Optional<Fit> adoptedFit() {
    if (samples().size() == 0) return Optional.empty();
    Adopted adopted = channel.calibration().adopted();
    String model = adopted == null ? Adopted.DESIGN_MODEL : adopted.model();
    return workings.guarded(
        "how the adopted curve fits",
        () -> curve().map(c -> Judgement.asItIs(model, c, samples())),
        Optional.empty());
  }

  /** The adopted model fitted anew to the points as they are now. */
  public Optional<Fit> refitted() {
    return Optional.ofNullable(channel.calibration().adopted()).flatMap(a -> fit(a.model()));
  }

  /** The channel that has adopted a model, with its constants from the present points. */
  public Channel adopting(String model) {
    if (model.equals(Adopted.DESIGN_MODEL)) {
      return channel.calibration(k -> k.withAdopted(Adopted.DESIGN));
    }
    return fit(model)
        .map(f -> new Adopted(model, f.coefficients(), samples().size()))
        .map(a -> channel.calibration(k -> k.withAdopted(a)))
        .orElse(channel);
  }

  /** How the points depart from the design and what would explain it; empty where they agree. */
  public Optional<PointsMisfit> misfit() {
    return misfit.get();
  }

  private Optional<PointsMisfit> contradiction() {
    try {
      return design.path().flatMap(p -> PointsMisfit.of(channel, p, cards));
    } catch (QuantityException | AlgebraException e) {
      // A design that cannot be varied has nothing to say of what would explain the points.
      return Optional.empty();
    }
  }
}
