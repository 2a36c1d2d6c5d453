package nocking.diagnosis;

import java.util.List;
import java.util.Optional;
import nocking.fault.Fault;

/**
 * The explanations of what was seen, the likeliest first.
 *
 * @param observations what was seen
 */
public record Ranking(List<Observation> observations, List<Explanation> explanations) {

  public Explanation best() {
    return explanations.getFirst();
  }

  /** True when none of the faults explains what was seen. */
  public boolean noneFits() {
    return !observations.isEmpty() && explanations.stream().noneMatch(Explanation::fits);
  }

  /** The explanations worth showing: those that together leave less than one part in a thousand. */
  public List<Explanation> leading(int most) {
    return explanations.stream().filter(e -> e.probability() > 1e-3).limit(most).toList();
  }

  public Optional<Explanation> of(Fault fault) {
    return explanations.stream().filter(e -> e.fault().same(fault)).findFirst();
  }
}
