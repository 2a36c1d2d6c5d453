package nocking.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.quantity.Numbers;

/** What speaks against the readings of a run, over all of its channels. */
final class Doubts {
  private static final int NO_CHANNEL = -1;

  private final List<Plausibility> channels;
  private final RunPlan plan;

  Doubts(RunPlan plan) {
    this.plan = plan;
    channels = plan.channels().stream().map(c -> new Plausibility(c, plan.unit())).toList();
  }

  /** Another point is gone to. */
  void begin() {
    channels.forEach(Plausibility::begin);
  }

  /** A reading that can only be a fault; {@code points} were taken before. */
  Optional<Doubt> reading(Sweep s, List<RunPoint> points) {
    for (int i = 0; i < channels.size(); i++) {
      double raw = s.raw().get(i);
      Optional<String> why = channels.get(i).reading(s.applied(), raw);
      if (why.isPresent()) return Optional.of(doubt(i, s.applied(), raw, points, why.get()));
    }
    return Optional.empty();
  }

  /** A point that is not as it should be; {@code points} were taken before. */
  Optional<Doubt> point(Average of, List<RunPoint> points) {
    double at = of.placeKnown() ? of.applied() : Double.NaN;
    var why = new ArrayList<String>();
    int first = -1;
    for (int i = 0; i < channels.size(); i++) {
      Optional<String> speaks = channels.get(i).point(at, of.mean(i));
      if (speaks.isPresent() && first < 0) first = i;
      speaks.ifPresent(why::add);
    }
    Optional<String> apart = apart(of);
    apart.ifPresent(a -> why.addFirst(a));
    // One yes is one to all that is said.
    if (first >= 0) {
      return Optional.of(doubt(first, at, of.mean(first), points, String.join("; ", why)));
    }
    return apart.map(a -> new Doubt(NO_CHANNEL, at, Double.NaN, !points.isEmpty(), a));
  }

  /** Two references that say different things are one of them wrong, and nothing tells which. */
  private Optional<String> apart(Average of) {
    double apart = of.apart();
    double most = plan.mayBeApart();
    int digits = Numbers.decimalsFor(most / 10);
    // As it is said, so it is judged: 0.100 is not more than 0.1.
    boolean more =
        Double.isFinite(apart) && Double.parseDouble(Numbers.fixed(Math.abs(apart), digits)) > most;
    if (!more) return Optional.empty();
    return Optional.of(
        Doubt.REFERENCES
            + "%s %s apart: %s reads %s, %s reads %s, and %s is the most that both may be off"
                .formatted(
                    Numbers.fixed(Math.abs(apart), digits),
                    plan.unit(),
                    plan.reference().name(),
                    Numbers.fixed(of.applied(), digits),
                    plan.beside().name(),
                    Numbers.fixed(of.applied() + apart, digits),
                    Numbers.trimmed(most, 3)));
  }

  private static Doubt doubt(
      int channel, double applied, double raw, List<RunPoint> points, String why) {
    boolean sound = points.stream().anyMatch(p -> !p.doubted() && Double.isFinite(p.mean(channel)));
    return new Doubt(channel, applied, raw, sound, why);
  }

  /** A point was taken; where nobody was asked, nobody said that it is so. */
  void taken(int channel, RunPoint p) {
    Plausibility c = channels.get(channel);
    if (p.doubted() && p.unasked()) c.unsaid();
    else c.taken(p.place(), p.mean(channel), p.doubted());
  }
}
