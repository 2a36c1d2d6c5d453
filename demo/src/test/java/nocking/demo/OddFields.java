package nocking.demo;

import java.util.ArrayList;
import java.util.List;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The fields of a document, each of which can be made odd. */
final class OddFields {
  private OddFields() {}

  /** Paths of every field, and of a list of its first member. */
  static List<List<Object>> of(JsonNode document) {
    var paths = new ArrayList<List<Object>>();
    collect(document, List.of(), paths);
    return paths;
  }

  /** What holds the last step of a path. */
  static JsonNode parent(JsonNode root, List<Object> path) {
    JsonNode parent = root;
    for (Object step : path.subList(0, path.size() - 1)) {
      parent = step instanceof Integer i ? parent.get(i) : parent.get((String) step);
    }
    return parent;
  }

  private static void collect(JsonNode node, List<Object> path, List<List<Object>> paths) {
    if (node instanceof ObjectNode o) {
      for (String name : o.propertyNames()) below(o.get(name), path, name, paths);
    } else if (node instanceof ArrayNode a && !a.isEmpty()) {
      below(a.get(0), path, 0, paths);
    }
  }

  private static void below(
      JsonNode node, List<Object> path, Object name, List<List<Object>> paths) {
    var at = new ArrayList<>(path);
    at.add(name);
    paths.add(at);
    collect(node, at, paths);
  }
}
