package nocking.app.step.wire;

import java.util.List;
import java.util.function.UnaryOperator;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.band.SwitchPoint;

/** Switches on the mechanism: where they must change, and where they were seen to. */
final class SwitchGrid {
  private final BandEdits bands;
  private final Grid grid;

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
                Column.shown("signal there", 130, true, this::signalThere)),
            i -> false)
        .onDelete(i -> bands.edit("take out switch", p -> p.withoutSwitch(i)));
  }

  private SwitchPoint contact(int i) {
    return bands.plan().switches().get(i);
  }

  private void contact(int i, UnaryOperator<SwitchPoint> change) {
    bands.edit("switch", p -> p.with(i, change.apply(p.switches().get(i))));
  }

  private String signalThere(int i) {
    String volts = bands.atConverter(contact(i).at().number());
    return volts.isEmpty() ? "" : volts + " V";
  }
}
