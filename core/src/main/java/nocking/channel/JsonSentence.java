package nocking.channel;

import java.lang.reflect.RecordComponent;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.exc.InvalidFormatException;
import tools.jackson.databind.exc.InvalidTypeIdException;
import tools.jackson.databind.exc.MismatchedInputException;
import tools.jackson.databind.exc.UnrecognizedPropertyException;
import tools.jackson.databind.exc.ValueInstantiationException;

/** What is wrong with a document, in the words of whoever wrote it. */
final class JsonSentence {
  private static final Pattern READ = Pattern.compile("from (\\w+) value(?: \\((.*?)\\))?");
  private static final int MOST_NAMED = 14;

  private JsonSentence() {}

  /** What was read and what was expected at the place that the exception names. */
  static String of(JacksonException e) {
    for (Throwable t = e; t != null; t = t.getCause()) {
      if (t instanceof QuantityException) return t.getMessage();
    }
    return switch (e) {
      case UnrecognizedPropertyException u ->
          "'%s' is not known here; known are %s"
              .formatted(u.getPropertyName(), named(u.getKnownPropertyIds()));
      case InvalidTypeIdException t ->
          t.getTypeId() == null
              ? "it does not say of which kind it is"
              : "'%s' is not known to this version of Nocking".formatted(t.getTypeId());
      case InvalidFormatException f ->
          "read '%s', expected %s".formatted(f.getValue(), expected(f.getTargetType()));
      case ValueInstantiationException v -> missing(v.getType().getRawClass());
      case MismatchedInputException m when m.getOriginalMessage().startsWith("Trailing token") ->
          "something follows behind the end of it";
      case MismatchedInputException m ->
          "read %s, expected %s"
              .formatted(read(m.getOriginalMessage()), expected(m.getTargetType()));
      default -> "it cannot be read as what belongs there";
    };
  }

  /** What stops a text from being JSON at all. */
  static String notJson(JacksonException e) {
    String message = e.getOriginalMessage();
    if (message.contains("out of range")) return "the number is too large for what belongs there";
    if (message.contains("end-of-input") || message.contains("end of input")) {
      return "the text ends too early";
    }
    if (message.contains("nesting depth")) return "it is nested too deeply";
    Matcher twice = Pattern.compile("Duplicate Object property \"(.*?)\"").matcher(message);
    if (twice.find()) return "'%s' stands there twice".formatted(twice.group(1));
    Matcher m = Pattern.compile("Unexpected character \\('(.*?)'").matcher(message);
    if (m.find()) return "read '%s' where something else was expected".formatted(m.group(1));
    Matcher word = Pattern.compile("Unrecognized token '(.*?)'").matcher(message);
    if (word.find()) return "read '%s' where something else was expected".formatted(word.group(1));
    return "the text does not follow its rules";
  }

  /** A token as it is called in a sentence. */
  static String token(JsonToken token) {
    return switch (token) {
      case START_ARRAY, END_ARRAY -> "a list";
      case START_OBJECT, END_OBJECT -> "an object";
      case VALUE_TRUE, VALUE_FALSE -> "true or false";
      case VALUE_STRING -> "a text";
      case VALUE_NULL -> "nothing";
      default -> "a number";
    };
  }

  private static String read(String message) {
    if (message.contains("`null`")) return "nothing";
    Matcher m = READ.matcher(message);
    if (!m.find()) return "something else";
    String kind =
        switch (m.group(1)) {
          case "Array" -> "a list";
          case "Object" -> "an object";
          case "Boolean" -> "true or false";
          case "String" -> "a text";
          case "Number", "Integer", "Floating" -> "a number";
          default -> "something else";
        };
    boolean said = m.group(2) != null && !m.group(2).startsWith("token");
    return said ? kind + " (" + m.group(2) + ")" : kind;
  }

  private static String missing(Class<?> type) {
    String names = components(type);
    return names.isEmpty()
        ? "something in it is missing"
        : "something in it is missing; it has " + names;
  }

  private static String expected(Class<?> type) {
    if (type == null) return "something else";
    if (type == boolean.class || type == Boolean.class) return "true or false";
    if (type.isPrimitive() || Number.class.isAssignableFrom(type) || type == Value.class) {
      return "a number";
    }
    if (type == String.class) return "a text";
    if (type.isEnum()) {
      List<String> names =
          Arrays.stream(type.getEnumConstants())
              .map(c -> ((Enum<?>) c).name().toLowerCase(Locale.ROOT))
              .toList();
      return "one of " + named(names);
    }
    if (Collection.class.isAssignableFrom(type) || type.isArray()) return "a list";
    if (Map.class.isAssignableFrom(type)) return "an object";
    String names = components(type);
    return names.isEmpty() ? "an object" : "an object with " + names;
  }

  private static String components(Class<?> type) {
    return type.isRecord()
        ? named(Arrays.stream(type.getRecordComponents()).map(RecordComponent::getName).toList())
        : "";
  }

  private static String named(Collection<?> names) {
    String first =
        names.stream().limit(MOST_NAMED).map(String::valueOf).collect(Collectors.joining(", "));
    return names.size() > MOST_NAMED ? first + " …" : first;
  }
}
