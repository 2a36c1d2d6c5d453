package nocking.channel;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import nocking.converter.Converter;
import nocking.element.Parameter;
import nocking.quantity.Value;
import nocking.sensor.Sensor;
import nocking.stage.Stage;

/**
 * The schema's definitions of sensors, stages and converter as they follow from the records, so
 * that a new model cannot be forgotten in {@code channel.schema.json}.
 */
final class ElementSchema {
  private ElementSchema() {}

  static Object sensors() {
    return oneOf(Sensor.models().stream().map(s -> (Record) s).toList(), "model", true);
  }

  static Object stages() {
    return Map.of(
        "type",
        "array",
        "items",
        oneOf(Stage.kinds().stream().map(s -> (Record) s).toList(), "stage", false));
  }

  static Object converter() {
    return object(Converter.class, Map.of());
  }

  private static Object oneOf(List<Record> examples, String key, boolean nullable) {
    var list = new ArrayList<Object>();
    if (nullable) list.add(Map.of("type", "null"));
    for (Record e : examples) {
      String name = e.getClass().getAnnotation(JsonTypeName.class).value();
      list.add(object(e.getClass(), Map.of(key, Map.of("const", name))));
    }
    return Map.of("oneOf", list);
  }

  private static Map<String, Object> object(Class<?> type, Map<String, Object> fixed) {
    var properties = new LinkedHashMap<String, Object>(fixed);
    var required = new ArrayList<String>(fixed.keySet());
    for (RecordComponent c : type.getRecordComponents()) {
      Parameter p = c.getAnnotation(Parameter.class);
      boolean optional = p != null && !p.whenEmpty().isEmpty();
      Object of = of(c.getGenericType());
      properties.put(
          c.getName(), optional ? Map.of("oneOf", List.of(of, Map.of("type", "null"))) : of);
      if (!optional) required.add(c.getName());
    }
    var object = new LinkedHashMap<String, Object>();
    object.put("type", "object");
    object.put("properties", properties);
    object.put("required", required);
    object.put("additionalProperties", false);
    return object;
  }

  private static Object of(Type type) {
    if (type == Value.class) return Map.of("$ref", "#/$defs/value");
    if (type == String.class) return Map.of("type", "string");
    if (type instanceof ParameterizedType p) {
      return Map.of(
          "type", "array", "items", object((Class<?>) p.getActualTypeArguments()[0], Map.of()));
    }
    var c = (Class<?>) type;
    return Map.of(
        "enum",
        Arrays.stream(c.getEnumConstants())
            .map(v -> ((Enum<?>) v).name().toLowerCase(Locale.ROOT))
            .toList());
  }
}
