package nocking.channel;

import com.fasterxml.jackson.annotation.JsonAutoDetect.Visibility;
import java.util.stream.Collectors;
import nocking.quantity.Dimension;
import nocking.quantity.Numbers;
import nocking.quantity.PlainText;
import nocking.quantity.Quantity;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Spread;
import nocking.quantity.Value;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.json.JsonFactory;
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

/** How records become JSON and come back, with a sentence for what cannot be read. */
final class DocumentJson {
  private static final JsonMapper MAPPER =
      JsonMapper.builder(
              // The second of two values would else be taken, and the first not missed.
              JsonFactory.builder().enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION).build())
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

  private DocumentJson() {}

  /** On several lines, with one at the end, and in characters that anything may show. */
  static String pretty(Object record) {
    return PlainText.json(PRETTY.writeValueAsString(record)) + "\n";
  }

  static String compact(Object record) {
    return MAPPER.writeValueAsString(record);
  }

  static void requireFormat(String format, String expected, String source) {
    if (!expected.equals(format)) {
      throw new DocumentException(
          "%s: format reads %s, expected \"%s\""
              .formatted(source, format == null ? "nothing" : "\"" + format + "\"", expected));
    }
  }

  /**
   * @param source name of the file, for messages
   * @throws DocumentException one sentence naming the place, what was read and what was expected
   */
  static <T> T parse(String json, String source, Class<T> type) {
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
