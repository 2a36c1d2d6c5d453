package nocking.app.step.wire;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.band.AlarmBand;
import nocking.quantity.Numbers;
import nocking.sensor.AcVoltage;
import nocking.view.AlarmEdge;

/** Bands of the quantity with their names, and what they are at the converter. */
final class AlarmGrid {
  private static final double AS_PEAK_FROM = 900;

  private final BandEdits bands;
  private final Grid grid;
  private Optional<String> holds = Optional.empty();

  AlarmGrid(BandEdits bands) {
    this.bands = bands;
    grid = bands.pasted(make());
  }

  Grid grid() {
    return grid;
  }

  private Grid make() {
    return new Grid(
            "alarms",
            "No alarm bands yet. Add under, normal and over.",
            List.of(
                Column.typed(
                    "band",
                    96,
                    false,
                    i -> bands.plan().alarms().get(i).name(),
                    (i, t) -> alarm(i, a -> new AlarmBand(t.strip(), a.from(), a.to()))),
                Column.typed(
                    "from",
                    64,
                    true,
                    i -> BandEdits.typed(bands.plan().alarms().get(i).from()),
                    (i, t) -> alarm(i, a -> new AlarmBand(a.name(), bands.quantity(t), a.to()))),
                Column.typed(
                    "to",
                    64,
                    true,
                    i -> BandEdits.typed(bands.plan().alarms().get(i).to()),
                    (i, t) -> alarm(i, a -> new AlarmBand(a.name(), a.from(), bands.quantity(t)))),
                Column.shown("as peak", 150, true, this::peak).fromWidth(AS_PEAK_FROM),
                Column.shown("volts", 150, true, this::volts),
                Column.shown("counts", 120, true, this::counts),
                Column.shown("comes within ±", 140, true, this::spread),
                Column.shown("", 96, false, this::says)
                    .styled(i -> out(i) ? "text-fail" : "")
                    .keepingItsWidth()),
            i -> false)
        .onDelete(i -> bands.edit("take out alarm band", p -> p.withoutAlarm(i)));
  }

  private void alarm(int i, UnaryOperator<AlarmBand> change) {
    bands.edit("alarm band", p -> p.with(i, change.apply(p.alarms().get(i))));
  }

  /** An alternating voltage stated in RMS has its peak beside it, so that nobody mixes them up. */
  private String peak(int i) {
    if (!(bands.channel().design().sensor() instanceof AcVoltage ac)) return "";
    double factor = ac.peakPerStated();
    return bands.plan().alarms().get(i).says(v -> Numbers.fixed(v * factor, 0), " V");
  }

  private List<AlarmEdge> edges(int i) {
    return bands.analysis().wiring().alarmEdges().stream().filter(e -> e.band() == i).toList();
  }

  private String each(int i, Function<AlarmEdge, String> write) {
    return edges(i).stream().map(write).collect(Collectors.joining(" … "));
  }

  private String volts(int i) {
    return each(i, e -> Double.isNaN(e.volts()) ? "–" : Numbers.fixed(e.volts(), 3));
  }

  private String counts(int i) {
    return each(i, e -> Double.isNaN(e.volts()) ? "–" : String.valueOf(e.code()));
  }

  /**
   * How early or late it may come with any parts inside their tolerances; under a receiver that
   * takes something else for the quantity also where it truly comes.
   */
  private String spread(int i) {
    if (bands.analysis().receiver().believed().isEmpty()) return each(i, AlarmGrid::spread);
    double most = edges(i).stream().mapToDouble(AlarmEdge::spread).max().orElse(Double.NaN);
    return "%s ±%s".formatted(each(i, this::truly), Numbers.significant(most, 2));
  }

  private static String spread(AlarmEdge e) {
    return Double.isNaN(e.spread()) ? "–" : Numbers.significant(e.spread(), 2);
  }

  private String truly(AlarmEdge e) {
    return Double.isNaN(e.truly()) ? "–" : bands.analysis().design().reading(e.truly());
  }

  private boolean out(int i) {
    return edges(i).stream().anyMatch(e -> !e.reached());
  }

  /** Which one holds at the probe, and which cannot be come to. */
  private String says(int i) {
    if (out(i)) return "out of reach";
    return holds.isPresent() && holds.get().equals(bands.plan().alarms().get(i).name())
        ? "holds now"
        : "";
  }

  /** Marks the band that holds at the probe. */
  void holds(Optional<String> name) {
    if (holds.equals(name)) return;
    holds = name;
    grid.show(bands.plan().alarms().size());
  }
}
