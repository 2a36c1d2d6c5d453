package nocking.analysis;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;

/**
 * Which range? What a sensor of another span would do on this channel: how much of it the job uses,
 * what one count is worth, what its error comes to; the least span that holds the range is marked.
 *
 * @param span of the candidate, channel's unit
 * @param used share of the span that the working range takes; NaN when it does not fit
 * @param headRoom share of the span above the working range; NaN when it does not fit
 * @param count what one count is worth in the middle of the working range
 * @param error of a sensor with the stated percentage of its span
 * @param verdict in a few words
 */
public record RangeChoice(
    String name,
    Span span,
    double used,
    double headRoom,
    double count,
    double error,
    Verdict verdict,
    Optional<SensorCard> card) {

  /** What is said of a candidate. */
  public enum Verdict {
    /** Does the job, and nothing smaller does. */
    SMALLEST("fits"),
    LARGER("larger"),
    COARSE("too coarse"),
    SATURATES("saturates");

    private final String title;

    Verdict(String title) {
      this.title = title;
    }
  }

  /** The verdict in a word or two; where a candidate saturates its span says. */
  public String says() {
    return verdict.title;
  }

  /**
   * All candidates: the cards that measure the same, and spans without a card.
   *
   * @param spans channel's unit
   * @param percent error of every candidate in percent of its span
   */
  public static List<RangeChoice> of(
      Channel channel, List<SensorCard> cards, List<Span> spans, double percent) {
    var list = new ArrayList<RangeChoice>();
    Unit unit = channel.unit();
    for (SensorCard card : cards) {
      if (card.kind() != channel.definition().kind()
          || !Unit.of(card.unit()).dimension().equals(unit.dimension())) continue;
      try {
        Span span = card.sensorIn(unit).rated(unit);
        list.add(
            candidate(
                channel, card.name(), span, card.putInto(channel), percent, Optional.of(card)));
      } catch (QuantityException e) {
        // A card whose numbers make no sense on this channel is no candidate.
        continue;
      }
    }
    for (Span span : spans) {
      String name =
          "%s…%s".formatted(Numbers.trimmed(span.low(), 5), Numbers.trimmed(span.high(), 5));
      list.add(candidate(channel, name, span, channel, percent, Optional.empty()));
    }
    return marked(list);
  }

  private static RangeChoice candidate(
      Channel channel,
      String name,
      Span span,
      Channel with,
      double percent,
      Optional<SensorCard> card) {
    Span working = channel.definition().working();
    double error = percent / 100 * span.width();
    if (!span.contains(working.low()) || !span.contains(working.high())) {
      return new RangeChoice(
          name, span, Double.NaN, Double.NaN, Double.NaN, error, Verdict.SATURATES, card);
    }
    double count = count(with, working, span, card.isPresent());
    double tolerance = channel.definition().toleranceOrNaN();
    boolean coarse = error > tolerance || count > tolerance;
    return new RangeChoice(
        name,
        span,
        working.width() / span.width(),
        (span.high() - working.high()) / span.width(),
        count,
        error,
        coarse ? Verdict.COARSE : Verdict.LARGER,
        card);
  }

  /** By the card's own path; a span without a card is the present sensor stretched to it. */
  private static double count(Channel with, Span working, Span span, boolean card) {
    var path = Analysis.of(with).design().path();
    if (path.isEmpty()) return Double.NaN;
    double own = path.get().countsWorth(working.middle());
    return card ? own : own * span.width() / path.get().rated().width();
  }

  private static List<RangeChoice> marked(List<RangeChoice> list) {
    Optional<RangeChoice> smallest =
        list.stream()
            .filter(c -> c.verdict == Verdict.LARGER)
            .min(Comparator.comparingDouble(c -> c.span.width()));
    return list.stream()
        .map(c -> smallest.filter(s -> s == c).isPresent() ? c.withVerdict(Verdict.SMALLEST) : c)
        .sorted(Comparator.comparingDouble(c -> c.span.width()))
        .toList();
  }

  private RangeChoice withVerdict(Verdict v) {
    return new RangeChoice(name, span, used, headRoom, count, error, v, card);
  }
}
