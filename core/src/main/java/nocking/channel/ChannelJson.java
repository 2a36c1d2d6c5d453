package nocking.channel;

import com.fasterxml.jackson.annotation.JsonAutoDetect.Visibility;
import java.util.List;
import java.util.stream.Collectors;
import nocking.parts.StockPart;
import nocking.prior.PriorWeights;
import nocking.quantity.Dimension;
import nocking.quantity.Numbers;
import nocking.quantity.Quantity;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Spread;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.DatabindException;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.MapperFeature;
import tools.jackson.databind.ObjectWriter;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.ValueDeserializer;
import tools.jackson.databind.ValueSerializer;
import tools.jackson.databind.cfg.EnumFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.module.SimpleModule;

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

  private static final JsonMapper MAPPER =
      JsonMapper.builder()
          .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
          .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
          .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
          .disable(MapperFeature.ALLOW_COERCION_OF_SCALARS)
          .disable(MapperFeature.SORT_PROPERTIES_ALPHABETICALLY)
          .enable(EnumFeature.WRITE_ENUMS_TO_LOWERCASE)
          // 3 would else be whatever stands fourth in the program's list.
          .enable(EnumFeature.FAIL_ON_NUMBERS_FOR_ENUMS)
          .enable(MapperFeature.ACCEPT_CASE_INSENSITIVE_ENUMS)
          // A question such as isDesign() is no part of the document.
          .changeDefaultVisibility(v -> v.withIsGetterVisibility(Visibility.NONE))
          .addModule(
              new SimpleModule("values")
                  .addSerializer(Value.class, new ValueWriter())
                  .addDeserializer(Value.class, new ValueReader()))
          .build();
  private static final ObjectWriter PRETTY =
      MAPPER.writer().with(SerializationFeature.INDENT_OUTPUT);

  private ChannelJson() {}

  private record ChannelFile(String format, ChannelForm channel) {}

  private record BookFile(String format, BookForm book) {}

  private record BookForm(
      List<ChannelForm> channels,
      List<SensorCard> cards,
      List<StockPart> stock,
      PriorWeights weighing) {
    static BookForm of(Book b) {
      return new BookForm(
          b.channels().stream().map(ChannelForm::of).toList(),
          b.cards(),
          b.stock(),
          b.priorWeights());
    }
  }

  /** A channel as a file of its own. */
  public static String write(Channel channel) {
    return PRETTY.writeValueAsString(new ChannelFile(FORMAT, ChannelForm.of(channel))) + "\n";
  }

  /** All channels of a book as one file. */
  public static String write(Book book) {
    return PRETTY.writeValueAsString(new BookFile("nocking-book-1", BookForm.of(book))) + "\n";
  }

  /** The bare record on one line, as the book keeps it. */
  public static String compact(Channel channel) {
    return MAPPER.writeValueAsString(ChannelForm.of(channel));
  }

  /** A sensor card on one line, as the book keeps it. */
  public static String compact(SensorCard card) {
    return MAPPER.writeValueAsString(card);
  }

  /** What a bench weighs by on one line, as the book keeps it. */
  public static String compact(PriorWeights priorWeights) {
    return MAPPER.writeValueAsString(priorWeights);
  }

  /** What a bench weighs by, as the book keeps it. */
  public static PriorWeights readWeighing(String json, String source) {
    return parse(json, source, PriorWeights.class);
  }

  /** A sensor card as the book keeps it. */
  public static SensorCard readCard(String json, String source) {
    SensorCard card = parse(json, source, SensorCard.class);
    sound(card, source);
    return card;
  }

  /**
   * @param source name of the file, for messages
   * @throws DocumentException one sentence naming the place, what was read and what was expected
   */
  public static Channel readChannel(String json, String source) {
    ChannelFile file = parse(json, source, ChannelFile.class);
    requireFormat(file.format, FORMAT, source);
    return sound(file.channel, source);
  }

  /** Reads either form: a channel's file gives a book of one channel. */
  public static Book readAny(String json, String source) {
    if (json.contains("\"nocking-book-1\"")) {
      BookFile file = parse(json, source, BookFile.class);
      if (file.book == null) throw new DocumentException(source + " has no book in it");
      if (file.book.channels == null)
        throw new DocumentException(source + " has no channels in it");
      Book book =
          new Book(
              file.book.channels.stream().map(c -> sound(c, source)).toList(),
              file.book.cards,
              file.book.stock,
              file.book.weighing);
      book.cards().forEach(c -> sound(c, source));
      return book;
    }
    return new Book(List.of(readChannel(json, source)));
  }

  /** The bare record, as the book keeps it. */
  public static Channel readCompact(String json, String source) {
    return whole(parse(json, source, ChannelForm.class), source);
  }

  private static void requireFormat(String format, String expected, String source) {
    if (!expected.equals(format)) {
      throw new DocumentException(
          "%s: format reads %s, expected \"%s\""
              .formatted(source, format == null ? "nothing" : "\"" + format + "\"", expected));
    }
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

  private static <T> T parse(String json, String source, Class<T> type) {
    try {
      T value = MAPPER.readValue(json, type);
      if (value == null) throw new DocumentException(source + " holds nothing but null");
      return value;
    } catch (DatabindException e) {
      throw new DocumentException(
          "%s: at %s: %s".formatted(source, place(e), JsonSentence.of(e)), e);
    } catch (JacksonException e) {
      var at = e.getLocation();
      throw new DocumentException(
          "%s: line %d, column %d is not JSON: %s"
              .formatted(
                  source,
                  at == null ? 1 : at.getLineNr(),
                  at == null ? 1 : at.getColumnNr(),
                  JsonSentence.notJson(e)),
          e);
    }
  }

  private static String place(JacksonException e) {
    String path =
        e.getPath().stream()
            .map(r -> r.getPropertyName() == null ? "[" + r.getIndex() + "]" : r.getPropertyName())
            .collect(Collectors.joining("."))
            .replace(".[", "[");
    return path.isEmpty() ? "the top" : path;
  }

  private static final class ValueWriter extends ValueSerializer<Value> {
    @Override
    public void serialize(Value v, JsonGenerator out, SerializationContext context) {
      if (v.spread() == null && v.typed().equals(Numbers.plain(v.number()))) {
        out.writeNumber(v.number());
      } else {
        out.writeStartObject();
        out.writeNumberProperty("value", v.number());
        out.writeStringProperty("typed", v.typed());
        if (v.spread() != null) out.writePOJOProperty("spread", v.spread());
        out.writeEndObject();
      }
    }
  }

  private static final class ValueReader extends ValueDeserializer<Value> {
    private record Both(Double value, String typed, Spread spread) {}

    @Override
    public Value deserialize(JsonParser in, DeserializationContext context) {
      return switch (in.currentToken()) {
        case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> Value.of(in.getDoubleValue());
        case VALUE_STRING -> fromText(in.getString());
        case START_OBJECT -> {
          Both both = context.readValue(in, Both.class);
          if (both.value == null || both.typed == null || both.typed.isBlank()) {
            throw new QuantityException("a value needs \"value\" and \"typed\"");
          }
          yield new Value(both.value, both.typed, both.spread);
        }
        default -> {
          JsonToken token = in.currentToken();
          throw new QuantityException(
              "read %s, expected a number".formatted(JsonSentence.token(token)));
        }
      };
    }

    private static Value fromText(String text) {
      Quantity q = QuantityParser.evaluate(text);
      boolean si =
          q.dimension().isNone()
              || q.dimension().equals(Dimension.VOLTAGE)
              || q.dimension().equals(Dimension.RESISTANCE)
              || q.dimension().equals(Dimension.CURRENT)
              || q.dimension().equals(Dimension.COUNT);
      if (!si || text.contains("%")) {
        throw new QuantityException(
            "'%s' has a unit; write the number in the channel's own unit".formatted(text));
      }
      return new Value(q.si(), text);
    }
  }
}
