package nocking.diagnosis;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import nocking.fault.Fault;
import nocking.prior.FaultKind;
import nocking.wiring.Place;

/**
 * The explanations of what was seen, the likeliest first.
 *
 * @param observations what was seen
 */
public record Ranking(List<MeasuredValue> observations, List<Explanation> explanations) {
  private static final double MUCH = 0.1;
  private static final double IN_QUESTION = 1e-4;

  /** Share of a wire's probability from which on one of its stretches is told from the others. */
  private static final double TOLD = 0.8;

  public Explanation best() {
    return together().getFirst();
  }

  /**
   * The explanations with all stretches of a wire as one, until a place between the ends tells
   * which it is: three of them a third as likely each are one that is likelier than what is half of
   * it.
   */
  private List<Explanation> together() {
    if (explanations.stream().noneMatch(e -> e.fault().segment() >= 0)) return explanations;
    var list = new ArrayList<Explanation>();
    var done = EnumSet.noneOf(FaultKind.class);
    for (Explanation e : explanations) {
      if (e.fault().segment() < 0) {
        list.add(e);
        continue;
      }
      if (done.contains(e.fault().kind())) continue;
      double all = probability(e.fault().kind());
      boolean told = e.probability() >= TOLD * all;
      list.add(told ? e : e.somewhere(all));
      if (!told) done.add(e.fault().kind());
    }
    list.sort(Comparator.comparingDouble(Explanation::probability).reversed());
    return list;
  }

  private double probability(FaultKind kind) {
    return explanations.stream()
        .filter(e -> e.fault().kind() == kind)
        .mapToDouble(Explanation::probability)
        .sum();
  }

  /**
   * True when no reading contradicts a sound channel: it fits, no display is off by more than the
   * tolerance, and nothing else is much likelier.
   *
   * @param tolerance of the reading, channel's unit
   */
  public boolean nothingWrong(double tolerance) {
    if (observations.isEmpty()) return false;
    Explanation sound = of(Fault.NONE).orElseThrow();
    boolean displays =
        observations.stream()
            .filter(o -> o.place().equals(Place.DISPLAY) && o.inputKnown())
            .allMatch(o -> Math.abs(o.value() - o.at()) <= tolerance + o.step() / 2);
    return displays && sound.fits() && sound.probability() > MUCH * best().probability();
  }

  /** True when what is not on the list explains it better than everything that is. */
  public boolean somethingElse() {
    return !observations.isEmpty() && !best().listed();
  }

  /** True when none of the faults explains what was seen. */
  public boolean noneFits() {
    return !observations.isEmpty()
        && explanations.stream().noneMatch(e -> e.probability() > IN_QUESTION && e.fits());
  }

  /** True when no single fault is shown to explain what was seen. */
  public boolean unexplained() {
    return noneFits() || somethingElse();
  }

  /** The explanations worth showing: those that together leave less than one part in a thousand. */
  public List<Explanation> leading(int most) {
    return together().stream().filter(e -> e.probability() > 1e-3).limit(most).toList();
  }

  public Optional<Explanation> of(Fault fault) {
    return explanations.stream().filter(e -> e.fault().same(fault)).findFirst();
  }
}
