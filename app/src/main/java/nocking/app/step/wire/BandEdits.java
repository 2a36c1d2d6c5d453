package nocking.app.step.wire;

import java.util.function.UnaryOperator;
import nocking.analysis.Analysis;
import nocking.app.control.Grid;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.band.BandPlan;
import nocking.channel.Channel;
import nocking.quantity.Numbers;
import nocking.quantity.Value;

/** What the grids of the bands have in common: the plan, and how it is changed. */
final class BandEdits {
  private final Desk desk;

  BandEdits(Desk desk) {
    this.desk = desk;
  }

  Channel channel() {
    return desk.channel().orElseThrow();
  }

  Analysis analysis() {
    return desk.analysis();
  }

  BandPlan plan() {
    return channel().wiring().bands();
  }

  /** Changes the plan; answers whether it may be changed. */
  boolean edit(String what, UnaryOperator<BandPlan> change) {
    return edit(what, "", change);
  }

  boolean edit(String what, String key, UnaryOperator<BandPlan> change) {
    return desk.edit(what, key, c -> c.wiring(w -> w.withBands(change.apply(w.bands()))));
  }

  /** The same grid that takes blocks. */
  Grid pasted(Grid grid) {
    return BlockPaste.into(grid, desk);
  }

  /** A value of the quantity; null for an empty cell. */
  Value quantity(String text) {
    return text.isBlank() ? null : Value.typed(text, channel().unit());
  }

  static String typed(Value v) {
    return v == null ? "" : v.typed();
  }

  /** Volts at the converter for a quantity, without the unit; nothing while there is no path. */
  String atConverter(double quantity) {
    return desk.analysis().wiring().voltsAt(quantity).map(v -> Numbers.fixed(v, 3)).orElse("");
  }
}
