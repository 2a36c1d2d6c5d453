package nocking.fault;

import java.util.List;
import java.util.Optional;
import nocking.network.Circuit;
import nocking.prior.FaultKind;

/** What is wrong at once: one fault, as a rule, or two. */
public record Faults(List<Fault> list) {

  public Faults {
    list = List.copyOf(list);
  }

  public static Faults of(Fault... faults) {
    return new Faults(List.of(faults));
  }

  /** True where one of them is of one of these kinds. */
  boolean has(FaultKind... kinds) {
    for (Fault f : list) {
      for (FaultKind kind : kinds) if (f.kind() == kind) return true;
    }
    return false;
  }

  /**
   * The one of a kind in a stretch of the wires; one that says no stretch sits beside the sensor.
   */
  Optional<Fault> of(FaultKind kind, int segment) {
    return list.stream()
        .filter(f -> f.kind() == kind && Math.max(0, f.segment()) == segment)
        .findFirst();
  }

  /** The first of a kind. */
  Optional<Fault> of(FaultKind kind) {
    for (Fault f : list) if (f.kind() == kind) return Optional.of(f);
    return Optional.empty();
  }

  /** True where one of them is a short of this resistor, or of a part of it. */
  boolean shorts(Circuit.Resistor r) {
    return list.stream()
        .anyMatch(
            f ->
                f.kind() == FaultKind.PART_SHORT
                    && f.element() == r.owner()
                    && f.part().equals(r.name()));
  }

  /** Share of its nominal volts that a supply gives which is this share by itself; 0 for none. */
  public double supply(double sound) {
    double share = sound;
    for (Fault f : list) {
      switch (f.kind()) {
        case SUPPLY_LOW, SUPPLY_HIGH -> share *= f.severity();
        case SUPPLY_DEAD -> share = 0;
        default -> {}
      }
    }
    return share;
  }
}
