package nocking.proposal;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.fault.FaultRow;
import nocking.path.PathCircuit;
import nocking.path.PathState;
import nocking.path.SignalPath;
import nocking.prior.FaultKind;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.stage.RcFilter;
import nocking.stage.Stage;
import nocking.tolerance.BudgetPoint;
import nocking.view.DesignView;

/**
 * Complete conditionings for a channel's sensor and converter, ranked.
 *
 * <p>The order, for {@link Wanted.Care#BALANCED}: what holds the tolerance after calibration comes
 * before what does not; then the larger share of broken wires that are told; then fewer parts; then
 * the smaller error before calibration; then the larger share of the converter. Any other care
 * comes before all of these.
 */
public final class PathProposals {
  /** Resistance of a filter that an input hardly feels. */
  private static final double FILTER_OHMS = 1e3;

  private static final double LEAST_FARADS = 10e-12;

  private static final double ALIKE = 1e-4;

  /** Largest resistor that dirt and inputs do not yet spoil, ohms. */
  private static final double MOST_OHMS = 1e6;

  private static final double MOST_FACTOR = 1e3;

  /** What less current may cost of an error that no tolerance bounds. */
  private static final double ALLOWED = 1.1;

  /** Places of the range at which a current is looked at. */
  private static final int PLACES = 16;

  private final Channel channel;
  private final Wanted wanted;

  /** True once a circuit was left out for no filter that settles in time behind it. */
  private boolean tooSlow;

  private PathProposals(Channel channel, Wanted wanted) {
    this.channel = channel;
    this.wanted = wanted;
  }

  /**
   * The proposals for a channel, the best first; empty where no circuit can be made from the parts.
   *
   * @throws QuantityException one sentence, where nothing can be proposed
   */
  public static List<PathProposal> of(Channel channel, Wanted wanted) {
    if (channel.design().sensor() == null) {
      throw new QuantityException("there is no sensor yet to propose a path for");
    }
    if (wanted.parts().size() == 0)
      throw new QuantityException("there are no parts to choose from");
    return new PathProposals(channel, wanted).ranked();
  }

  private List<PathProposal> ranked() {
    var list = new ArrayList<PathProposal>();
    for (Topologies.Circuit c : Topologies.of(channel, wanted)) {
      judged(c)
          .map(p -> wanted.care() == Wanted.Care.CURRENT ? frugal(c, p) : p)
          .ifPresent(list::add);
    }
    if (list.isEmpty() && tooSlow) {
      throw new QuantityException(
          "no filter of 1 kΩ settles within half a count in %s: its capacitor would be below 10 pF"
              .formatted(Numbers.engineering(wanted.settling(), "s", 3)));
    }
    list.sort(order());
    var said = new ArrayList<PathProposal>();
    for (int i = 0; i < list.size(); i++) {
      PathProposal next = i + 1 < list.size() ? list.get(i + 1) : null;
      said.add(list.get(i).because(why(list.get(i), next)));
    }
    return List.copyOf(said);
  }

  /**
   * The same circuit with parts of the decade that draws the least, as long as it holds what it
   * held.
   */
  private PathProposal frugal(Topologies.Circuit circuit, PathProposal as) {
    PathProposal best = as;
    for (double factor = 10; factor <= MOST_FACTOR; factor *= 10) {
      Optional<List<Stage>> larger = larger(circuit.stages(), factor);
      if (larger.isEmpty()) break;
      var scaled = new Topologies.Circuit(circuit.name(), larger.get(), circuit.resistors());
      PathProposal p = judged(scaled).orElse(null);
      boolean good =
          p != null
              && p.amperes() < best.amperes()
              && (p.holds() || !as.holds())
              && p.told() >= as.told()
              && (hasTolerance() && p.holds() || p.after() <= ALLOWED * as.after());
      if (good) best = p;
    }
    return best;
  }

  private boolean hasTolerance() {
    return !Double.isNaN(channel.definition().toleranceOrNaN());
  }

  /** Every resistor so many times as large; empty where the parts do not have them. */
  private Optional<List<Stage>> larger(List<Stage> stages, double factor) {
    var list = new ArrayList<Stage>();
    for (Stage stage : stages) {
      Stage next = stage;
      double total = 0;
      for (Field f : stage.fields()) {
        Value v = stage.value(f);
        if (v == null || !f.parameter().unit().equals("ohm")) continue;
        double ohms = v.number() * factor;
        total += ohms;
        boolean there = ohms <= MOST_OHMS && wanted.parts().has(ohms);
        if (!there || total > wanted.total().high()) return Optional.empty();
        var text = Numbers.compact(ohms, "Ω", 4);
        next = Element.with(next, f, Value.typed(text, Unit.OHM).withSpread(v.spread()));
      }
      list.add(next);
    }
    return Optional.of(list);
  }

  /** Comparator of the stated order. */
  Comparator<PathProposal> order() {
    Comparator<PathProposal> balanced =
        Comparator.comparing((PathProposal p) -> !p.holds())
            .thenComparingDouble(p -> -told(p))
            .thenComparingInt(PathProposal::parts)
            .thenComparingDouble(PathProposal::before)
            .thenComparingDouble(p -> -p.share())
            .thenComparing(PathProposal::name);
    return switch (wanted.care()) {
      case BALANCED -> balanced;
      case AFTER -> Comparator.comparingDouble(PathProposal::after).thenComparing(balanced);
      case BEFORE -> Comparator.comparingDouble(PathProposal::before).thenComparing(balanced);
      case SHARE ->
          Comparator.comparingDouble((PathProposal p) -> -p.share()).thenComparing(balanced);
      case FAULTS ->
          Comparator.comparingDouble((PathProposal p) -> -told(p)).thenComparing(balanced);
      case PARTS -> Comparator.comparingInt(PathProposal::parts).thenComparing(balanced);
      case CURRENT -> Comparator.comparingDouble(PathProposal::amperes).thenComparing(balanced);
    };
  }

  private static double told(PathProposal p) {
    return p.wires() == 0 ? 0 : (double) p.told() / p.wires();
  }

  /** What a circuit comes to; empty where it leaves the converter or its rails after all. */
  private Optional<PathProposal> judged(Topologies.Circuit circuit) {
    var stages = new ArrayList<>(circuit.stages());
    if (!Double.isNaN(wanted.settling())) {
      Optional<RcFilter> filter = filter(stages);
      if (filter.isEmpty()) return Optional.empty();
      stages.add(filter.get());
    }
    Channel with = channel.design(d -> d.withStages(stages));
    Analysis analysis = Analysis.of(with);
    DesignView design = analysis.design();
    if (design.path().isEmpty()) return Optional.empty();
    SignalPath path = design.path().get();
    Span w = channel.definition().working();
    PathState low = path.at(w.low());
    PathState high = path.at(w.high());
    double reference = path.converter().reference().number();
    Span volts = Span.between(low.output(), high.output());
    if (low.clipped() || high.clipped() || volts.low() < 0 || volts.high() > reference) {
      return Optional.empty();
    }
    double before = 0;
    double after = 0;
    for (BudgetPoint p : design.budget()) {
      before = Math.max(before, p.before().worstCase());
      after = Math.max(after, p.after().worstCase());
    }
    double count =
        Math.max(Math.abs(path.countsWorth(w.low())), Math.abs(path.countsWorth(w.high())));
    List<FaultRow> wires =
        analysis.wiring().brokenWires().map(m -> m.rows()).orElse(List.of()).stream()
            .filter(r -> r.fault().kind() != FaultKind.NONE)
            .toList();
    int told = (int) wires.stream().filter(r -> r.verdict() == FaultRow.Verdict.TOLD).count();
    double tolerance = channel.definition().toleranceOrNaN();
    boolean holds = Double.isNaN(tolerance) || after <= tolerance && count <= tolerance;
    return Optional.of(
        new PathProposal(
            circuit.name(),
            stages,
            volts,
            volts.width() / reference,
            before,
            after,
            count,
            told,
            wires.size(),
            amperes(with),
            parts(circuit),
            holds,
            ""));
  }

  /**
   * The largest capacitor of the usual series with which a step still settles in time, behind what
   * feeds it; empty where there is none.
   */
  private Optional<RcFilter> filter(List<Stage> before) {
    var resistor = new RcFilter(Value.of(FILTER_OHMS), Value.of(LEAST_FARADS));
    double ohms =
        PathCircuit.mostOhmsAt(
            channel.design().measurand(),
            channel.design().sensor(),
            Stream.concat(before.stream(), Stream.of(resistor)).toList(),
            channel.design().converter(),
            channel.definition().working(),
            before.size() + 1);
    double bits = channel.design().converter().effectiveBits();
    double constant = wanted.settling() / ((bits + 1) * Math.log(2));
    double most = constant / ohms;
    if (!(most >= LEAST_FARADS)) {
      tooSlow = true;
      return Optional.empty();
    }
    double decade = Math.pow(10, Math.floor(Math.log10(most)));
    double[] steps = {1, 1.5, 2.2, 3.3, 4.7, 6.8};
    double farads = decade;
    for (double s : steps) if (s * decade <= most * (1 + 1e-12)) farads = s * decade;
    return Optional.of(
        new RcFilter(
            Value.of(FILTER_OHMS), new Value(farads, Numbers.engineering(farads, "F", 2))));
  }

  /** Largest current through a sensor that is read with one, or that its output has to give. */
  private static double amperes(Channel with) {
    Source source = Source.of(with);
    if (source.signal() == Signal.CURRENT) return source.most();
    // A reference in the middle of the swing draws the most at one of its ends, or between.
    Span w = with.definition().working();
    return IntStream.rangeClosed(0, PLACES)
        .mapToDouble(i -> amperes(with, w.at((double) i / PLACES)))
        .max()
        .orElseThrow();
  }

  private static double amperes(Channel with, double x) {
    return PathCircuit.sensorAmperes(
        new Measurand(with.definition().kind().symbol(), with.unit()),
        with.design().sensor(),
        with.design().stages(),
        with.design().converter(),
        x);
  }

  /** Resistors, amplifiers, and the two parts of a filter. */
  private int parts(Topologies.Circuit circuit) {
    int amplifiers = (int) circuit.stages().stream().filter(s -> s.rails().isPresent()).count();
    return circuit.resistors() + amplifiers + (Double.isNaN(wanted.settling()) ? 0 : 2);
  }

  private String why(PathProposal p, PathProposal next) {
    String tolerance =
        Double.isNaN(channel.definition().toleranceOrNaN())
            ? ""
            : p.holds() ? "holds the tolerance after calibration; " : "misses the tolerance; ";
    String own =
        "%s%d %s, %s %% of the converter, %d of %d broken wires told"
            .formatted(
                tolerance,
                p.parts(),
                p.parts() == 1 ? "part" : "parts",
                Numbers.significant(100 * p.share(), 2),
                p.told(),
                p.wires());
    return next == null ? own : own + "; " + ahead(p, next);
  }

  /** The first thing of the order in which it is better than the one behind it. */
  private String ahead(PathProposal p, PathProposal next) {
    String unit = channel.definition().unit();
    Optional<String> cared =
        switch (wanted.care()) {
          case AFTER -> less(p.after(), next.after(), unit, "after calibration");
          case BEFORE -> less(p.before(), next.before(), unit, "before calibration");
          case SHARE ->
              p.share() > next.share()
                  ? Optional.of("more of the converter than the " + next.name())
                  : Optional.empty();
          case CURRENT -> less(p.amperes(), next.amperes(), "A", "through the sensor");
          default -> Optional.empty();
        };
    if (cared.isPresent()) return cared.get() + ahead(next);
    if (p.holds() && !next.holds()) return "the %s misses the tolerance".formatted(next.name());
    if (told(p) > told(next)) {
      return "the %s tells %d of %d".formatted(next.name(), next.told(), next.wires());
    }
    if (p.parts() < next.parts()) {
      return "the %s takes %d parts".formatted(next.name(), next.parts());
    }
    return less(p.before(), next.before(), unit, "before calibration")
        .map(words -> words + ahead(next))
        .orElse("the %s is as good".formatted(next.name()));
  }

  private static String ahead(PathProposal next) {
    return " (%s)".formatted(next.name());
  }

  private static Optional<String> less(double a, double b, String unit, String what) {
    // What differs in the fifth digit is alike to whoever reads it.
    if (!(a < b * (1 - ALIKE))) return Optional.empty();
    int digits = 2;
    while (digits < 5 && Numbers.significant(a, digits).equals(Numbers.significant(b, digits))) {
      digits++;
    }
    return Optional.of(
        "%s %s and not %s".formatted(amount(a, unit, digits), what, amount(b, unit, digits)));
  }

  private static String amount(double v, String unit, int digits) {
    return unit.equals("A")
        ? Numbers.engineering(v, unit, digits)
        : (Numbers.significant(v, digits) + " " + unit).strip();
  }
}
