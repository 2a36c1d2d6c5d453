package nocking.app.step.table;

import java.util.List;
import java.util.Locale;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.quantity.Numbers;
import nocking.table.Comparison;
import nocking.table.Placement;
import nocking.view.TableResult;

/** Tables by all the habits side by side: what each leaves and what it costs. */
final class ComparisonGrid {
  private List<Comparison> rows = List.of();
  private TableResult table;
  private final Grid grid =
      new Grid(
          "placements",
          "The others are being worked out …",
          List.of(
              Column.shown("placement", 150, false, i -> title(rows.get(i).placement()))
                  .styled(i -> i == 0 ? "strong" : ""),
              Column.shown("cells", 48, true, i -> String.valueOf(rows.get(i).table().count())),
              Column.shown(
                      "worst", 70, true, i -> Numbers.significant(rows.get(i).error().worst(), 3))
                  .styled(this::verdict),
              Column.shown(
                  "at raw",
                  70,
                  true,
                  i -> Numbers.fixed(rows.get(i).error().worstAt(), table.spec().rawDecimals())),
              Column.shown("RMS", 66, true, i -> Numbers.significant(rows.get(i).error().rms(), 3))
                  .fromWidth(430),
              Column.shown("bytes", 52, true, i -> String.valueOf(rows.get(i).bytes()))
                  .fromWidth(380),
              Column.shown("steps", 48, true, i -> String.valueOf(steps(i))).fromWidth(480)),
          i -> false);

  ComparisonGrid() {
    grid.editable(false);
    grid.table().setAccessibleText("Placements compared");
  }

  Grid node() {
    return grid;
  }

  private String verdict(int i) {
    return rows.get(i).error().worst() > table.tolerance() * (1 + 1e-9) ? "text-fail" : "";
  }

  /** Steps of a power of two are found by a shift. */
  private int steps(int i) {
    return rows.get(i).placement().equals(Placement.POW2.key())
        ? 0
        : rows.get(i).table().lookUpSteps();
  }

  static String title(String placement) {
    if (placement.startsWith("every:")) {
      String k = placement.substring("every:".length());
      return k.equals("1")
          ? "every row"
          : "every %s row".formatted(Numbers.ordinal(Integer.parseInt(k)));
    }
    if (placement.equals("ends")) return "line between the ends";
    return Placement.of(placement).title().toLowerCase(Locale.ROOT);
  }

  void show(TableResult of, List<Comparison> beside) {
    table = of;
    rows = beside;
    grid.show(rows.size());
  }

  void none() {
    rows = List.of();
    grid.show(0);
  }
}
