package nocking.app.step.define;

import java.time.Clock;
import java.time.LocalDate;
import java.util.Optional;
import java.util.function.Consumer;
import nocking.app.desk.Desk;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.channel.UnitChange;
import nocking.quantity.Unit;
import nocking.sensor.Sensor;
import nocking.wiring.Supplied;

/** Taking a sensor from a card of the book, and keeping one as a card. */
final class SensorCards {
  private final Desk desk;
  private final Consumer<SensorCard> propose;

  /**
   * @param propose shows what a card would do before it is fitted
   */
  SensorCards(Desk desk, Consumer<SensorCard> propose) {
    this.desk = desk;
    this.propose = propose;
  }

  /** Where a sensor is there already, the new one is compared first. */
  void use(SensorCard c) {
    boolean fresh = desk.channel().orElseThrow().design().sensor() == null;
    if (fresh) desk.edit("take card " + c.name(), "", c::begin);
    else propose.accept(c);
  }

  /** The sensor as a card of the book; a card it came from is brought up to date. */
  void keep() {
    Channel c = desk.channel().orElseThrow();
    Optional<SensorCard> own =
        Optional.ofNullable(c.design().card()).flatMap(r -> desk.book().card(r.id()));
    String name =
        own.map(SensorCard::name)
            .orElseGet(() -> desk.book().freeCardName(c.tag() + " " + c.design().sensor().title()));
    SensorCard card =
        own.map(
                k ->
                    k.withSensor(
                            k.sensor().equals(c.design().sensor()) ? k.sensor() : converted(k, c))
                        .withOverload(
                            UnitChange.overload(
                                c.design().overload(), c.unit(), Unit.of(k.unit()))))
            .orElseGet(
                () ->
                    new SensorCard(
                            Book.newId(),
                            name,
                            "channel " + c.tag(),
                            LocalDate.now(Clock.systemDefaultZone()).toString(),
                            c.definition().kind(),
                            c.definition().unit(),
                            c.design().sensor(),
                            1)
                        .withSupplied(supplied(c))
                        .withOverload(c.design().overload()));
    boolean kept =
        desk.editBook(
            "keep card " + name,
            "",
            b -> {
              Book with = b.with(card);
              return desk.editable() ? with.with(c.design(d -> d.withCard(card.ref()))) : with;
            });
    if (kept) {
      desk.say("%s is kept as a card, revision %d.".formatted(card.name(), card.revision()), false);
    }
  }

  /** What the channel says of the supply; null where it says nothing. */
  private static Supplied supplied(Channel c) {
    Supplied s = c.wiring().plan().supplied();
    return s.equals(Supplied.USUAL) ? null : s;
  }

  /** The channel's sensor in the unit of a card. */
  private static Sensor converted(SensorCard card, Channel c) {
    return new SensorCard(
            card.id(),
            card.name(),
            "",
            "",
            card.kind(),
            c.definition().unit(),
            c.design().sensor(),
            1)
        .sensorIn(Unit.of(card.unit()));
  }
}
