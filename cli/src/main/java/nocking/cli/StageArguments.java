package nocking.cli;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import nocking.element.Element;
import nocking.element.Field;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.stage.Stage;

/**
 * Conditioning stages from the words of the command line: a name, then its {@code key=value} pairs,
 * then the next name. A key is a parameter's name or its symbol; ohms have to be said, everything
 * else has a usual value.
 */
final class StageArguments {
  private StageArguments() {}

  /**
   * @param words names and pairs as they were typed
   * @throws QuantityException one sentence
   */
  static List<Stage> stages(List<String> words, Unit quantity) {
    var stages = new ArrayList<Stage>();
    int i = 0;
    while (i < words.size()) {
      String name = words.get(i++);
      var pairs = new ArrayList<String>();
      while (i < words.size() && words.get(i).contains("=")) pairs.add(words.get(i++));
      stages.add(stage(name, pairs, quantity));
    }
    return List.copyOf(stages);
  }

  private static String key(Stage stage) {
    return stage.getClass().getAnnotation(JsonTypeName.class).value();
  }

  private static Stage stage(String name, List<String> pairs, Unit quantity) {
    Stage stage =
        Stage.kinds().stream()
            .filter(s -> key(s).equals(name))
            .findFirst()
            .orElseThrow(
                () ->
                    new QuantityException(
                        "'%s' is no stage; known are %s"
                            .formatted(
                                name,
                                String.join(
                                    ", ",
                                    Stage.kinds().stream().map(StageArguments::key).toList()))));
    Map<String, Field> fields = new TreeMap<>();
    for (Field f : stage.fields()) fields.put(kebab(f.name()), f);
    var said = new ArrayList<Field>();
    for (String pair : pairs) {
      int equals = pair.indexOf('=');
      String key = pair.substring(0, equals);
      String text = pair.substring(equals + 1);
      Field field = field(stage, fields, key);
      if (field == null) {
        stage = chosen(stage, fields, key, text);
        continue;
      }
      stage = Element.with(stage, field, read(name, key, field, text, quantity));
      said.add(field);
    }
    for (Map.Entry<String, Field> e : fields.entrySet()) {
      Field f = e.getValue();
      if (f.parameter().unit().equals("ohm") && !f.optional() && !said.contains(f)) {
        throw new QuantityException("%s needs %s=…".formatted(name, e.getKey()));
      }
    }
    return stage;
  }

  private static Field field(Stage stage, Map<String, Field> fields, String key) {
    Field named = fields.get(key);
    if (named != null) return named;
    return stage.fields().stream().filter(f -> f.symbol().equals(key)).findFirst().orElse(null);
  }

  private static Value read(String name, String key, Field field, String text, Unit quantity) {
    try {
      return field.read(text, quantity);
    } catch (QuantityException e) {
      throw new QuantityException("%s %s: %s".formatted(name, key, e.getMessage()));
    }
  }

  private static Stage chosen(Stage stage, Map<String, Field> fields, String key, String text) {
    for (Element.Chosen c : stage.choices()) {
      if (!kebab(c.name()).equals(key)) continue;
      Enum<?>[] values = c.value().getDeclaringClass().getEnumConstants();
      return Element.choose(stage, c.name(), Choices.read(values, key, text));
    }
    var known = new ArrayList<String>();
    fields.forEach((k, f) -> known.add("%s (%s)".formatted(k, f.symbol())));
    stage.choices().forEach(c -> known.add(kebab(c.name())));
    throw new QuantityException(
        "%s has no key '%s'; its keys are %s".formatted(key(stage), key, String.join(", ", known)));
  }

  /** {@code referenceTrack} as it is typed: {@code reference-track}. */
  private static String kebab(String name) {
    return name.replaceAll("([a-z])([A-Z])", "$1-$2").toLowerCase(Locale.ROOT);
  }
}
