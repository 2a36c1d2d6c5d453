package nocking.view;

import java.util.Optional;

/** The table that the receiver would hold, or why there is none. */
public record TableOutcome(Optional<TableResult> result, String problem) {
  static TableOutcome none(String problem) {
    return new TableOutcome(Optional.empty(), problem);
  }

  static TableOutcome of(TableResult result) {
    return new TableOutcome(Optional.of(result), "");
  }
}
