package nocking.book.exchange;

import de.siegmar.fastcsv.reader.CommentStrategy;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import nocking.book.BookException;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import nocking.quantity.UnitCatalogue;

/**
 * A table of columns as text: what was recognised in it, to be shown before anything is taken.
 *
 * @param source name for messages
 * @param delimiter between cells: comma, semicolon, tab or bar
 * @param decimal point or comma
 * @param header names of the columns, made up where the text has none
 * @param named true when the text has a header row
 * @param units unit symbols of the second row, or of the names in the first; empty when there are
 *     none
 */
public record ColumnFile(
    String source,
    char delimiter,
    char decimal,
    List<String> header,
    boolean named,
    List<String> units,
    List<Row> rows) {

  /**
   * @param line in the text, from 1
   */
  public record Row(int line, List<String> cells) {}

  /** How what is no name begins. */
  private static final Pattern VALUE = Pattern.compile("[-+]?\\.?[0-9]");

  /** A cell in quotes; possessive, so that no text takes longer than its length. */
  private static final Pattern QUOTED = Pattern.compile("\"(?:[^\"]++|\"\")*+\"");

  /** Characters in which the delimiter shows. */
  private static final int BEGIN = 1 << 16;

  private static final List<Character> DELIMITERS = List.of('\t', ';', ',', '|');
  private static final Pattern POINT_NUMBER =
      Pattern.compile("[-+−]?(\\d+\\.?\\d*|\\.\\d+)([eE][-+]?\\d+)?");
  private static final Pattern COMMA_NUMBER =
      Pattern.compile("[-+−]?(\\d+,?\\d*|,\\d+)([eE][-+]?\\d+)?");

  /**
   * @throws ColumnException when the file is missing, empty or no text
   */
  public static ColumnFile read(Path path) {
    try {
      return parse(TextFile.read(path), path.getFileName().toString());
    } catch (BookException e) {
      throw new ColumnException(e.getMessage());
    }
  }

  /**
   * @throws ColumnException when there is nothing in the text
   */
  public static ColumnFile parse(String text, String source) {
    String body = text.startsWith("\uFEFF") ? text.substring(1) : text;
    if (body.indexOf('\0') >= 0) {
      throw new ColumnException(source + " is not text: expected a table of columns");
    }
    char delimiter = delimiter(body);
    List<Row> rows = new ArrayList<>(cells(body, delimiter, source));
    if (rows.isEmpty()) {
      throw new ColumnException(source + " is empty: expected a header row and rows of numbers");
    }
    char decimal = decimal(rows, delimiter);
    boolean named =
        rows.getFirst().cells.stream().noneMatch(c -> isNumber(c, decimal))
            && !values(rows.getFirst().cells);
    List<String> header;
    if (named) {
      header = rows.removeFirst().cells.stream().map(String::strip).toList();
    } else {
      header = new ArrayList<>();
      for (int i = 1; i <= rows.getFirst().cells.size(); i++) header.add("column " + i);
    }
    List<String> units = List.of();
    if (named && !rows.isEmpty() && isUnitsRow(rows.getFirst().cells, decimal)) {
      units = rows.removeFirst().cells.stream().map(HeaderUnits::bare).toList();
    }
    if (named) {
      HeaderUnits said = HeaderUnits.of(header);
      header = said.names();
      if (units.isEmpty()) units = said.units();
    }
    return new ColumnFile(
        source, delimiter, decimal, List.copyOf(header), named, units, List.copyOf(rows));
  }

  /** True for cells such as {@code 19.8k} and {@code 5 °C}, which are no names but values. */
  private static boolean values(List<String> cells) {
    return cells.stream().filter(c -> !c.isBlank()).allMatch(ColumnFile::isValue);
  }

  private static boolean isValue(String cell) {
    // Which of the two is the decimal mark says no name.
    String c = cell.strip().replace('−', '-').replace(',', '.');
    if (!VALUE.matcher(c).lookingAt()) return false;
    try {
      QuantityParser.evaluate(c);
      return true;
    } catch (QuantityException e) {
      return false;
    }
  }

  private static List<Row> cells(String body, char delimiter, String source) {
    var rows = new ArrayList<Row>();
    try (var reader =
        CsvReader.builder()
            .fieldSeparator(delimiter)
            .commentStrategy(CommentStrategy.NONE)
            .skipEmptyLines(true)
            .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
            .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
            .ofCsvRecord(body)) {
      for (var record : reader) {
        List<String> cells = record.getFields().stream().map(String::strip).toList();
        boolean blank = cells.stream().allMatch(String::isEmpty);
        if (!blank) rows.add(new Row((int) record.getStartingLineNumber(), cells));
      }
      return rows;
    } catch (CsvParseException e) {
      throw new ColumnException(source + " cannot be read as columns: " + e.getMessage());
    } catch (IOException e) {
      throw new ColumnException(source + " cannot be read: " + e.getMessage());
    }
  }

  /** The separator that stands in every line, tab before semicolon before comma. */
  private static char delimiter(String body) {
    // What stands in quotes separates nothing.
    String open = QUOTED.matcher(body.substring(0, Math.min(body.length(), BEGIN))).replaceAll("x");
    List<String> lines = open.lines().filter(l -> !l.isBlank()).limit(50).toList();
    for (char d : DELIMITERS) {
      if (!lines.isEmpty() && lines.stream().allMatch(l -> l.indexOf(d) >= 0)) return d;
    }
    char best = ',';
    long most = 0;
    for (char d : DELIMITERS) {
      long n = lines.stream().filter(l -> l.indexOf(d) >= 0).count();
      if (n > most) {
        most = n;
        best = d;
      }
    }
    return best;
  }

  private static char decimal(List<Row> rows, char delimiter) {
    if (delimiter == ',') return '.';
    long commas = 0;
    long points = 0;
    for (Row row : rows) {
      for (String cell : row.cells) {
        if (cell.indexOf(',') >= 0 && COMMA_NUMBER.matcher(cell).matches()) commas++;
        if (cell.indexOf('.') >= 0 && POINT_NUMBER.matcher(cell).matches()) points++;
      }
    }
    return commas > points ? ',' : '.';
  }

  private static boolean isNumber(String cell, char decimal) {
    return (decimal == ',' ? COMMA_NUMBER : POINT_NUMBER).matcher(cell).matches();
  }

  private static boolean isUnitsRow(List<String> cells, char decimal) {
    boolean any = false;
    for (String cell : cells) {
      if (cell.isBlank()) continue;
      if (isNumber(cell, decimal)) return false;
      try {
        UnitCatalogue.parse(HeaderUnits.bare(cell));
        any = true;
      } catch (QuantityException e) {
        return false;
      }
    }
    return any;
  }

  /** Unit of a column, where the file states it. */
  public Optional<Unit> unit(int column) {
    if (column >= units.size() || units.get(column).isBlank()) return Optional.empty();
    return Optional.of(UnitCatalogue.parse(units.get(column)));
  }

  /**
   * Index of a column by its name or by its number from 1.
   *
   * @throws ColumnException naming the columns that there are
   */
  public int column(String name) {
    String bare = HeaderUnits.of(List.of(name.strip())).names().getFirst();
    for (String asked : List.of(name.strip(), bare)) {
      for (int i = 0; i < header.size(); i++) {
        if (header.get(i).equalsIgnoreCase(asked)) return i;
      }
    }
    if (name.matches("\\d{1,3}")) {
      int number = Integer.parseInt(name);
      if (number >= 1 && number <= header.size()) return number - 1;
    }
    throw new ColumnException(
        "%s has no column '%s'; it has %s".formatted(source, name, String.join(", ", header)));
  }

  /** The same columns with other rows. */
  ColumnFile withRows(List<Row> v) {
    return new ColumnFile(source, delimiter, decimal, header, named, units, v);
  }

  /** Text of a cell; empty where the row is too short. */
  public String text(Row row, int column) {
    return column < row.cells.size() ? row.cells.get(column) : "";
  }

  /**
   * All numbers of a column.
   *
   * @throws ColumnException naming file, row and column, what was read and what was expected
   */
  public double[] numbers(int column) {
    double[] values = new double[rows.size()];
    for (int i = 0; i < values.length; i++) values[i] = number(rows.get(i), column);
    return values;
  }

  /**
   * @throws ColumnException naming file, row and column, what was read and what was expected
   */
  public double number(Row row, int column) {
    if (column >= row.cells.size()) {
      throw new ColumnException(
          "%s, row %d: has %d cell%s, expected %d"
              .formatted(
                  source,
                  row.line,
                  row.cells.size(),
                  row.cells.size() == 1 ? "" : "s",
                  header.size()));
    }
    String cell = row.cells.get(column);
    if (!isNumber(cell, decimal)) {
      throw new ColumnException(
          "%s, row %d, column %s: read '%s', expected a number%s"
              .formatted(
                  source,
                  row.line,
                  header.get(column),
                  cell,
                  decimal == ',' ? " with a decimal comma" : ""));
    }
    double value = Double.parseDouble(pointed(cell));
    if (!Double.isFinite(value)) {
      throw new ColumnException(
          "%s, row %d, column %s: '%s' is too large"
              .formatted(source, row.line, header.get(column), cell));
    }
    return value;
  }

  /**
   * The line at which its numbers begin: the first of all, or that of the first row behind names
   * and units. A row stands so many lines below it as rows, and gaps, are between.
   */
  public int firstLine() {
    return named && !rows.isEmpty() ? rows.getFirst().line : 1;
  }

  /** A number's text with a decimal point, as a number field takes it. */
  public String pointed(String cell) {
    String s = cell.replace('−', '-');
    return decimal == ',' ? s.replace(',', '.') : s;
  }

  /** What was recognised, in words: delimiter, decimal mark, header, units. */
  public String says() {
    String between =
        switch (delimiter) {
          case '\t' -> "tabs";
          case ';' -> "semicolons";
          case ',' -> "commas";
          default -> "bars";
        };
    return "%d rows of %d columns between %s, decimal %s, %s, %s"
        .formatted(
            rows.size(),
            header.size(),
            between,
            decimal == ',' ? "comma" : "point",
            named ? "with a header" : "no header",
            units.isEmpty() ? "no units" : "units " + String.join(", ", units));
  }
}
