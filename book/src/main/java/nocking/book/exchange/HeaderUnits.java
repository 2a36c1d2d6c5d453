package nocking.book.exchange;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.quantity.QuantityException;
import nocking.quantity.UnitCatalogue;

/**
 * Units that stand in the names of columns: {@code p [kPa]}, {@code U (mV)}, {@code p/kPa} (the way
 * of ISO 80000-1, 7.1.4), or names that are nothing but units.
 *
 * @param names without their units
 * @param units as they are written; empty for a column that states none
 */
record HeaderUnits(List<String> names, List<String> units) {
  private static final Pattern BRACKETS =
      Pattern.compile("(.*?[^\\s/])\\s*/?\\s*(?:\\[([^\\[\\]()]+)\\]|\\(([^\\[\\]()]+)\\))");
  private static final Pattern SLASH = Pattern.compile("([^/]*[^/\\s])\\s*/\\s*(\\S.*)");
  private static final Pattern IN = Pattern.compile("(.*\\S)\\s+in\\s+(\\S+)");

  static HeaderUnits of(List<String> header) {
    if (nothingElse(header)) {
      return new HeaderUnits(header, header.stream().map(HeaderUnits::bare).toList());
    }
    var names = new ArrayList<String>();
    var units = new ArrayList<String>();
    for (String cell : header) {
      Optional<String[]> parted = parted(cell);
      names.add(parted.map(p -> p[0]).orElse(cell));
      units.add(parted.map(p -> p[1]).orElse(""));
    }
    boolean none = units.stream().allMatch(String::isEmpty);
    return new HeaderUnits(List.copyOf(names), none ? List.of() : List.copyOf(units));
  }

  private static Optional<String[]> parted(String cell) {
    Matcher b = BRACKETS.matcher(cell);
    if (b.matches()) {
      String unit = b.group(2) != null ? b.group(2) : b.group(3);
      if (known(unit)) return Optional.of(new String[] {b.group(1), unit.strip()});
    }
    for (Pattern p : List.of(SLASH, IN)) {
      Matcher m = p.matcher(cell);
      // What is a quotient of units as a whole, mg/L, is a name of nothing.
      if (m.matches() && known(m.group(2)) && !known(cell)) {
        return Optional.of(new String[] {m.group(1), m.group(2).strip()});
      }
    }
    return Optional.empty();
  }

  /** True where each name is a unit; single letters alone may as well be symbols. */
  private static boolean nothingElse(List<String> header) {
    List<String> said = header.stream().map(HeaderUnits::bare).filter(c -> !c.isEmpty()).toList();
    return said.size() > 1
        && said.stream().allMatch(HeaderUnits::known)
        && said.stream().anyMatch(c -> c.length() > 1);
  }

  /** Unit without the brackets that some programs put around it. */
  static String bare(String unit) {
    return unit.strip().replaceAll("^[\\[(]|[\\])]$", "");
  }

  private static boolean known(String unit) {
    String u = unit.strip();
    if (u.isEmpty() || u.equals("1")) return false;
    try {
      UnitCatalogue.parse(u);
      return true;
    } catch (QuantityException e) {
      return false;
    }
  }
}
