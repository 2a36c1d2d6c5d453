package nocking.app.step.table;

import java.util.function.UnaryOperator;
import nocking.app.desk.Desk;
import nocking.table.Arithmetic;
import nocking.table.Demands;
import nocking.table.TableGoal;
import nocking.table.TableSpec;

/** Changes of what the receiver wants, each a step of undo. */
final class TableEdits {
  private final Desk desk;

  TableEdits(Desk desk) {
    this.desk = desk;
  }

  /** What the receiver of the selected channel wants; only while a table is asked for. */
  TableSpec spec() {
    return desk.channel().orElseThrow().receiver().table();
  }

  boolean asked() {
    return desk.channel().map(c -> c.receiver().table() != null).orElse(false);
  }

  /**
   * @param what for the log and the undo command; edits of one thing in a row are one step
   */
  void change(String what, UnaryOperator<TableSpec> how) {
    if (!asked()) return;
    TableSpec next = how.apply(spec());
    desk.edit("change " + what, "table." + what, c -> c.receiver(r -> r.withTable(next)));
  }

  /** A change that is a step of undo of its own: a choice, not a keystroke. */
  void choose(String what, UnaryOperator<TableSpec> how) {
    desk.seal();
    change(what, how);
    desk.seal();
  }

  void goal(String what, UnaryOperator<TableGoal> how) {
    change(what, s -> s.with(how.apply(s.goal())));
  }

  void arithmetic(String what, UnaryOperator<Arithmetic> how) {
    change(what, s -> s.with(how.apply(s.arithmetic())));
  }

  void demands(String what, UnaryOperator<Demands> how) {
    change(what, s -> s.with(how.apply(s.demands())));
  }
}
