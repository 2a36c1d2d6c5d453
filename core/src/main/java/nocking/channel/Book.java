package nocking.channel;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import nocking.parts.StockPart;
import nocking.weighing.Weighing;

/**
 * A bench book.
 *
 * @param channels in their order
 * @param cards sensor cards, in their order
 * @param stock the drawer of parts
 * @param weighing the bench's meter and how common each kind of fault is here
 */
public record Book(
    List<Channel> channels, List<SensorCard> cards, List<StockPart> stock, Weighing weighing) {
  public static final Book EMPTY = new Book(List.of());

  public Book {
    channels = List.copyOf(channels);
    cards = cards == null ? List.of() : List.copyOf(cards);
    stock = stock == null ? List.of() : List.copyOf(stock);
    weighing = weighing == null ? Weighing.USUAL : weighing;
  }

  /** A book of channels, without cards and stock. */
  public Book(List<Channel> channels) {
    this(channels, List.of(), List.of(), Weighing.USUAL);
  }

  public Book withChannels(List<Channel> v) {
    return new Book(v, cards, stock, weighing);
  }

  public Book withCards(List<SensorCard> v) {
    return new Book(channels, v, stock, weighing);
  }

  public Book withStock(List<StockPart> v) {
    return new Book(channels, cards, v, weighing);
  }

  public Book withWeighing(Weighing v) {
    return new Book(channels, cards, stock, v);
  }

  public Optional<SensorCard> card(String id) {
    return cards.stream().filter(c -> c.id().equals(id)).findFirst();
  }

  /** The book with a card replaced where its id is known, else added at the end. */
  public Book with(SensorCard card) {
    var next = new ArrayList<>(cards);
    next.replaceAll(c -> c.id().equals(card.id()) ? card : c);
    if (card(card.id()).isEmpty()) next.add(card);
    return withCards(next);
  }

  public Book withoutCard(String id) {
    return withCards(cards.stream().filter(c -> !c.id().equals(id)).toList());
  }

  public Optional<Channel> byId(String id) {
    return channels.stream().filter(c -> c.id().equals(id)).findFirst();
  }

  /** Channel with a tag, upper or lower case. */
  public Optional<Channel> byTag(String tag) {
    return channels.stream().filter(c -> c.tag().equalsIgnoreCase(tag)).findFirst();
  }

  /** The book with a channel replaced where its id is known, else added at the end. */
  public Book with(Channel channel) {
    var next = new ArrayList<>(channels);
    for (int i = 0; i < next.size(); i++) {
      if (next.get(i).id().equals(channel.id())) {
        next.set(i, channel);
        return withChannels(next);
      }
    }
    next.add(channel);
    return withChannels(next);
  }

  public Book without(String id) {
    return withChannels(channels.stream().filter(c -> !c.id().equals(id)).toList());
  }

  /** A tag that is still free, made from {@code stem}: the stem itself, or with 2, 3 … */
  public String freeTag(String stem) {
    String tag = stem;
    for (int i = 2; byTag(tag).isPresent(); i++) tag = stem + "-" + i;
    return tag;
  }

  public static String newId() {
    return UUID.randomUUID().toString();
  }
}
