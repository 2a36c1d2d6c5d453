package nocking.datasheet;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.datasheet.SheetLine.Reading;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;

/** Goes through the lines of a datasheet once, and keeps what each says. */
final class DatasheetReader {
  private static final Pattern CELLS = Pattern.compile("\\s*[\\t|;]\\s*|\\s{2,}");
  private static final Pattern NUMERIC =
      Pattern.compile("[-+−]?\\d+(?:\\.\\d+)?(?:[eE][-+]?\\d+)?|[-–—]|");
  private static final Pattern TYPES =
      Pattern.compile("(?i)(?:type|model|version|variant|order(?:ing)?(?: code)?|part)\\b.*");
  private static final Pattern IN_BRACKETS = Pattern.compile("[(\\[]([^()\\[\\]]+)[)\\]]\\s*$");
  private static final Pattern AT =
      Pattern.compile("(?i)\\bat\\s+(-?\\d+(?:\\.\\d+)?\\s*[%°A-Za-zµΩ]*)");
  private static final Pattern R_AT = Pattern.compile("(?i)\\bR\\s*_?\\(?(\\d+)\\)?");
  private static final Pattern PLATINUM = Pattern.compile("\\b[Pp][Tt]\\s?(100|200|500|1000)\\b");
  private static final Pattern RATIOMETRIC =
      Pattern.compile("(?i)ratiometric|proportional to (?:the )?supply");

  /** A label with a number of its own, as R25 or B25/85. */
  private static final Pattern NUMBERED_LABEL =
      Pattern.compile("(?i)^\\s*(?:R\\s*_?\\(?\\d+\\)?|B\\s*_?\\(?\\d+\\s*/\\s*\\d+\\)?)");

  private static final Pattern FIRST_NUMBER =
      Pattern.compile("(?:±|\\+/-|\\+-)?\\s*[-+−]?(?<![A-Za-z_])\\d");

  private final List<String> text;
  private final Separator separator;
  private final List<SheetLine> lines = new ArrayList<>();
  private final Map<String, Map<Fact, Said>> facts = new LinkedHashMap<>();
  private final SheetTable table = new SheetTable();
  private List<String> types = List.of();
  private Optional<Double> platinum = Optional.empty();
  private boolean share;
  private String problem = "";

  DatasheetReader(String text, Separator separator) {
    this.text = text.lines().toList();
    this.separator = separator;
  }

  Datasheet read() {
    for (int i = 0; i < text.size(); i++) {
      String s = text.get(i).strip();
      if (s.length() > Datasheet.LONGEST_LINE) tooLong(i + 1, s);
      else if (!s.isEmpty()) line(i + 1, s);
    }
    table.heads().forEach(this::headed);
    if (!problem.isEmpty()) return new Datasheet(separator, lines, List.of(), problem);
    try {
      List<SheetSensor> sensors = new SensorMaker(facts, table, platinum).sensors();
      return new Datasheet(separator, lines, sensors, "");
    } catch (QuantityException e) {
      return new Datasheet(separator, lines, List.of(), e.getMessage());
    }
  }

  private void tooLong(int number, String s) {
    String says =
        "a line of %d characters, at most %d are read"
            .formatted(s.length(), Datasheet.LONGEST_LINE);
    add(number, s.substring(0, 80) + "…", Reading.NOT_UNDERSTOOD, says);
  }

  private void headed(int line) {
    lines.replaceAll(
        l ->
            l.number() == line
                ? new SheetLine(line, l.text(), Reading.UNDERSTOOD, "head of the table")
                : l);
  }

  private void add(int number, String of, Reading reading, String says) {
    lines.add(new SheetLine(number, of, reading, says));
  }

  private void line(int number, String original) {
    String s = separator.pointed(original);
    List<String> cells = Arrays.asList(CELLS.split(s));
    List<String> numbers = Arrays.asList(s.split("[\\s\\t|;]+"));
    if (cells.isEmpty()) {
      add(number, original, Reading.NOT_NEEDED, "no words");
      return;
    }
    boolean row = cells.size() > 1 && cells.stream().allMatch(c -> NUMERIC.matcher(c).matches());
    boolean spaced =
        !row && numbers.size() > 1 && numbers.stream().allMatch(c -> NUMERIC.matcher(c).matches());
    try {
      if (row || spaced) {
        table.row(number, row ? cells : numbers);
        add(number, original, Reading.UNDERSTOOD, "row of the table");
      } else if (cells.size() > 1 && TYPES.matcher(cells.getFirst()).matches()) {
        types = List.copyOf(cells.subList(1, cells.size()));
        add(number, original, Reading.UNDERSTOOD, "types: " + String.join(", ", types));
      } else {
        says(number, original, s, cells);
      }
    } catch (QuantityException e) {
      table.head(number, cells);
      add(number, original, Reading.NOT_UNDERSTOOD, e.getMessage());
    }
  }

  private void says(int number, String original, String s, List<String> cells) {
    if (platinum(number, original, s)) return;
    int colon = s.indexOf(':');
    int cut = colon > 0 ? colon : s.indexOf('=');
    String label =
        cut > 0 ? s.substring(0, cut) : cells.size() > 1 ? cells.getFirst() : beforeNumber(s);
    Optional<Fact> fact = Fact.named(label);
    boolean digits =
        s.substring(fact.isPresent() ? label.length() : 0).chars().anyMatch(Character::isDigit);
    boolean ofSupply = RATIOMETRIC.matcher(s).find();
    if (fact.isEmpty() || !digits) {
      if (ofSupply && !digits) {
        shareOfSupply(number, original);
        return;
      }
      // A head such as "Temperature (°C)  Resistance (kΩ)" names facts too, and has no numbers.
      table.head(number, cells);
      add(
          number,
          original,
          digits ? Reading.NOT_UNDERSTOOD : Reading.NOT_NEEDED,
          digits ? "not understood" : "words only");
      return;
    }
    if (cut <= 0 && types.size() > 1 && cells.size() == types.size() + 1) {
      perType(number, original, fact.get(), label, cells, ofSupply);
      return;
    }
    String value =
        cut > 0
            ? s.substring(cut + 1)
            : cells.size() > 1
                ? String.join(" ", cells.subList(1, cells.size()))
                : s.substring(label.length());
    keep(
        number,
        original,
        fact.get(),
        List.of(""),
        List.of(said(number, fact.get(), label, value, ofSupply)));
  }

  /** A platinum resistor is known by its standard name. */
  private boolean platinum(int number, String original, String s) {
    Matcher pt = PLATINUM.matcher(s);
    if (!pt.find()) return false;
    double ohms = Double.parseDouble(pt.group(1));
    if (platinum.isPresent() && platinum.get() != ohms) {
      contradicts(number, original, "another platinum resistor is named above");
      return true;
    }
    platinum = Optional.of(ohms);
    add(
        number,
        original,
        Reading.UNDERSTOOD,
        "platinum resistor, %s Ω at 0 °C".formatted(pt.group(1)));
    return true;
  }

  /** A line that says of the output that it follows the supply. */
  private void shareOfSupply(int number, String original) {
    // What comes after it follows the supply as well.
    share = true;
    facts
        .values()
        .forEach(
            mine ->
                mine.computeIfPresent(
                    Fact.OUTPUT, (f, s) -> new Said(s.line(), s.amount(), s.at(), true)));
    add(number, original, Reading.UNDERSTOOD, "the output is a share of the supply");
  }

  /** The words before the first number that stands by itself. */
  private static String beforeNumber(String s) {
    Matcher label = NUMBERED_LABEL.matcher(s);
    int from = label.find() ? label.end() : 0;
    Matcher m = FIRST_NUMBER.matcher(s);
    return m.find(from) ? s.substring(0, m.start()) : s;
  }

  private void perType(
      int number, String original, Fact fact, String label, List<String> cells, boolean ofSupply) {
    var list = new ArrayList<Said>();
    for (String cell : cells.subList(1, cells.size())) {
      list.add(said(number, fact, label, cell, ofSupply));
    }
    keep(number, original, fact, types, list);
  }

  private Said said(int number, Fact fact, String label, String value, boolean ofSupply) {
    Matcher bracket = IN_BRACKETS.matcher(label);
    Optional<Unit> heading = bracket.find() ? heading(bracket.group(1)) : Optional.empty();
    Amount a = Amount.of(value, heading);
    if (Double.isNaN(a.low()) && fact != Fact.CLASS) {
      // A range of ± 10 bar goes both ways; ± behind nothing says nothing else.
      if (fact != Fact.RANGE && fact != Fact.OUTPUT) {
        throw new QuantityException("%s has a tolerance and no value".formatted(fact.title()));
      }
      a = a.bothWays();
    }
    Unit unit = a.unit().orElse(Unit.ONE);
    if (fact != Fact.CLASS && !fact.takes(unit.dimension())) {
      throw new QuantityException("%s cannot be %s".formatted(fact.title(), a.says()));
    }
    Matcher at = AT.matcher(label);
    Matcher r = R_AT.matcher(label);
    Optional<Amount> where =
        at.find()
            ? Optional.of(Amount.of(at.group(1), Optional.of(Unit.CELSIUS)))
            : fact == Fact.RESISTANCE && r.find()
                ? Optional.of(Amount.of(r.group(1), Optional.of(Unit.CELSIUS)))
                : Optional.empty();
    return new Said(number, a, where, ofSupply || share && fact == Fact.OUTPUT);
  }

  private static Optional<Unit> heading(String text) {
    try {
      return Amount.unit(text);
    } catch (QuantityException e) {
      // Brackets hold remarks as well as units.
      return Optional.empty();
    }
  }

  private void keep(int number, String original, Fact fact, List<String> of, List<Said> said) {
    for (int i = 0; i < of.size(); i++) {
      Map<Fact, Said> mine = facts.computeIfAbsent(of.get(i), t -> new EnumMap<>(Fact.class));
      Said before = mine.putIfAbsent(fact, said.get(i));
      boolean needed = fact != Fact.AMBIENT && fact != Fact.CLASS;
      if (before != null && needed && !before.amount().says().equals(said.get(i).amount().says())) {
        contradicts(
            number,
            original,
            "%s is %s, line %d says %s"
                .formatted(
                    fact.title(),
                    said.get(i).amount().says(),
                    before.line(),
                    before.amount().says()));
        return;
      }
    }
    var words = new ArrayList<String>();
    for (int i = 0; i < of.size(); i++) {
      words.add((of.get(i).isEmpty() ? "" : of.get(i) + " ") + said.get(i).amount().says());
    }
    String where = said.getFirst().at().map(a -> " at " + a.says()).orElse("");
    String share = said.getFirst().ofSupply() ? ", a share of the supply" : "";
    add(
        number,
        original,
        fact == Fact.AMBIENT ? Reading.NOT_NEEDED : Reading.UNDERSTOOD,
        fact.title() + where + ": " + String.join(", ", words) + share);
  }

  private void contradicts(int number, String original, String why) {
    add(number, original, Reading.CONTRADICTS, why);
    if (problem.isEmpty()) {
      problem = "line %d contradicts another: %s".formatted(number, why);
    }
  }
}
