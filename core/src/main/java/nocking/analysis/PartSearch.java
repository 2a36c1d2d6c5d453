package nocking.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.Design;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Measurand;
import nocking.parts.Assortment;
import nocking.parts.Candidates;
import nocking.parts.Combination;
import nocking.parts.Corners;
import nocking.parts.DividerDesign;
import nocking.parts.GainShift;
import nocking.parts.PartLimit;
import nocking.parts.PullUpDesign;
import nocking.parts.RatioDesign;
import nocking.parts.Solution;
import nocking.path.PathCircuit;
import nocking.path.SensorCurve;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Spread;
import nocking.quantity.Value;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import nocking.stage.PullUp;
import nocking.stage.ReferenceBlend;
import nocking.stage.Stage;
import nocking.view.DesignView;

/** Parts for a stage of a channel: what is wanted of it, and the ranked ways to get there. */
public final class PartSearch {
  private static final double FREE = 0.05;

  /**
   * What is wanted.
   *
   * @param to output of the stage at the start and at the end of the working range, in this order
   * @param total window for the total resistance of a divider, ohms
   * @param most single resistors that may be used
   * @param part what one part may bear
   * @param never volts that the output may not pass with any parts inside their tolerances;
   *     infinite for no limit
   */
  public record Goal(
      double toStart, double toEnd, Span total, int most, PartLimit part, double never) {
    /**
     * Without a limit for the output.
     *
     * @param watts that one part may take; infinite for no limit
     */
    public Goal(double toStart, double toEnd, Span total, int most, double watts) {
      this(toStart, toEnd, total, most, PartLimit.ofWatts(watts), Double.POSITIVE_INFINITY);
    }
  }

  /**
   * One way.
   *
   * @param solution parts, error, worst case, power
   * @param apply puts it into the channel
   */
  public record Offer(Solution solution, UnaryOperator<Channel> apply) {}

  /**
   * Everything that was found.
   *
   * @param exact true when nothing better exists in the assortment
   * @param says what the value of a solution is, for the heading of a column
   * @param instead what would do where nothing was found; empty where nobody knows
   */
  public record Found(List<Offer> offers, boolean exact, String says, String instead) {
    public Found(List<Offer> offers, boolean exact, String says) {
      this(offers, exact, says, "");
    }
  }

  private final Channel channel;
  private final SignalPath path;
  private final int index;
  private final Stage stage;
  private final Assortment assortment;
  private final Goal goal;

  private PartSearch(
      Channel channel, SignalPath path, int index, Assortment assortment, Goal goal) {
    this.channel = channel;
    this.path = path;
    this.index = index;
    this.stage = channel.design().stages().get(index);
    this.assortment = assortment;
    this.goal = goal;
  }

  /**
   * Searches parts for a stage.
   *
   * @param index of the stage, from 0
   * @throws QuantityException one sentence, when nothing can be searched for
   */
  public static Found of(Channel channel, int index, Assortment assortment, Goal goal) {
    Analysis analysis = Analysis.of(channel);
    SignalPath path =
        analysis
            .design()
            .path()
            .orElseThrow(
                () ->
                    new QuantityException(
                        analysis.design().problem().orElse("the sensor is not defined yet")));
    return new PartSearch(channel, path, index, assortment, goal).search(analysis);
  }

  private Found search(Analysis analysis) {
    return switch (stage.parts()) {
      case DIVIDER -> divider();
      case PULL_UP -> pullUp((PullUp) stage, analysis.design().sensorCurve().orElseThrow());
      case DIFFERENCE -> difference((DifferenceAmp) stage);
      case BLEND -> new BlendSearch(channel, path, index, goal, (ReferenceBlend) stage).found();
      case GAIN_AND_SHIFT -> gainShift(stage.rails().orElseThrow());
      case RESISTANCE -> combination(stage.onlyResistance().orElseThrow());
      case NONE ->
          throw new QuantityException(
              "for a %s there is nothing to choose"
                  .formatted(stage.title().toLowerCase(Locale.ROOT)));
    };
  }

  /**
   * What a stage gives at the start and the end of the working range when it fills the converter: a
   * divider as far as it goes, anything else with a twentieth left free at either end, in the
   * direction that it has now.
   *
   * @return start and end, in this order; what the stage gives now where nothing else follows
   */
  public static double[] fillingTheConverter(Channel channel, SignalPath path, int index) {
    Span w = channel.definition().working();
    double before0 = path.at(w.low()).nodes().get(index).value();
    double before1 = path.at(w.high()).nodes().get(index).value();
    double now0 = path.at(w.low()).nodes().get(index + 1).wanted();
    double now1 = path.at(w.high()).nodes().get(index + 1).wanted();
    double[] now = {now0, now1};
    Stage stage = channel.design().stages().get(index);
    double top = channel.design().converter().reference().number();
    double free = FREE * top;
    return switch (stage.parts()) {
      case DIVIDER -> {
        double most = Math.max(Math.abs(before0), Math.abs(before1));
        double ratio = (top - free) / most;
        yield ratio < 1 ? new double[] {before0 * ratio, before1 * ratio} : now;
      }
      case DIFFERENCE, GAIN_AND_SHIFT -> {
        Span rails = stage.rails().orElse(new Span(0, top));
        double low = Math.max(free, rails.low());
        double high = Math.min(top - free, rails.high());
        if (!(low < high) || before0 == before1) yield now;
        yield now0 <= now1 ? new double[] {low, high} : new double[] {high, low};
      }
      default -> now;
    };
  }

  /**
   * True where no corner of the tolerances takes what an offer gives above what it may not pass.
   */
  private boolean keeps(Offer offer) {
    Channel then = offer.apply.apply(channel);
    int last = index + Math.max(1, offer.solution.stages().size());
    Span w = channel.definition().working();
    return Stream.of(w.low(), w.high())
        .allMatch(
            x ->
                Corners.largest(then.design().stages(), s -> volts(then, s, x, last))
                    <= goal.never * (1 + 1e-12));
  }

  /** Volts behind a stage, counted from 1, by the nodal solver. */
  private static double volts(Channel c, List<Stage> stages, double x, int stage) {
    return PathCircuit.of(
            new Measurand(c.definition().kind().symbol(), c.unit()),
            c.design().sensor(),
            stages,
            c.design().converter(),
            x)
        .solve()
        .get(PathCircuit.node(stage));
  }

  private List<Offer> kept(List<Offer> offers) {
    if (Double.isInfinite(goal.never)) return offers;
    return offers.stream().filter(this::keeps).toList();
  }

  /** Volts before the stage at the start and the end of the working range. */
  private double[] before() {
    Span w = channel.definition().working();
    return new double[] {
      path.at(w.low()).nodes().get(index).value(), path.at(w.high()).nodes().get(index).value()
    };
  }

  private static List<Offer> offers(
      Stream<Solution> solutions, Function<Solution, UnaryOperator<Channel>> apply) {
    return solutions.map(s -> new Offer(s, apply.apply(s))).toList();
  }

  private Found divider() {
    double[] in = before();
    double from = Math.max(Math.abs(in[0]), Math.abs(in[1]));
    double to = Math.max(Math.abs(goal.toStart), Math.abs(goal.toEnd));
    var wanted = new DividerDesign.Goal(from, to, goal.total, goal.part, goal.never);
    int most = Math.max(2, goal.most);
    Candidates candidates = DividerDesign.search(assortment, wanted, most);
    return new Found(
        offers(
            candidates.solutions().stream(),
            s -> c -> c.design(d -> d.withStage(index, keeping((Divider) s.stages().getFirst())))),
        candidates.exact(),
        "ratio",
        candidates.found() ? "" : DividerDesign.instead(assortment, wanted, most));
  }

  /** The new resistors with the tolerance of the parts that were chosen. */
  private Divider keeping(Divider d) {
    return new Divider(toleranced(d.upper()), toleranced(d.lower()));
  }

  private Value toleranced(Value v) {
    double percent = assortment.size() == 0 ? 0 : assortment.part(0).tolerance();
    return percent > 0 && v.spread() == null ? v.withSpread(Spread.percent(percent)) : v;
  }

  private Found pullUp(PullUp p, SensorCurve curve) {
    List<PullUpDesign.Choice> choices =
        PullUpDesign.choices(
            assortment, curve::at, channel.definition().working(), p.supply().number());
    String unit = channel.definition().unit();
    var list = new ArrayList<Offer>();
    for (PullUpDesign.Choice c : choices) {
      Solution s = c.solution();
      Solution said =
          new Solution(
              s.parts(),
              s.value(),
              s.error(),
              s.worstCase(),
              s.watts(),
              "%s, straight within ±%s %s"
                  .formatted(c.rule(), Numbers.significant(c.error(), 2), unit),
              s.stages());
      Value ohms = toleranced(((PullUp) s.stages().getFirst()).resistance());
      list.add(
          new Offer(
              said,
              ch -> ch.design(d -> d.withStage(index, Element.with(p, p.field("Rp"), ohms)))));
    }
    return new Found(list, true, "pull-up");
  }

  /**
   * The gain from two resistors; the offset is then the voltage that the sensor gives at the pivot,
   * or what puts the start of the range where it is wanted.
   */
  private Found difference(DifferenceAmp d) {
    double[] in = before();
    double gain = (goal.toEnd - goal.toStart) / (in[1] - in[0]);
    if (!(gain > 0)) {
      throw new QuantityException(
          "a difference amplifier does not invert: read an output that falls where its input rises");
    }
    Candidates candidates = RatioDesign.search(assortment, "Rf", "Rg", gain, goal.most);
    return new Found(
        kept(
            offers(
                candidates.solutions().stream(),
                s -> {
                  Value feedback = toleranced(value(s, 0));
                  Value input = toleranced(value(s, 1));
                  return c ->
                      c.design(
                          next -> next.withStage(index, placed(d, feedback, input, s.value(), in)));
                })),
        candidates.exact(),
        "gain");
  }

  private DifferenceAmp placed(
      DifferenceAmp d, Value feedback, Value input, double gain, double[] in) {
    Value pivot = channel.definition().pivot();
    double ground = d.virtualGround().number();
    double at =
        pivot == null
            ? in[0] - (goal.toStart - ground) / gain
            : path.at(pivot.number()).nodes().get(index).value();
    Value offset = Value.of(Double.parseDouble(Numbers.significant(at, 6)));
    return new DifferenceAmp(
        feedback, input, d.offset().to(offset), d.virtualGround(), d.railLow(), d.railHigh());
  }

  private static Value value(Solution s, int part) {
    var n = s.parts().get(part).network();
    return new Value(n.ohms(), n.text());
  }

  private Found gainShift(Span rails) {
    double[] in = before();
    Candidates candidates =
        GainShift.search(
            assortment,
            new GainShift.Goal(
                in[0],
                in[1],
                goal.toStart,
                goal.toEnd,
                channel.design().converter().reference().number(),
                rails));
    return new Found(
        kept(
            offers(
                candidates.solutions().stream(),
                s ->
                    c -> {
                      Design next = c.design().removeStage(index);
                      for (int i = 0; i < s.stages().size(); i++) {
                        next = next.insertStage(index + i, s.stages().get(i));
                      }
                      return c.with(next);
                    })),
        candidates.exact(),
        "gain");
  }

  private Found combination(Field field) {
    double wanted = stage.value(field).number();
    double amperes = amperes(field, wanted);
    Candidates candidates = Combination.search(assortment, wanted, goal.most, goal.part, amperes);
    return new Found(
        offers(
            candidates.solutions().stream(),
            s ->
                c ->
                    c.design(
                        d ->
                            d.withStage(
                                index, Element.with(stage, field, toleranced(value(s, 0)))))),
        candidates.exact(),
        "resistance",
        candidates.found()
            ? ""
            : goal.part.instead(
                Combination.search(assortment, wanted, goal.most).solutions(), s -> amperes));
  }

  /** The most that flows through the resistor at either end of the working range. */
  private double amperes(Field field, double ohms) {
    DesignView design = Analysis.of(channel).design();
    Span w = channel.definition().working();
    return Stream.of(w.low(), w.high())
        .flatMap(x -> design.stresses(x).stream())
        .filter(s -> s.element() == index + 1 && s.field().equals(field))
        .mapToDouble(s -> s.volts() / ohms)
        .max()
        .orElse(0);
  }
}
