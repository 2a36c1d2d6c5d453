package nocking.diagnosis;

import java.util.List;
import java.util.Optional;
import nocking.fault.Fault;

/**
 * What two faults at once say where no single one fits: one pair that is clearly better than every
 * other, or one fault that all the likely pairs have in common.
 *
 * @param pairs those that fit, the likeliest first
 */
public record TwoFaults(List<FaultPair> pairs) {
  /** Share of the weight from which a pair, or the fault that pairs have in common, is named. */
  private static final double CLEARLY = 0.9;

  private static final double WORTH_NAMING = 0.02;

  /** The pair that is clearly better than everything else; empty where none is. */
  public Optional<FaultPair> pair() {
    return pairs.stream().limit(1).filter(p -> p.probability() >= CLEARLY).findFirst();
  }

  /** The fault that is in all likely pairs where no single pair is clearly better. */
  public Optional<Fault> common() {
    if (pairs.isEmpty() || pair().isPresent()) return Optional.empty();
    FaultPair best = pairs.getFirst();
    Fault first = weight(best.first()) >= weight(best.second()) ? best.first() : best.second();
    return weight(first) >= CLEARLY ? Optional.of(first) : Optional.empty();
  }

  private double weight(Fault fault) {
    return pairs.stream().filter(p -> p.holds(fault)).mapToDouble(FaultPair::probability).sum();
  }

  /** What may be there beside the common fault, the likeliest first. */
  public List<Fault> beside(Fault common) {
    return pairs.stream()
        .filter(p -> p.holds(common) && p.probability() >= WORTH_NAMING)
        .map(p -> p.beside(common))
        .toList();
  }

  /** One sentence, or nothing where nothing can be said. */
  public Optional<String> says() {
    Optional<String> both = pair().map(p -> p.first().says() + ", and " + p.second().says());
    return both.or(() -> common().map(c -> c.name() + ", and " + others(c)))
        .map("Two faults at once explain it: %s."::formatted);
  }

  private String others(Fault common) {
    List<String> names = beside(common).stream().map(Fault::name).toList();
    return switch (names.size()) {
      case 0 -> "another that nothing tells yet";
      case 1 -> "perhaps " + names.getFirst();
      default -> "one of " + String.join("; ", names);
    };
  }
}
