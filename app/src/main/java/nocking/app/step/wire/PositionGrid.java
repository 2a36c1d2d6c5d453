package nocking.app.step.wire;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import nocking.analysis.LiveReading;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.band.Positions;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** The positions of a selector: their windows and where they were seen to settle. */
final class PositionGrid {
  /** Where the table is narrower the ruler alone shows the windows' ends. */
  private static final double WINDOW_FROM = 620;

  private static final int DECIMALS = 4;

  private Positions judged;
  private int last = -1;
  private final BandEdits bands;
  private final Grid grid;

  PositionGrid(BandEdits bands) {
    this.bands = bands;
    grid = bands.pasted(make());
  }

  Grid grid() {
    return grid;
  }

  private Grid make() {
    return new Grid(
            "positions",
            "No positions yet. Add one, or take the stations from the sensor.",
            List.of(
                Column.typed("position", 78, false, i -> position(i).name(), this::takeName)
                    .keepingItsWidth(),
                Column.typed(
                    "centre", 54, true, i -> position(i).centre().typed(), this::takeCentre),
                Column.typed("± window", 92, true, this::half, this::takeHalf),
                Column.shown("low … high", 116, true, this::window)
                    .keepingItsWidth()
                    .fromWidth(WINDOW_FROM),
                Column.typed(
                        "settled, up",
                        142,
                        true,
                        i -> list(position(i).up()),
                        (i, t) -> takeSettles(i, t, true))
                    .keepingItsWidth(),
                Column.typed(
                        "settled, down",
                        142,
                        true,
                        i -> list(position(i).down()),
                        (i, t) -> takeSettles(i, t, false))
                    .keepingItsWidth(),
                Column.shown("scatter", 58, true, i -> volts(judged.windows().get(i).scatter())),
                Column.shown("slack", 54, true, i -> volts(judged.windows().get(i).slack()))),
            i -> false)
        .onDelete(i -> bands.edit("take out position", p -> p.withoutPosition(i)));
  }

  /** Shows the positions with the windows that were judged for them. */
  void show(BandPlan plan, Positions windows) {
    judged = windows;
    grid.show(plan.positions().size());
  }

  private BandPosition position(int i) {
    return bands.plan().positions().get(i);
  }

  static String volts(double v) {
    return Double.isNaN(v) ? "" : v == 0 ? "0 V" : Numbers.engineering(v, "V", 2);
  }

  private String half(int i) {
    BandPosition p = position(i);
    return p.half() != null
        ? p.half().typed()
        : Double.isNaN(judged.suggested())
            ? ""
            : "auto " + Numbers.fixed(Math.max(0, judged.suggested()), 3);
  }

  private String window(int i) {
    Positions.Window w = judged.windows().get(i);
    return Numbers.fixed(w.low(), 3) + " … " + Numbers.fixed(w.high(), 3);
  }

  private static String list(List<Value> values) {
    return values.stream().map(Value::typed).collect(Collectors.joining(" "));
  }

  private void change(int i, String what, UnaryOperator<BandPosition> change) {
    bands.edit(what, p -> p.with(i, change.apply(p.positions().get(i))));
  }

  private void takeName(int i, String text) {
    change(i, "name position", p -> p.withName(text.strip()));
  }

  private void takeCentre(int i, String text) {
    change(i, "centre of position", p -> p.withCentre(Value.typed(text, Unit.VOLT)));
  }

  private void takeHalf(int i, String text) {
    boolean own = text.isBlank() || text.startsWith("auto");
    Value v = own ? null : Value.typed(text, Unit.VOLT);
    change(i, "window of position", p -> p.withHalf(v));
  }

  /**
   * Adds where a position has settled: coming down from a higher one than the last it stands among
   * those, else among the way up.
   */
  void settled(LiveReading r) {
    int at = grid.selectedRow();
    if (at < 0 || at >= judged.windows().size()) at = nearest(r.volts());
    boolean up = last < 0 || at >= last;
    last = at;
    BandPosition p = position(at);
    List<Value> before = up ? p.up() : p.down();
    var next = new ArrayList<>(before);
    next.add(Value.of(Double.parseDouble(Numbers.fixed(r.volts(), DECIMALS))));
    change(
        at,
        "settles of position",
        k -> up ? k.withSettles(next, k.down()) : k.withSettles(k.up(), next));
  }

  private int nearest(double volts) {
    int best = 0;
    for (int i = 1; i < judged.windows().size(); i++) {
      double off = Math.abs(judged.windows().get(i).centre() - volts);
      if (off < Math.abs(judged.windows().get(best).centre() - volts)) best = i;
    }
    return best;
  }

  private void takeSettles(int i, String text, boolean up) {
    List<Value> values =
        Arrays.stream(text.strip().split("[\\s;]+"))
            .filter(t -> !t.isEmpty())
            .map(t -> Value.typed(t, Unit.VOLT))
            .toList();
    change(
        i,
        "settles of position",
        p -> up ? p.withSettles(values, p.down()) : p.withSettles(p.up(), values));
  }
}
