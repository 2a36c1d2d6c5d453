package nocking.view;

import java.util.Optional;
import nocking.table.LinearTable;
import nocking.table.TableError;

/**
 * The table that the receiver would hold, or why there is none.
 *
 * @param error against the adopted curve, looked at between the cells too
 */
public record TableOutcome(
    Optional<LinearTable> table, Optional<TableError> error, String problem) {
  static TableOutcome none(String problem) {
    return new TableOutcome(Optional.empty(), Optional.empty(), problem);
  }
}
