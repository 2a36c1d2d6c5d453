package nocking.app.step.wire;

import java.util.List;
import java.util.function.UnaryOperator;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.band.AlarmBand;
import nocking.quantity.Numbers;
import nocking.sensor.AcVoltage;

/** Bands of the quantity with their names, and what they are at the converter. */
final class AlarmGrid {
  private final BandEdits bands;
  private final Grid grid;

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
                    120,
                    false,
                    i -> bands.plan().alarms().get(i).name(),
                    (i, t) -> alarm(i, a -> new AlarmBand(t.strip(), a.from(), a.to()))),
                Column.typed(
                    "from",
                    100,
                    true,
                    i -> BandEdits.typed(bands.plan().alarms().get(i).from()),
                    (i, t) -> alarm(i, a -> new AlarmBand(a.name(), bands.quantity(t), a.to()))),
                Column.typed(
                    "to",
                    100,
                    true,
                    i -> BandEdits.typed(bands.plan().alarms().get(i).to()),
                    (i, t) -> alarm(i, a -> new AlarmBand(a.name(), a.from(), bands.quantity(t)))),
                Column.shown("as peak", 170, true, this::peak),
                Column.shown("at the converter", 190, true, this::atConverter)),
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

  private String atConverter(int i) {
    if (bands.atConverter(0).isEmpty()) return "";
    return bands.plan().alarms().get(i).says(bands::atConverter, " V");
  }
}
