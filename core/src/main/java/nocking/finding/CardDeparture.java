package nocking.finding;

import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.CardRef;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.channel.WorkStep;
import nocking.element.Field;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.sensor.Sensor;
import nocking.view.ChannelView;

/**
 * The channel and the sensor card that its sensor came from no longer say the same: the card
 * changed, the channel departs from it, or the card is gone.
 */
final class CardDeparture implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Channel c = e.channel();
    CardRef ref = c.design().card();
    if (ref == null || c.design().sensor() == null || e.cards().isEmpty()) return Stream.empty();
    Optional<SensorCard> card = e.cards().stream().filter(k -> k.id().equals(ref.id())).findFirst();
    if (card.isEmpty()) {
      return Stream.of(
          Finding.of(
                  "card-gone",
                  Severity.ADVICE,
                  WorkStep.DEFINE,
                  "The card %s is no longer in the book".formatted(ref.name()),
                  "The channel keeps its sensor as it is.")
              .with(new Fix("Forget the card", ch -> ch.design(d -> d.withCard(null)))));
    }
    SensorCard k = card.get();
    if (k.revision() != ref.revision()) {
      return Stream.of(
          Finding.of(
                  "card-changed",
                  Severity.WARNING,
                  WorkStep.DEFINE,
                  "The card %s has changed".formatted(k.name()),
                  "It is at revision %d, this channel took revision %d. %s"
                      .formatted(k.revision(), ref.revision(), difference(e, k)))
              .with(new Fix("Take the card as it is now", k::putInto)));
    }
    if (same(e, k)) return Stream.empty();
    return Stream.of(
        Finding.of(
                "card-departure",
                Severity.ADVICE,
                WorkStep.DEFINE,
                "The sensor departs from its card",
                difference(e, k))
            .with(new Fix("Back to the card " + k.name(), k::putInto)));
  }

  private static Optional<Sensor> ofCard(ChannelView e, SensorCard k) {
    try {
      return Optional.of(k.sensorIn(e.channel().unit()));
    } catch (QuantityException wrongUnit) {
      return Optional.empty();
    }
  }

  private static boolean same(ChannelView e, SensorCard k) {
    return ofCard(e, k).map(s -> s.equals(e.channel().design().sensor())).orElse(false);
  }

  private static String difference(ChannelView e, SensorCard k) {
    Sensor own = e.channel().design().sensor();
    Optional<Sensor> of = ofCard(e, k);
    if (of.isEmpty() || of.get().getClass() != own.getClass()) {
      return "The card is %s, the channel has %s.".formatted(k.sensor().inHand(), own.inHand());
    }
    Unit unit = e.channel().unit();
    for (Field f : own.fields()) {
      var mine = own.value(f);
      var cards = of.get().value(f);
      if (mine != null && cards != null && mine.number() != cards.number()) {
        return "%s: the card has %s, the channel %s."
            .formatted(f.label(), cards.shown(f.unit(unit)), mine.shown(f.unit(unit)));
      }
    }
    return same(e, k) ? "The numbers are the same." : "Its table or its choices differ.";
  }
}
