package nocking.channel;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import nocking.parts.StockPart;
import nocking.prior.PriorWeights;
import nocking.quantity.QuantityException;
import nocking.run.Instrument;
import nocking.table.ReceiverShape;

/**
 * A bench book.
 *
 * @param channels in their order
 * @param cards sensor cards, in their order
 * @param stock the drawer of parts
 * @param priorWeights the bench's meter and how common each kind of fault is here
 * @param instruments meters and references of the bench, in their order
 * @param shapes receivers' shapes of this book, in their order; those that are shipped come on top
 */
public record Book(
    List<Channel> channels,
    List<SensorCard> cards,
    List<StockPart> stock,
    PriorWeights priorWeights,
    List<Instrument> instruments,
    List<ReceiverShape> shapes) {
  public static final Book EMPTY = new Book(List.of());

  public Book {
    channels = List.copyOf(channels);
    cards = cards == null ? List.of() : List.copyOf(cards);
    stock = stock == null ? List.of() : List.copyOf(stock);
    priorWeights = priorWeights == null ? PriorWeights.USUAL : priorWeights;
    instruments = instruments == null ? List.of() : List.copyOf(instruments);
    shapes = shapes == null ? List.of() : List.copyOf(shapes);
  }

  /** A book of channels with nothing beside them. */
  public Book(List<Channel> channels) {
    this(channels, List.of(), List.of(), PriorWeights.USUAL, List.of(), List.of());
  }

  public Book withChannels(List<Channel> v) {
    return new Book(v, cards, stock, priorWeights, instruments, shapes);
  }

  public Book withCards(List<SensorCard> v) {
    return new Book(channels, v, stock, priorWeights, instruments, shapes);
  }

  public Book withStock(List<StockPart> v) {
    return new Book(channels, cards, v, priorWeights, instruments, shapes);
  }

  public Book withPriorWeights(PriorWeights v) {
    return new Book(channels, cards, stock, v, instruments, shapes);
  }

  public Book withInstruments(List<Instrument> v) {
    return new Book(channels, cards, stock, priorWeights, v, shapes);
  }

  public Book withShapes(List<ReceiverShape> v) {
    return new Book(channels, cards, stock, priorWeights, instruments, v);
  }

  /** Shapes that a receiver can have: those that every book has, and its own. */
  public List<ReceiverShape> allShapes() {
    return Stream.concat(ReceiverShape.SHIPPED.stream(), shapes.stream()).toList();
  }

  /** The book with a shape replaced where its name is known, else added at the end. */
  public Book with(ReceiverShape shape) {
    var next = new ArrayList<>(shapes);
    next.removeIf(s -> s.name().equals(shape.name()));
    next.add(shape);
    return withShapes(next);
  }

  /** An instrument by its name. */
  public Optional<Instrument> instrument(String name) {
    return instruments.stream().filter(i -> i.name().equals(name)).findFirst();
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

  /** A name that no card has yet: the wanted one, or with a number behind it. */
  public String freeCardName(String wanted) {
    String name = wanted;
    for (int i = 2; cardNamed(name); i++) name = wanted + " " + i;
    return name;
  }

  private boolean cardNamed(String name) {
    return cards.stream().anyMatch(k -> k.name().equalsIgnoreCase(name));
  }

  /**
   * Refuses a tag for a channel where another one has it, upper or lower case.
   *
   * @throws QuantityException naming the channel that has it
   */
  public void requireTag(String tag, String id) {
    if (tag.isBlank()) throw new QuantityException("a channel needs a tag");
    byTag(tag)
        .filter(c -> !c.id().equals(id))
        .ifPresent(
            c -> {
              throw new QuantityException("%s is taken by another channel".formatted(c.tag()));
            });
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

  /**
   * Channels from outside as this book can take them, in their order: one whose id or tag is taken
   * gets a new id, and its tag with a number.
   */
  public List<Channel> placing(List<Channel> incoming) {
    var placed = new ArrayList<Channel>();
    Book next = this;
    for (Channel c : incoming) {
      boolean free = next.byTag(c.tag()).isEmpty() && next.byId(c.id()).isEmpty();
      String tag = next.freeTag(c.tag());
      Channel own = free ? c : c.withId(newId()).define(d -> d.withTag(tag));
      placed.add(own);
      next = next.with(own);
    }
    return placed;
  }

  /**
   * The book with what lies on the shelf of another one: cards that are new here, and drawer,
   * instruments, shapes, meter and weights where this book has none of its own.
   */
  public Book withShelfOf(Book other) {
    Book next = this;
    for (SensorCard c : other.cards) {
      if (next.card(c.id()).isEmpty()) next = next.with(c);
    }
    if (next.stock.isEmpty()) next = next.withStock(other.stock);
    if (next.instruments.isEmpty()) next = next.withInstruments(other.instruments);
    if (next.shapes.isEmpty()) next = next.withShapes(other.shapes);
    return next.priorWeights.equals(PriorWeights.USUAL)
        ? next.withPriorWeights(other.priorWeights)
        : next;
  }

  public static String newId() {
    return UUID.randomUUID().toString();
  }
}
