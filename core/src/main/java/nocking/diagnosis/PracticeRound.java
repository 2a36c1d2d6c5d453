package nocking.diagnosis;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import nocking.channel.Channel;
import nocking.channel.PracticeResult;
import nocking.channel.PracticeResult.Effort;
import nocking.diagnosis.Exercise.Difficulty;
import nocking.fault.Fault;
import nocking.fault.FaultCatalogue;
import nocking.fault.Subject;
import nocking.prior.PriorWeights;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.wiring.Meter;

/**
 * One fault hidden in a copy of a channel, and the engine that knows what it would have done.
 *
 * @param names every fault that may be named, in the order of their names
 */
public record PracticeRound(
    Channel channel, Exercise exercise, Diagnostician engine, List<Fault> names) {
  /** How far beyond the working range one may measure, as a share of it. */
  private static final double BEYOND = 0.1;

  /**
   * What comes of an answer.
   *
   * @param right true for the hidden fault and for every one that no measurement tells from it
   * @param plan what the engine would have measured
   * @param ranking the faults after what was measured
   * @param alike names of those that no measurement tells from the hidden one
   */
  public record Outcome(
      boolean right, List<MeasuredValue> plan, Ranking ranking, List<String> alike) {}

  /**
   * Hides a fault; off the interface thread, for it solves circuits.
   *
   * @param decimals of the display
   * @return empty where no fault of this level shows at the display
   */
  public static Optional<PracticeRound> hide(
      Subject subject, int decimals, Difficulty level, long seed) {
    return Exercise.hide(subject, Meter.HAND_HELD, decimals, level, seed)
        .map(
            e ->
                new PracticeRound(
                    subject.channel(),
                    e,
                    Diagnostician.of(subject, PriorWeights.USUAL),
                    nameable(subject, level)));
  }

  private static List<Fault> nameable(Subject s, Difficulty level) {
    return FaultCatalogue.of(s).stream()
        .filter(f -> f.kind().inChannel() && !f.kind().loose() && level.holds(f))
        .sorted(Comparator.comparing(Fault::name))
        .toList();
  }

  /** Inputs at which can be measured: the working range and a tenth more at both ends. */
  public Span inputs() {
    Span w = channel.definition().working();
    return new Span(w.low() - BEYOND * w.width(), w.high() + BEYOND * w.width());
  }

  /**
   * @throws QuantityException where nothing can be measured at an input
   */
  public void requireInput(double x) {
    if (inputs().contains(x)) return;
    Span w = channel.definition().working();
    String unit = channel.definition().unit();
    throw new QuantityException(
        "%s lies outside the range %s … %s %s"
            .formatted(trimmed(x), trimmed(w.low()), trimmed(w.high()), unit)
            .strip());
  }

  private static String trimmed(double v) {
    return Numbers.trimmed(v, 6);
  }

  /** Judges an answer; off the interface thread. */
  public Outcome judge(Fault named) {
    Ranking ranking = engine.rank(exercise.seen());
    List<String> alike =
        ranking
            .of(exercise.hidden())
            .map(e -> engine.indistinguishable(e, ranking))
            .orElse(List.of())
            .stream()
            .map(e -> e.fault().name())
            .toList();
    return new Outcome(exercise.right(named, engine), exercise.plan(engine), ranking, alike);
  }

  /**
   * The line of the book that an answer becomes.
   *
   * @param date ISO 8601
   * @param seconds that it took, at least 0
   */
  public PracticeResult result(
      String learner, Difficulty level, Fault named, Outcome outcome, String date, int seconds) {
    return new PracticeResult(
        learner.strip(),
        channel.tag(),
        level.key(),
        exercise.hidden().says(),
        named.name(),
        outcome.right,
        Math.max(1, exercise.measurements()),
        Math.max(1, outcome.plan.size()),
        date,
        Optional.of(new Effort(seconds, live(exercise.seen()), live(outcome.plan))));
  }

  private static int live(List<MeasuredValue> made) {
    return (int) made.stream().filter(m -> m.place().live()).count();
  }
}
