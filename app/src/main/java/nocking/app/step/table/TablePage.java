package nocking.app.step.table;

import javafx.scene.Node;
import nocking.analysis.Analysis;
import nocking.view.TableResult;

/** One way of looking at a table. */
interface TablePage {
  Node node();

  /** Shows the table of a channel. */
  void show(Analysis a, TableResult table);

  /** There is no table; {@code why} is one sentence without a full stop, or empty. */
  void none(String why);

  /** Another channel was selected: forget what belongs to the former. */
  default void switched() {}
}
