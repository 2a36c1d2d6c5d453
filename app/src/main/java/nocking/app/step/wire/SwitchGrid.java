package nocking.app.step.wire;

import java.util.List;
import java.util.Locale;
import java.util.function.UnaryOperator;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.band.SwitchPoint;
import nocking.quantity.QuantityException;

/** Switches on the mechanism: where they must change, and where they were seen to. */
final class SwitchGrid {
  private final BandEdits bands;
  private final Grid grid;
  private List<String> levels = List.of();

  SwitchGrid(BandEdits bands) {
    this.bands = bands;
    grid = bands.pasted(make());
  }

  Grid grid() {
    return grid;
  }

  private Grid make() {
    return new Grid(
            "switches",
            "No switch on this mechanism. Add an end-of-travel contact where there is one.",
            List.of(
                Column.typed(
                    "switch",
                    130,
                    false,
                    i -> contact(i).name(),
                    (i, t) -> contact(i, s -> s.withName(t.strip()))),
                Column.typed(
                    "must change at",
                    110,
                    true,
                    i -> contact(i).at().typed(),
                    (i, t) -> contact(i, s -> s.withAt(bands.quantity(t)))),
                Column.typed(
                    "± window",
                    90,
                    true,
                    i -> contact(i).window().typed(),
                    (i, t) -> contact(i, s -> s.withWindow(bands.quantity(t)))),
                Column.typed(
                    "seen, up",
                    90,
                    true,
                    i -> BandEdits.typed(contact(i).up()),
                    (i, t) -> contact(i, s -> s.withObservations(bands.quantity(t), s.down()))),
                Column.typed(
                    "seen, down",
                    90,
                    true,
                    i -> BandEdits.typed(contact(i).down()),
                    (i, t) -> contact(i, s -> s.withObservations(s.up(), bands.quantity(t)))),
                Column.typed("reads above it", 100, false, this::level, this::takeLevel),
                Column.shown("signal there", 100, true, this::signalThere),
                Column.shown("now", 70, false, this::now).keepingItsWidth()),
            i -> false)
        .onDelete(i -> bands.edit("take out switch", p -> p.withoutSwitch(i)));
  }

  private SwitchPoint contact(int i) {
    return bands.plan().switches().get(i);
  }

  private void contact(int i, UnaryOperator<SwitchPoint> change) {
    bands.edit("switch", p -> p.with(i, change.apply(p.switches().get(i))));
  }

  /** A contact to ground that closes above its place reads low there. */
  private String level(int i) {
    return contact(i).activeLow() ? SwitchPoint.LOW : SwitchPoint.HIGH;
  }

  private void takeLevel(int i, String text) {
    String word = text.strip().toLowerCase(Locale.ROOT);
    if (!word.equals(SwitchPoint.LOW) && !word.equals(SwitchPoint.HIGH)) {
      throw new QuantityException("read '%s', expected high or low".formatted(text.strip()));
    }
    contact(i, s -> s.withActiveLow(word.equals(SwitchPoint.LOW)));
  }

  /** What its input must read at the probe. */
  private String now(int i) {
    return i < levels.size() ? levels.get(i) : "";
  }

  void levels(List<String> now) {
    if (levels.equals(now)) return;
    levels = now;
    grid.show(bands.plan().switches().size());
  }

  private String signalThere(int i) {
    String volts = bands.atConverter(contact(i).at().number());
    return volts.isEmpty() ? "" : volts + " V";
  }
}
