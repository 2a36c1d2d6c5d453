package nocking.cli;

import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import nocking.quantity.PlainText;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a command prints: an object for scripts and a text for people, made from the same numbers.
 * Numbers that do not exist (NaN) are null in JSON.
 */
final class Answer {
  private static final JsonMapper MAPPER = JsonMapper.builder().build();

  private final Map<String, Object> object = new LinkedHashMap<>();
  private final StringBuilder text = new StringBuilder();

  Answer put(String key, Object value) {
    object.put(key, value instanceof Double d ? number(d) : value);
    return this;
  }

  /** A line of the text; names in it stay on it. */
  Answer line(String format, Object... arguments) {
    Object[] plain = new Object[arguments.length];
    for (int i = 0; i < plain.length; i++) {
      boolean words = arguments[i] instanceof String || arguments[i] instanceof Path;
      plain[i] = words ? PlainText.line(arguments[i].toString()) : arguments[i];
    }
    text.append(plain.length == 0 ? format : format.formatted(plain)).append('\n');
    return this;
  }

  void print(PrintWriter out, boolean json) {
    out.print(json ? PlainText.json(MAPPER.writeValueAsString(object)) + "\n" : text);
    out.flush();
  }

  /** An object of its own, keys and values in turn. */
  static Map<String, Object> object(Object... pairs) {
    var map = new LinkedHashMap<String, Object>();
    for (int i = 0; i < pairs.length; i += 2) {
      Object value = pairs[i + 1];
      map.put((String) pairs[i], value instanceof Double d ? number(d) : value);
    }
    return map;
  }

  private static Double number(double d) {
    return Double.isFinite(d) ? d : null;
  }

  /** Columns set apart by two spaces, right-aligned but for the first. */
  Answer table(List<List<String>> cells) {
    List<List<String>> rows =
        cells.stream().map(row -> row.stream().map(PlainText::line).toList()).toList();
    int columns = rows.stream().mapToInt(List::size).max().orElse(0);
    int[] widths = new int[columns];
    for (var row : rows) {
      for (int i = 0; i < row.size(); i++) widths[i] = Math.max(widths[i], row.get(i).length());
    }
    for (var row : rows) {
      var line = new StringBuilder();
      for (int i = 0; i < row.size(); i++) {
        String pad = " ".repeat(widths[i] - row.get(i).length());
        line.append(i == 0 ? row.get(i) + pad : "  " + pad + row.get(i));
      }
      text.append(line.toString().stripTrailing()).append('\n');
    }
    return this;
  }
}
