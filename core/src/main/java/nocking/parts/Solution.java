package nocking.parts;

import java.util.List;
import nocking.stage.Stage;

/**
 * One way to do what was wanted.
 *
 * @param parts with the names that the circuit gives them
 * @param value what they make: a ratio, a gain, a resistance
 * @param error relative to what was wanted, with its sign
 * @param worstCase largest relative error that the tolerances allow
 * @param watts power in the hottest single part; NaN when it is not known
 * @param note what else has to be known, for example a reference voltage; may be empty
 * @param stages that put the solution into a path; empty when they are no stage of their own
 */
public record Solution(
    List<Named> parts,
    double value,
    double error,
    double worstCase,
    double watts,
    String note,
    List<Stage> stages) {

  /** A network with the name it has in the circuit. */
  public record Named(String name, Network network) {}

  public Solution {
    parts = List.copyOf(parts);
    stages = List.copyOf(stages);
  }

  /** Number of single resistors. */
  public int count() {
    return parts.stream().mapToInt(p -> p.network().parts().size()).sum();
  }

  /** The parts in one line: {@code R1 5k1, R2 10k}; says so where none is needed. */
  public String text() {
    if (parts.isEmpty()) return "no part";
    return String.join(", ", parts.stream().map(p -> p.name() + " " + p.network().text()).toList());
  }
}
