package nocking.channel;

import java.util.List;
import nocking.parts.StockPart;
import nocking.prior.PriorWeights;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.run.Instrument;
import nocking.table.ReceiverShape;

/**
 * The JSON form of the document, which is the records themselves; {@code channel.schema.json}
 * beside this class describes it.
 *
 * <p>A value is a number; where more was typed than the number says it is {@code {"value": 5100,
 * "typed": "5k1"}}. On reading, a string such as {@code "5k1"} or {@code "530 mV"} is taken too, in
 * SI units or without any.
 */
public final class ChannelJson {
  /** File that describes the form, a JSON Schema 2020-12. */
  public static final String SCHEMA = "channel.schema.json";

  /** Value of {@code format} in a channel's file. */
  public static final String FORMAT = "nocking-channel-1";

  private ChannelJson() {}

  private record ChannelFile(String format, ChannelForm channel) {}

  private record BookFile(String format, BookForm book) {}

  private record BookForm(
      List<ChannelForm> channels,
      List<SensorCard> cards,
      List<StockPart> stock,
      PriorWeights weighing,
      List<Instrument> instruments,
      List<ReceiverShape> shapes) {
    static BookForm of(Book b) {
      return new BookForm(
          b.channels().stream().map(ChannelForm::of).toList(),
          b.cards(),
          b.stock(),
          b.priorWeights(),
          b.instruments(),
          b.shapes());
    }
  }

  /** A channel as a file of its own. */
  public static String write(Channel channel) {
    return DocumentJson.pretty(new ChannelFile(FORMAT, ChannelForm.of(channel)));
  }

  /** All channels of a book as one file. */
  public static String write(Book book) {
    return DocumentJson.pretty(new BookFile("nocking-book-1", BookForm.of(book)));
  }

  /** The bare record on one line, as the book keeps it. */
  public static String compact(Channel channel) {
    return DocumentJson.compact(ChannelForm.of(channel));
  }

  /** A sensor card on one line, as the book keeps it. */
  public static String compact(SensorCard card) {
    return DocumentJson.compact(card);
  }

  /** What a bench weighs by on one line, as the book keeps it. */
  public static String compact(PriorWeights priorWeights) {
    return DocumentJson.compact(priorWeights);
  }

  /** What a bench weighs by, as the book keeps it. */
  public static PriorWeights readWeighing(String json, String source) {
    return DocumentJson.parse(json, source, PriorWeights.class);
  }

  /** A receiver's shape on one line, as the book keeps it. */
  public static String compact(ReceiverShape shape) {
    return DocumentJson.compact(shape);
  }

  /** A receiver's shape as the book keeps it. */
  public static ReceiverShape readShape(String json, String source) {
    return DocumentJson.parse(json, source, ReceiverShape.class);
  }

  /** A sensor card as the book keeps it. */
  public static SensorCard readCard(String json, String source) {
    SensorCard card = DocumentJson.parse(json, source, SensorCard.class);
    sound(card, source);
    return card;
  }

  /**
   * @param source name of the file, for messages
   * @throws DocumentException one sentence naming the place, what was read and what was expected
   */
  public static Channel readChannel(String json, String source) {
    ChannelFile file = DocumentJson.parse(json, source, ChannelFile.class);
    DocumentJson.requireFormat(file.format, FORMAT, source);
    return sound(file.channel, source);
  }

  /** Reads either form: a channel's file gives a book of one channel. */
  public static Book readAny(String json, String source) {
    if (json.contains("\"nocking-book-1\"")) {
      BookFile file = DocumentJson.parse(json, source, BookFile.class);
      if (file.book == null) throw new DocumentException(source + " has no book in it");
      if (file.book.channels == null)
        throw new DocumentException(source + " has no channels in it");
      Book book =
          new Book(
              file.book.channels.stream().map(c -> sound(c, source)).toList(),
              file.book.cards,
              file.book.stock,
              file.book.weighing,
              file.book.instruments,
              file.book.shapes);
      book.cards().forEach(c -> sound(c, source));
      return book;
    }
    return new Book(List.of(readChannel(json, source)));
  }

  /** The bare record, as the book keeps it. */
  public static Channel readCompact(String json, String source) {
    return whole(DocumentJson.parse(json, source, ChannelForm.class), source);
  }

  private static Channel sound(ChannelForm form, String source) {
    if (form == null) throw new DocumentException(source + ": the channel is missing");
    Channel c = whole(form, source);
    try {
      c.require();
    } catch (QuantityException e) {
      throw new DocumentException("%s: %s: %s".formatted(source, c.tag(), e.getMessage()), e);
    }
    return c;
  }

  /** Refuses a channel of which a part is missing; what its numbers say is not looked at. */
  private static Channel whole(ChannelForm form, String source) {
    Completeness.missing(form)
        .ifPresent(
            m -> {
              throw new DocumentException("%s: channel.%s is missing".formatted(source, m));
            });
    return form.channel();
  }

  private static void sound(SensorCard card, String source) {
    Completeness.missing(card)
        .ifPresent(
            m -> {
              throw new DocumentException("%s: card.%s is missing".formatted(source, m));
            });
    try {
      card.sensor().require(Unit.of(card.unit()));
    } catch (QuantityException e) {
      throw new DocumentException("%s: %s: %s".formatted(source, card.name(), e.getMessage()), e);
    }
  }
}
