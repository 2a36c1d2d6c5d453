package nocking.book.exchange;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.IntPredicate;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import nocking.quantity.Dimension;
import nocking.quantity.Unit;

/**
 * Which column of a file of points holds what: by their names, then by their units, and only then
 * by their order.
 *
 * @param file with all of its rows
 * @param applied index of the quantity that was applied, or that a raw value stands for
 * @param readings indices of the raw readings
 * @param direction index, or −1
 * @param leftOut index of the reason why a point does not count, or −1
 * @param uncertainty index of a standard uncertainty, or −1
 */
public record PointColumns(
    ColumnFile file,
    int applied,
    List<Integer> readings,
    int direction,
    int leftOut,
    int uncertainty) {

  /** What stands first where neither names nor units tell. */
  public enum Order {
    APPLIED_FIRST,
    RAW_FIRST
  }

  private static final Set<String> APPLIED =
      Set.of("applied", "reference", "set", "set point", "setpoint", "true", "truth", "quantity");

  /** A reading, with or without its number: {@code reading 1}, {@code raw}, {@code adc}. */
  private static final Pattern READING =
      Pattern.compile(
          "(reading|raw|measured|display|shown|code|counts?|adc|volts?|signal|meter)( ?\\d+)?");

  private static final Set<String> DIRECTION = Set.of("direction", "dir");
  private static final Set<String> LEFT_OUT = Set.of("left out", "excluded");
  private static final Set<String> UNCERTAINTY = Set.of("u", "sigma", "uncertainty");

  /** What a meter reads at a converter. */
  private static final Set<Dimension> ELECTRICAL =
      Set.of(
          Unit.VOLT.dimension(),
          Unit.COUNTS.dimension(),
          Unit.OHM.dimension(),
          Unit.AMPERE.dimension());

  public PointColumns {
    readings = List.copyOf(readings);
  }

  /**
   * @throws ColumnException where there are fewer than two columns, or no rows
   */
  public static PointColumns of(ColumnFile file, Order usual) {
    if (file.rows().isEmpty()) {
      throw new ColumnException(file.source() + " has no rows of numbers under its header");
    }
    int direction = named(file, DIRECTION);
    int leftOut = named(file, LEFT_OUT);
    int besides = (direction < 0 ? 0 : 1) + (leftOut < 0 ? 0 : 1);
    // Of two columns one is what was read, whatever it is called.
    int uncertainty = file.header().size() - besides < 3 ? -1 : uncertainty(file);
    List<Integer> open =
        IntStream.range(0, file.header().size())
            .filter(i -> i != direction && i != leftOut && i != uncertainty)
            .boxed()
            .toList();
    if (open.size() < 2) {
      throw new ColumnException(
          file.source() + " has one column, expected two: what was applied and what was read");
    }
    int applied = applied(file, open, usual);
    List<Integer> others = open.stream().filter(i -> i != applied).toList();
    List<Integer> called = others.stream().filter(i -> reading(file, i)).toList();
    return new PointColumns(
        file, applied, called.isEmpty() ? others : called, direction, leftOut, uncertainty);
  }

  private static int applied(ColumnFile file, List<Integer> open, Order usual) {
    List<Integer> called = open.stream().filter(i -> is(file, i, APPLIED)).toList();
    if (!called.isEmpty()) return called.getFirst();
    List<Integer> notRead = open.stream().filter(i -> !reading(file, i)).toList();
    // One that is called a reading leaves the other one.
    if (notRead.size() < open.size() && !notRead.isEmpty()) return notRead.getFirst();
    IntPredicate raw = i -> file.unit(i).map(u -> ELECTRICAL.contains(u.dimension())).orElse(false);
    IntPredicate other =
        i -> file.unit(i).map(u -> !ELECTRICAL.contains(u.dimension())).orElse(false);
    List<Integer> byUnit = open.stream().filter(other::test).toList();
    if (byUnit.size() == 1 && open.stream().anyMatch(raw::test)) return byUnit.getFirst();
    return open.get(usual == Order.APPLIED_FIRST ? 0 : 1);
  }

  private static boolean is(ColumnFile file, int column, Set<String> names) {
    return names.contains(file.header().get(column).toLowerCase(Locale.ROOT));
  }

  private static boolean reading(ColumnFile file, int column) {
    return READING.matcher(file.header().get(column).toLowerCase(Locale.ROOT)).matches();
  }

  private static int named(ColumnFile file, Set<String> names) {
    return IntStream.range(0, file.header().size())
        .filter(i -> is(file, i, names))
        .findFirst()
        .orElse(-1);
  }

  /** A capital U is a voltage. */
  private static int uncertainty(ColumnFile file) {
    return IntStream.range(0, file.header().size())
        .filter(i -> UNCERTAINTY.contains(file.header().get(i)))
        .findFirst()
        .orElse(-1);
  }

  /**
   * Without the rows that do not count: those that are left out with a reason, and those that are
   * only planned.
   *
   * @throws ColumnException where no row is left
   */
  public PointColumns counting() {
    List<ColumnFile.Row> rows =
        file.rows().stream().filter(r -> reason(r).isBlank() && !planned(r)).toList();
    if (rows.isEmpty()) throw new ColumnException(file.source() + " has no row that counts");
    return new PointColumns(
        file.withRows(rows), applied, readings, direction, leftOut, uncertainty);
  }

  /** What does not count, a sentence for each row. */
  public List<String> notCounting() {
    var list = new ArrayList<String>();
    for (ColumnFile.Row r : file.rows()) {
      if (!reason(r).isBlank()) {
        list.add("row %d is left out: %s".formatted(r.line(), reason(r)));
      } else if (planned(r)) {
        list.add("row %d has no reading".formatted(r.line()));
      }
    }
    return list;
  }

  /** Why a row does not count; empty where it does. */
  public String reason(ColumnFile.Row r) {
    return leftOut < 0 ? "" : SafeText.in(file.text(r, leftOut));
  }

  /** True for a row that was approached from above. */
  public boolean down(ColumnFile.Row r) {
    return direction >= 0 && file.text(r, direction).toLowerCase(Locale.ROOT).startsWith("d");
  }

  /** In a file that has a direction or several readings, a row may have none of them yet. */
  private boolean planned(ColumnFile.Row r) {
    boolean may = direction >= 0 || leftOut >= 0;
    return may && readings.stream().allMatch(i -> file.text(r, i).isBlank());
  }

  /**
   * Mean of the readings of each row; an empty cell is none.
   *
   * @throws ColumnException where readings have different units, or a row has none
   */
  public double[] means() {
    List<String> units =
        readings.stream()
            .map(i -> file.unit(i).map(Unit::symbol).orElse(""))
            .distinct()
            .sorted()
            .toList();
    if (units.size() > 1) {
      throw new ColumnException(
          "%s: the columns beside '%s' have different units (%s); say which is the raw value with --x"
              .formatted(file.source(), file.header().get(applied), String.join(", ", units)));
    }
    return file.rows().stream()
        .mapToDouble(
            r ->
                values(r).stream()
                    .mapToDouble(d -> d)
                    .average()
                    .orElseGet(() -> file.number(r, readings.getFirst())))
        .toArray();
  }

  /** The readings of a row; an empty cell is none where there are several. */
  public List<Double> values(ColumnFile.Row row) {
    var list = new ArrayList<Double>();
    for (int c : readings) {
      boolean gap = readings.size() > 1 && file.text(row, c).isBlank() && c < row.cells().size();
      boolean shorter = readings.size() > 1 && c >= row.cells().size() && c != readings.getFirst();
      if (!gap && !shorter) list.add(file.number(row, c));
    }
    return list;
  }

  /** Names of the columns that are neither of these, and that nobody looks at. */
  public List<String> unused() {
    return IntStream.range(0, file.header().size())
        .filter(i -> i != applied && !readings.contains(i))
        .filter(i -> i != direction && i != leftOut && i != uncertainty)
        .mapToObj(i -> file.header().get(i))
        .toList();
  }
}
