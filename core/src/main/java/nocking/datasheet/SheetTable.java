package nocking.datasheet;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.quantity.Dimension;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.UnitCatalogue;

/** The table of a datasheet: one quantity, and an output for each type. */
final class SheetTable {
  private static final Pattern BRACKETS = Pattern.compile("[(\\[]\\s*([^()\\[\\]]+?)\\s*[)\\]]");

  /**
   * A row.
   *
   * @param values NaN where the cell is empty
   */
  record Row(int line, double[] values) {}

  /**
   * A column.
   *
   * @param title its words without the unit
   */
  record Head(String title, Optional<Unit> unit) {
    boolean electrical() {
      return unit.map(
              u ->
                  u.dimension().equals(Dimension.RESISTANCE)
                      || u.dimension().equals(Dimension.VOLTAGE)
                      || u.dimension().equals(Dimension.CURRENT))
          .orElse(false);
    }

    boolean limit() {
      return title.toLowerCase(Locale.ROOT).matches(".*(?:min|max)\\b.*");
    }

    boolean quantity() {
      return unit.isPresent() && !electrical() && !unit.get().equals(Unit.PERCENT);
    }
  }

  private record HeadLine(int line, List<String> cells) {}

  private final List<Row> rows = new ArrayList<>();
  private final List<HeadLine> pending = new ArrayList<>();
  private final List<Integer> used = new ArrayList<>();
  private List<Head> heads = List.of();

  /** A line that may be the head of a table that follows. */
  void head(int line, List<String> cells) {
    if (!rows.isEmpty()) return;
    pending.add(new HeadLine(line, cells));
  }

  /**
   * @throws QuantityException where the row has another number of cells than those before
   */
  void row(int line, List<String> cells) {
    if (rows.isEmpty()) begin(cells.size());
    if (!rows.isEmpty() && cells.size() != rows.getFirst().values.length) {
      throw new QuantityException(
          "a row of %d cells, the table has %d columns"
              .formatted(cells.size(), rows.getFirst().values.length));
    }
    double[] v = new double[cells.size()];
    for (int i = 0; i < v.length; i++) {
      String c = cells.get(i).replace('−', '-');
      v[i] = c.matches(".*\\d.*") ? Double.parseDouble(c) : Double.NaN;
    }
    rows.add(new Row(line, v));
  }

  /** The lines just before the rows that have as many cells, names and units. */
  private void begin(int columns) {
    var titles = new String[columns];
    var units = new ArrayList<Optional<Unit>>();
    for (int i = 0; i < columns; i++) {
      titles[i] = "";
      units.add(Optional.empty());
    }
    for (HeadLine h : head(columns)) {
      List<String> cells = cells(h.cells, columns);
      if (cells.size() != columns) continue;
      used.add(h.line);
      for (int i = 0; i < columns; i++) {
        Optional<Unit> unit = unit(cells.get(i));
        if (unit.isPresent()) units.set(i, unit);
        String words = bare(cells.get(i), unit.isPresent());
        if (!words.isEmpty()) titles[i] = (titles[i] + " " + words).strip();
      }
    }
    var list = new ArrayList<Head>();
    for (int i = 0; i < columns; i++) list.add(new Head(titles[i], units.get(i)));
    heads = list;
  }

  /** The last line before the rows; the one before that too where the last has units alone. */
  private List<HeadLine> head(int columns) {
    if (pending.isEmpty()) return List.of();
    HeadLine last = pending.getLast();
    List<String> cells = cells(last.cells, columns);
    boolean units = cells.stream().allMatch(c -> bare(c, unit(c).isPresent()).isEmpty());
    int from = units && pending.size() > 1 ? pending.size() - 2 : pending.size() - 1;
    return pending.subList(from, pending.size());
  }

  /** A head whose cells stand one space apart. */
  private static List<String> cells(List<String> read, int columns) {
    if (read.size() == columns || read.size() != 1) return read;
    return List.of(read.getFirst().strip().split("\\s+"));
  }

  private static Optional<Unit> unit(String cell) {
    Matcher m = BRACKETS.matcher(cell);
    if (m.find()) {
      Optional<Unit> in = known(m.group(1));
      if (in.isPresent()) return in;
    }
    String[] words = cell.strip().split("[\\s,]+|(?<=[A-Za-z])/(?=[°kKMmΩµ%])");
    return known(words[words.length - 1]);
  }

  /** A single letter in a head names the quantity and not its unit: T is no tonne. */
  private static Optional<Unit> known(String word) {
    if (word.matches("[TtRKhsgFACL]")) return Optional.empty();
    return UnitCatalogue.find(word);
  }

  private static String bare(String cell, boolean unit) {
    String s = BRACKETS.matcher(cell).replaceAll("").strip();
    if (!unit || !s.equals(cell.strip())) return s;
    return s.replaceFirst("(?:^|[\\s,/]+)[^\\s,/]+$", "").strip();
  }

  /** Lines that are part of its head. */
  List<Integer> heads() {
    return used;
  }

  boolean isEmpty() {
    return rows.size() < 2;
  }

  List<Head> columns() {
    return heads;
  }

  List<Row> rows() {
    return rows;
  }
}
