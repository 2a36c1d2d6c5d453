package nocking.path;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import nocking.algebra.Expr;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Symbols;

/**
 * Names along one path. An element's own symbols are kept where they are free. A numbered symbol
 * takes the next free number (a second divider has R3 and R4), any other gets one (Rf, Rf2).
 */
final class SymbolTable {
  private final Map<String, Double> values = new LinkedHashMap<>();
  private final Map<String, ParameterRef> owners = new LinkedHashMap<>();
  private final List<String> reserved = new ArrayList<>();

  SymbolTable(List<String> reserved) {
    this.reserved.addAll(reserved);
  }

  /** Registers an element's parameters and returns its names. */
  Symbols add(Element element, int position) {
    var names = new HashMap<String, String>();
    for (Field field : element.fields()) {
      if (element.value(field) == null) continue;
      String name = free(field.symbol());
      names.put(field.symbol(), name);
      values.put(name, element.value(field).number());
      owners.put(name, new ParameterRef(position, field));
    }
    return symbol -> {
      String name = names.get(symbol);
      if (name == null) throw new IllegalStateException(element.title() + " has no " + symbol);
      return Expr.sym(name);
    };
  }

  private String free(String symbol) {
    String stem = symbol.replaceAll("[0-9]+$", "");
    boolean numbered = !stem.equals(symbol) && !symbol.endsWith("0");
    String name = symbol;
    for (int i = numbered ? 1 : 2; taken(name); i++) name = stem + i;
    return name;
  }

  /** A spreadsheet takes two names that differ only in case for one. */
  private boolean taken(String name) {
    return Stream.concat(values.keySet().stream(), reserved.stream())
        .anyMatch(name::equalsIgnoreCase);
  }

  Map<String, Double> values() {
    return values;
  }

  Map<String, ParameterRef> owners() {
    return owners;
  }
}
