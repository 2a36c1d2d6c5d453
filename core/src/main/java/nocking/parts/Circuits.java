package nocking.parts;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import nocking.element.Signal;
import nocking.network.Circuit;
import nocking.quantity.Span;
import nocking.stage.Sensed;
import nocking.stage.Stage;

/** Candidate circuits solved by the nodal solver, from a stiff source to an open output. */
final class Circuits {
  private Circuits() {}

  /** Output for two inputs; empty when the circuit has no solution. */
  static Optional<double[]> outputs(List<Stage> stages, double low, double high) {
    try {
      return Optional.of(new double[] {output(stages, low), output(stages, high)});
    } catch (IllegalStateException | IllegalArgumentException e) {
      // A candidate without a solution is no candidate.
      return Optional.empty();
    }
  }

  private static double output(List<Stage> stages, double volts) {
    return solved(stages, volts).get("n" + stages.size());
  }

  private static Map<String, Double> solved(List<Stage> stages, double volts) {
    var circuit = new Circuit().source("n0", Circuit.GROUND, volts);
    for (int i = 0; i < stages.size(); i++) {
      stages.get(i).build(circuit, "n" + i, "n" + (i + 1), Sensed.of(Signal.VOLTAGE, 0));
    }
    return circuit.solve();
  }

  /** True when no output of a circuit has to leave its rails at an input. */
  static boolean insideRails(List<Stage> stages, double volts) {
    Map<String, Double> nodes = solved(stages, volts);
    for (int i = 0; i < stages.size(); i++) {
      double v = nodes.get("n" + (i + 1));
      Optional<Span> rails = stages.get(i).rails();
      if (rails.isPresent() && Math.abs(rails.get().clamp(v) - v) > 1e-9) return false;
    }
    return true;
  }
}
