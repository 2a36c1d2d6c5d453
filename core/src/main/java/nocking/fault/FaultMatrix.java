package nocking.fault;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import nocking.channel.Receiver;
import nocking.element.Signal;
import nocking.parts.PreferredSeries;
import nocking.prior.FaultKind;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.stage.ReferenceBlend;
import nocking.stage.Stage;
import nocking.wiring.Place;

/** Every fault of a channel solved over its working range by the nodal solver. */
public final class FaultMatrix {
  private static final int STEPS = 8;
  private static final int FEW_STEPS = 2;
  private static final double LEAST_PULL = 100e3;

  /** Share of the converter's range that a signal needs at least. */
  private static final double LEAST_ROOM = 0.25;

  private static final double NO_METER = Double.POSITIVE_INFINITY;

  /** Faults of the wires that stop the signal and that thresholds are there for. */
  private static final Set<FaultKind> BROKEN =
      EnumSet.of(
          FaultKind.SUPPLY_OPEN,
          FaultKind.GROUND_OPEN,
          FaultKind.SIGNAL_OPEN,
          FaultKind.SIGNAL_TO_SUPPLY,
          FaultKind.SIGNAL_TO_GROUND,
          FaultKind.SWAPPED);

  private static final Set<FaultKind> NO_VOLTS =
      EnumSet.of(
          FaultKind.DECIMAL,
          FaultKind.SENSOR_PREFIX,
          FaultKind.WRONG_UNIT,
          FaultKind.GAUGE_ABSOLUTE,
          FaultKind.REVERSED,
          FaultKind.SWAPPED_SYMBOLS,
          FaultKind.RMS_PEAK,
          FaultKind.INTERMITTENT,
          FaultKind.NOT_ENABLED,
          FaultKind.REFERENCE_OFF,
          FaultKind.REFERENCE_SCALE,
          FaultKind.REFERENCE_UNIT,
          FaultKind.METER_PREFIX,
          FaultKind.UNLISTED);

  private final Subject subject;
  private final NormalBand band;
  private final List<Place> places;
  private final HarmSearch harms;
  private final List<FaultRow> rows;

  private FaultMatrix(Subject subject, List<Fault> faults) {
    this.subject = subject;
    this.band = NormalBand.of(subject);
    this.places = places(subject);
    this.harms = new HarmSearch(subject, inputs(subject, STEPS));
    var made = new ArrayList<FaultRow>();
    var volts = new ArrayList<double[]>();
    for (Fault f : faults) {
      var at = new double[STEPS + 1];
      made.add(row(f, at));
      volts.add(at);
    }
    rows = confusions(made, volts);
  }

  /** The whole matrix, with each graded fault at a usual degree. */
  public static FaultMatrix of(Subject subject) {
    var faults = new ArrayList<Fault>();
    for (Fault f : FaultCatalogue.ofWholeWires(subject)) {
      if (NO_VOLTS.contains(f.kind())) continue;
      faults.addAll(usual(f, subject));
    }
    return new FaultMatrix(subject, faults);
  }

  /** The sound channel and the broken wires alone, which is all that thresholds need. */
  public static FaultMatrix ofWires(Subject subject) {
    return new FaultMatrix(
        subject,
        FaultCatalogue.ofWholeWires(subject).stream()
            .filter(f -> f.kind() == FaultKind.NONE || BROKEN.contains(f.kind()))
            .toList());
  }

  private static double[] inputs(Subject subject, int steps) {
    Span working = subject.channel().definition().working();
    return IntStream.rangeClosed(0, steps)
        .mapToDouble(i -> working.at((double) i / steps))
        .toArray();
  }

  /** What faults of wires and parts do harm, the worst first; looked at in a few places. */
  public static List<Harmful> harms(Subject subject) {
    List<Fault> all =
        FaultCatalogue.ofWholeWires(subject).stream()
            .filter(
                f ->
                    f.kind().family() == FaultKind.Family.WIRE
                        || f.kind() == FaultKind.PART_OPEN
                        || f.kind() == FaultKind.PART_SHORT)
            .filter(f -> !NO_VOLTS.contains(f.kind()))
            .flatMap(f -> usual(f, subject).stream())
            .toList();
    return HarmSearch.harmful(subject, all, inputs(subject, FEW_STEPS));
  }

  /** A fault at the degrees that the matrix shows. */
  private static List<Fault> usual(Fault f, Subject subject) {
    boolean ohms = subject.sensor().signal() == Signal.RESISTANCE;
    return switch (f.kind()) {
      case SUPPLY_LOW -> List.of(f.withSeverity(0.9));
      case SUPPLY_HIGH -> List.of(f.withSeverity(1.2));
      case GROUND_OFFSET -> List.of(f.withSeverity(0.05));
      case SUPPLY_LEAD, GROUND_LEAD -> List.of(f.withSeverity(10));
      case SIGNAL_LEAD -> List.of(f.withSeverity(ohms ? 10 : 1000));
      case LEAK_TO_GROUND, LEAK_TO_SUPPLY -> List.of(f.withSeverity(47e3));
      case PART_DRIFT -> List.of(f.withSeverity(0.9), f.withSeverity(1.1));
      case SENSOR_DRIFT -> List.of(f.withSeverity(1.1));
      case SENSOR_OFFSET -> List.of(f.withSeverity(0.05));
      default -> List.of(f);
    };
  }

  /** Where this channel can be measured, the display first. */
  public static List<Place> places(Subject subject) {
    FaultyPath sound = FaultyPath.of(subject, Fault.NONE, subject.channel().design().rest());
    Signal signal = subject.sensor().signal();
    var list = new ArrayList<Place>();
    list.add(Place.DISPLAY);
    list.add(Place.of(Place.Kind.SIGNAL_AT_RECEIVER));
    if (signal != Signal.CURRENT) list.add(Place.of(Place.Kind.SIGNAL_AT_SENSOR));
    if (sound.fed()) list.add(Place.of(Place.Kind.SUPPLY_AT_RECEIVER));
    if (sound.hasSupplyPin() && signal != Signal.CURRENT) {
      list.add(Place.of(Place.Kind.SUPPLY_AT_SENSOR));
    }
    if (sound.hasGroundPin() && signal != Signal.ALTERNATING) {
      list.add(Place.of(Place.Kind.GROUND_AT_SENSOR));
    }
    for (int k = 1; k <= subject.channel().wiring().plan().joints().size(); k++) {
      list.add(Place.of(Place.Kind.SIGNAL_AT_JOINT, k));
      if (sound.hasSupplyPin() && signal != Signal.CURRENT) {
        list.add(Place.of(Place.Kind.SUPPLY_AT_JOINT, k));
      }
      if (sound.hasGroundPin() && signal != Signal.ALTERNATING) {
        list.add(Place.of(Place.Kind.GROUND_AT_JOINT, k));
      }
    }
    if (signal == Signal.RESISTANCE) {
      list.add(Place.of(Place.Kind.OHMS_AT_SENSOR));
      list.add(Place.of(Place.Kind.OHMS_AT_RECEIVER));
    }
    if (sound.circuit().has("loop")) list.add(Place.of(Place.Kind.LOOP_CURRENT));
    boolean sensed = signal == Signal.RESISTANCE || signal == Signal.CURRENT;
    for (int i = sensed ? 3 : 2; i <= subject.stages().size() + 1; i++) {
      list.add(Place.testPoint(i));
    }
    for (int i = 0; i < subject.stages().size(); i++) {
      if (subject.stages().get(i) instanceof ReferenceBlend) {
        list.add(Place.of(Place.Kind.REFERENCE_WIPER, i + 1));
      }
    }
    return List.copyOf(list);
  }

  private FaultRow row(Fault f, double[] volts) {
    Span working = subject.channel().definition().working();
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    double shownLow = Double.POSITIVE_INFINITY;
    double shownHigh = Double.NEGATIVE_INFINITY;
    double worst = 0;
    double below = Double.NaN;
    double above = Double.NaN;
    boolean floats = false;
    int outside = 0;
    for (int i = 0; i <= STEPS; i++) {
      double x = working.at((double) i / STEPS);
      FaultyPath at = FaultyPath.of(subject, f, x);
      FaultyPath.Reading v = at.converter();
      FaultyPath.Reading d = at.read(Place.DISPLAY, NO_METER);
      volts[i] = v.floats() ? Double.NaN : v.value();
      floats |= v.floats();
      low = Math.min(low, v.span().low());
      high = Math.max(high, v.span().high());
      if (Double.isNaN(d.value())) {
        worst = Double.NaN;
      } else {
        shownLow = Math.min(shownLow, d.span().low());
        shownHigh = Math.max(shownHigh, d.span().high());
        double off = d.value() - meant(x);
        if (Math.abs(off) > Math.abs(worst)) worst = off;
      }
      if (band.below(v.value()))
        below = Double.isNaN(below) ? v.value() : Math.max(below, v.value());
      if (band.above(v.value()))
        above = Double.isNaN(above) ? v.value() : Math.min(above, v.value());
      if (band.below(v.value()) || band.above(v.value())) outside++;
    }
    boolean shown = shownLow <= shownHigh;
    FaultyPath rest = FaultyPath.of(subject, f, subject.channel().design().rest());
    var readings = new ArrayList<FaultyPath.Reading>();
    for (Place p : places) readings.add(rest.read(p, NO_METER));
    String hangs = hangsOnSupplyCurrent(f);
    FaultRow.Verdict verdict = verdict(floats, outside, worst);
    if (!hangs.isEmpty() && verdict == FaultRow.Verdict.HARMLESS) verdict = FaultRow.Verdict.HANGS;
    Span span = new Span(low, high);
    return new FaultRow(
        f,
        span,
        shown ? shownLow : Double.NaN,
        shown ? shownHigh : Double.NaN,
        floats,
        List.copyOf(readings),
        subject.channel().design().converter().code(rest.converter().value()),
        readings.getFirst().value(),
        floats ? Double.NaN : worst,
        verdict,
        below,
        above,
        List.of(),
        harms.of(f),
        hangs.isEmpty() ? note(f, verdict, span) : hangs);
  }

  /**
   * What the display shows while nothing is wrong: the quantity, unless the receiver goes by a
   * curve of its own or stands at a limit of its display.
   */
  private double meant(double x) {
    Receiver r = subject.channel().receiver();
    if (r.stored() == null && r.limits() == null) return x;
    double shown = FaultyPath.of(subject, Fault.NONE, x).read(Place.DISPLAY, NO_METER).value();
    return Double.isNaN(shown) ? x : shown;
  }

  private FaultRow.Verdict verdict(boolean floats, int outside, double worst) {
    if (floats) return FaultRow.Verdict.FLOATS;
    if (outside == STEPS + 1) return FaultRow.Verdict.TOLD;
    if (outside > 0) return FaultRow.Verdict.PARTLY;
    return Math.abs(worst) <= band.tolerance()
        ? FaultRow.Verdict.HARMLESS
        : FaultRow.Verdict.HIDDEN;
  }

  private String note(Fault f, FaultRow.Verdict verdict, Span span) {
    if (f.kind() == FaultKind.GROUND_OPEN && f.graded()) {
      String hangs = hangsOnSupplyCurrent(f, span);
      if (!hangs.isEmpty()) return hangs;
    }
    if (verdict == FaultRow.Verdict.FLOATS && BROKEN.contains(f.kind())) {
      return pull()
          .map(ohms -> "a pull-down of %s would settle it".formatted(Numbers.compact(ohms, "Ω", 3)))
          .orElse("");
    }
    boolean broken = BROKEN.contains(f.kind());
    if (broken
        && (verdict == FaultRow.Verdict.HIDDEN
            || verdict == FaultRow.Verdict.PARTLY
            || verdict == FaultRow.Verdict.HARMLESS)) {
      boolean below = span.middle() < band.volts().middle();
      double end =
          below
              ? span.high() + band.room() + band.margin()
              : span.low() - band.room() - band.margin();
      // No advice outside what can be: a good signal needs room on the other side.
      double reference = subject.channel().design().converter().reference().number();
      double room = below ? reference - end : end;
      if (!(end > 0 && end < reference && room >= LEAST_ROOM * reference)) return "";
      return "would be detectable if the signal stayed %s %s"
          .formatted(below ? "above" : "below", Numbers.engineering(end, "V", 3));
    }
    return "";
  }

  /**
   * A resistance in a wire that carries the supply current does as much as that current makes it,
   * and the card may not say it; empty where it makes no difference.
   */
  private String hangsOnSupplyCurrent(Fault f) {
    boolean carries = f.kind() == FaultKind.GROUND_LEAD || f.kind() == FaultKind.SUPPLY_LEAD;
    if (!carries || subject.supplied().current() != null) return "";
    Span possible = subject.supplied().possible();
    double least = worst(subject.drawing(possible.low()), f);
    double most = worst(subject.drawing(possible.high()), f);
    // Two verdicts are possible, or errors of which one says nothing of the other.
    boolean decides = (least > band.tolerance()) != (most > band.tolerance());
    if (!decides) return "";
    return "taken with %s of supply current, which nobody said; with %s it would be off by %s"
        .formatted(
            Numbers.engineering(subject.supplied().amperes(), "A", 2),
            Numbers.engineering(possible.high(), "A", 2),
            quantity(most));
  }

  private String quantity(double v) {
    String unit = subject.channel().definition().unit();
    return (Numbers.significant(v, 2) + " " + unit).strip();
  }

  /** The largest error of the display over the working range without sign; NaN counts as all. */
  private double worst(Subject of, Fault f) {
    double worst = 0;
    for (double x : inputs(of, STEPS)) {
      double shown = FaultyPath.of(of, f, x).read(Place.DISPLAY, NO_METER).value();
      double off = Math.abs(shown - meant(x));
      worst = Double.isNaN(off) ? Double.POSITIVE_INFINITY : Math.max(worst, off);
    }
    return worst;
  }

  /** What an open ground shows hangs on what the sensor draws, which its card may not say. */
  private String hangsOnSupplyCurrent(Fault f, Span span) {
    Span possible = subject.supplied().possible();
    double rest = subject.channel().design().rest();
    double least = FaultyPath.of(subject, f.withSeverity(possible.low()), rest).converter().value();
    double most = FaultyPath.of(subject, f.withSeverity(possible.high()), rest).converter().value();
    if (!(Math.abs(most - least) > band.room())) return "";
    return "taken with %s of supply current; between %s and %s it reads %s to %s at rest"
        .formatted(
            Numbers.engineering(subject.supplied().amperes(), "A", 2),
            Numbers.engineering(possible.low(), "A", 2),
            Numbers.engineering(possible.high(), "A", 2),
            Numbers.engineering(least, "V", 3),
            Numbers.engineering(most, "V", 3));
  }

  /**
   * A pull-down at the receiver's signal that settles the wire off, as low as it may be without
   * moving a good reading by more than a quarter of the tolerance anywhere, in E12; empty where the
   * wire off does not float, and where every pull-down does harm, as at one leg of a bridge.
   */
  public Optional<Double> pull() {
    Fault open = Fault.of(FaultKind.SIGNAL_OPEN);
    double rest = subject.channel().design().rest();
    if (!FaultyPath.of(subject, open, rest).converter().floats()) return Optional.empty();
    for (double decade = LEAST_PULL; decade < 1e7; decade *= 10) {
      for (double step : PreferredSeries.E12.decade()) {
        double ohms = step * decade;
        if (harmless(ohms)) return Optional.of(ohms);
      }
    }
    return Optional.empty();
  }

  /** Stage in front of which a pull-down belongs: the first amplifier, else behind the last. */
  public int pullAt() {
    List<Stage> stages = subject.stages();
    for (int i = 0; i < stages.size(); i++) if (stages.get(i).rails().isPresent()) return i;
    return stages.size();
  }

  private boolean harmless(double ohms) {
    Span w = subject.channel().definition().working();
    for (double x : new double[] {w.low(), w.middle(), w.high()}) {
      FaultyPath sound = FaultyPath.of(subject, Fault.NONE, x);
      double before = subject.shown(Fault.NONE, sound.converter().value());
      double after = subject.shown(Fault.NONE, sound.pulledDown(pullAt(), ohms).value());
      if (!(Math.abs(after - before) <= band.tolerance() / 4)) return false;
    }
    return true;
  }

  private List<FaultRow> confusions(List<FaultRow> made, List<double[]> volts) {
    double near = 2 * subject.channel().design().converter().step() + 1e-3 * band.volts().width();
    var list = new ArrayList<FaultRow>();
    for (int i = 0; i < made.size(); i++) {
      FaultRow r = made.get(i);
      var like = new ArrayList<String>();
      for (int j = 0; j < made.size(); j++) {
        if (i != j && alike(volts.get(i), volts.get(j), near)) {
          like.add(j == 0 ? "normal" : made.get(j).fault().says());
        }
      }
      if (r.verdict() == FaultRow.Verdict.HIDDEN && i > 0 && !like.contains("normal")) {
        like.addFirst("normal");
      }
      list.add(r.confusedWith(like));
    }
    return harmFirst(list);
  }

  /** The sound channel, then what does harm, the worst first, then the others as they came. */
  private static List<FaultRow> harmFirst(List<FaultRow> all) {
    var sorted = new ArrayList<>(all.subList(1, all.size()));
    sorted.sort(Comparator.comparing(FaultRow::harm, Harm.worstFirst()));
    sorted.addFirst(all.getFirst());
    return List.copyOf(sorted);
  }

  private static boolean alike(double[] a, double[] b, double near) {
    for (int k = 0; k < a.length; k++) {
      boolean both = Double.isNaN(a[k]) && Double.isNaN(b[k]);
      if (!both && !(Math.abs(a[k] - b[k]) <= near)) return false;
    }
    return true;
  }

  /** The sound channel first. */
  public List<FaultRow> rows() {
    return rows;
  }

  public List<Place> places() {
    return places;
  }

  public NormalBand band() {
    return band;
  }

  /** Thresholds that tell the broken wires from good readings. */
  public ThresholdProposal thresholds() {
    return ThresholdProposal.of(
        band, rows.stream().filter(r -> BROKEN.contains(r.fault().kind())).toList());
  }
}
