package nocking.app.step.collect;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.app.control.Column;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.bench.instrument.Connection;
import nocking.bench.instrument.InstrumentException;
import nocking.bench.instrument.Reference;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Corrections;
import nocking.run.Instrument;
import nocking.run.Instrument.Language;

/**
 * The instruments of the bench, kept in the book; each can be asked who it is and what it reads.
 */
final class InstrumentsPanel {
  /** Where the table is narrower, what is sent is left out. */
  private static final double WIDE = 700;

  private final Desk desk;
  private final Grid grid;
  private final Button add = new Button("Add an instrument");
  private final Button connect = new Button("Connect");
  private final Button remove = new Button("Remove row");
  private final Map<Instrument, String> answers = new HashMap<>();
  private final HBox root;
  private final EntryField range;
  private final EntryField accuracy;
  private final EntryField due;
  private final EntryField corrections;
  private final EntryField pattern;

  InstrumentsPanel(Desk desk, Region looks) {
    this.desk = desk;
    grid =
        BlockPaste.into(
            new Grid(
                    "instruments",
                    "No instruments yet. Add the meter and the reference that stand on the bench.",
                    List.of(
                        text("name", 100, Instrument::name, Instrument::withName),
                        text("speaks", 96, i -> i.language().title(), InstrumentsPanel::speaks),
                        text("address", 116, Instrument::address, Instrument::withAddress),
                        text("channel", 66, Instrument::channel, this::channel).keepingItsWidth(),
                        text("at", 60, Instrument::place, Instrument::withPlace),
                        text("asked with", 82, Instrument::ask, Instrument::withAsk)
                            .fromWidth(WIDE),
                        text("set with", 70, Instrument::set, Instrument::withSet).fromWidth(WIDE),
                        text("unit", 42, Instrument::unit, InstrumentsPanel::unit)
                            .keepingItsWidth(),
                        Column.shown("answers", 140, false, this::answer)),
                    i -> false)
                .onDelete(this::remove),
            desk);
    VBox.setVgrow(grid, Priority.ALWAYS);
    add.setId("instrument-add");
    add.getStyleClass().add("primary");
    add.setOnAction(e -> add());
    connect.setId("instrument-connect");
    connect.setOnAction(e -> connect());
    remove.setId("instrument-remove");
    remove.setOnAction(e -> remove(grid.selectedRow()));
    grid.table().getSelectionModel().selectedIndexProperty().addListener(o -> actions());
    range = detail("instrument-range", "Range", InstrumentsPanel::range).prompt("0…10");
    accuracy = detail("instrument-accuracy", "Accuracy", InstrumentsPanel::accuracy);
    due = detail("instrument-due", "Due", InstrumentsPanel::due).prompt("2027-03-01");
    pattern =
        detail("instrument-pattern", "Number in its line", InstrumentsPanel::pattern)
            .prompt("the first")
            .help("For a line of several fields: a pattern whose first group is the number.");
    corrections =
        detail("instrument-corrections", "Shown = true", InstrumentsPanel::corrections)
            .prompt("0.02=0; 25.05=25")
            .help(
                "Its certificate: what it shows and what is true then, a pair for each row. It is"
                    + " read straight between them.");
    corrections.field().setPrefColumnCount(16);
    var details = new FlowPane(14, 6, range, accuracy, due, corrections, pattern);
    var foot = new FlowPane(8, 6, add, connect, remove);
    var paper =
        new Paper(
            "",
            grid,
            Paper.caption(
                "Speaks: SCPI over TCP or a serial line, lines over TCP, serial line, Modbus TCP,"
                    + " Modbus RTU or typed by hand. An address is HOST:PORT or DEVICE@BAUD, for Modbus with /UNIT behind it;"
                    + " registers are asked with input 0 float or holding 16 int16 /10. %s in what sets a"
                    + " reference stands for the set point. A channel and a place (TP2; empty for the"
                    + " signal at the receiver, for ohms the sensor alone, for a current the loop) say"
                    + " what it reads live. Shown = true is its certificate: 25.05=25."),
            details,
            foot);
    paper.head(looks);
    HBox.setHgrow(paper, Priority.ALWAYS);
    root = new HBox(paper);
  }

  private List<Instrument> all() {
    return desk.book().instruments();
  }

  private Column text(
      String title,
      double width,
      Function<Instrument, String> shown,
      BiFunction<Instrument, String, Instrument> with) {
    return Column.typed(
        title,
        width,
        false,
        i -> shown.apply(all().get(i)),
        (i, t) -> replace(i, with.apply(all().get(i), t.strip())));
  }

  private static Instrument speaks(Instrument i, String t) {
    for (Language l : Language.values()) {
      boolean same =
          l.title().equalsIgnoreCase(t)
              || l.title().toLowerCase(Locale.ROOT).startsWith(t.toLowerCase(Locale.ROOT));
      if (same && !t.isEmpty()) return i.withLanguage(l);
    }
    throw new QuantityException(
        "read '%s', expected one of %s"
            .formatted(
                t,
                Arrays.stream(Language.values())
                    .map(Language::title)
                    .collect(Collectors.joining(", "))));
  }

  private static Instrument unit(Instrument i, String t) {
    boolean other = !Unit.of(t).symbol().equals(i.unit());
    if (other && i.corrections() != null) {
      throw new QuantityException(
          "the certificate is in %s; take it out before another unit is said".formatted(i.unit()));
    }
    return i.withUnit(t);
  }

  /** The tag as the book has it; nothing for an instrument that goes from channel to channel. */
  private Instrument channel(Instrument i, String t) {
    if (t.isEmpty()) return i.withChannel("");
    return desk.book().channels().stream()
        .filter(c -> c.tag().equalsIgnoreCase(t))
        .findFirst()
        .map(c -> i.withChannel(c.tag()))
        .orElseThrow(() -> new QuantityException("no channel of this book is called " + t));
  }

  private EntryField detail(
      String id, String title, BiFunction<Instrument, String, Instrument> with) {
    var field =
        new EntryField(
                id,
                title,
                false,
                t -> {
                  int row = grid.selectedRow();
                  if (row >= 0 && row < all().size()) {
                    replace(row, with.apply(all().get(row), t.strip()));
                  }
                },
                () -> {})
            .whenDone();
    field.field().setPrefColumnCount(8);
    return field;
  }

  /** What the fields below say of the chosen instrument. */
  private void showDetails() {
    int row = grid.selectedRow();
    boolean there = row >= 0 && row < all().size();
    Instrument i = there ? all().get(row) : null;
    range.show(there ? range(i) : "", there ? i.unit() : "");
    accuracy.show(there ? accuracy(i) : "", there ? i.unit() : "");
    due.show(there ? i.due() : "", "");
    corrections.show(there ? corrections(i) : "", there ? i.unit() : "");
    pattern.show(there ? i.pattern() : "", "");
    for (EntryField f : List.of(range, accuracy, due, corrections, pattern)) {
      f.setDisable(!there || !desk.writable());
    }
  }

  /** A pattern has to be one, and to have a group for the number. */
  private static Instrument pattern(Instrument i, String t) {
    try {
      if (!t.isEmpty() && Pattern.compile(t).matcher("").groupCount() < 1) {
        throw new QuantityException(
            "read '%s', expected a pattern with a group, such as T=(.*)".formatted(t));
      }
    } catch (PatternSyntaxException e) {
      throw new QuantityException("read '%s', which is no pattern".formatted(t));
    }
    return i.withPattern(t);
  }

  private static String range(Instrument i) {
    if (i.low() == null && i.high() == null) return "";
    return (i.low() == null ? "" : i.low().typed())
        + "…"
        + (i.high() == null ? "" : i.high().typed());
  }

  private static Instrument range(Instrument i, String t) {
    if (t.isEmpty()) return i.withRange(null, null);
    String[] ends = t.split("\\.{2,3}|…", -1);
    if (ends.length != 2) {
      throw new QuantityException("read '%s', expected a range such as 0…10".formatted(t));
    }
    return i.withRange(end(ends[0], i), end(ends[1], i));
  }

  private static Value end(String t, Instrument i) {
    return t.isBlank() ? null : Value.typed(t.strip(), Unit.of(i.unit()));
  }

  private static String accuracy(Instrument i) {
    return i.accuracy() == null ? "" : i.accuracy().typed();
  }

  private static Instrument accuracy(Instrument i, String t) {
    return i.withAccuracy(t.isEmpty() ? null : Value.typed(t, Unit.of(i.unit())));
  }

  private static String corrections(Instrument i) {
    return i.corrections() == null ? "" : i.corrections().typed();
  }

  private static Instrument corrections(Instrument i, String t) {
    return i.withCorrections(Corrections.parse(t, Unit.of(i.unit())));
  }

  private static Instrument due(Instrument i, String t) {
    if (!t.isEmpty() && !t.matches("\\d{4}-\\d\\d-\\d\\d")) {
      throw new QuantityException("read '%s', expected a date such as 2027-03-01".formatted(t));
    }
    return i.withDue(t);
  }

  private String answer(int i) {
    Instrument k = all().get(i);
    return answers.getOrDefault(k, k.identity());
  }

  private void replace(int row, Instrument now) {
    for (int i = 0; i < all().size(); i++) {
      if (i != row && all().get(i).name().equals(now.name())) {
        throw new QuantityException("there is a %s already".formatted(now.name()));
      }
    }
    desk.editBook(
        "change instrument " + now.name(),
        "",
        b -> {
          var next = new ArrayList<>(b.instruments());
          next.set(row, now);
          return b.withInstruments(next);
        });
  }

  private void add() {
    String name = "Meter";
    for (int i = 2; desk.book().instrument(name).isPresent(); i++) name = "Meter " + i;
    Instrument fresh = Instrument.of(name, Language.SCPI, "127.0.0.1:5025", "READ?", Unit.VOLT);
    desk.editBook(
        "add instrument",
        "",
        b -> {
          var next = new ArrayList<>(b.instruments());
          next.add(fresh);
          return b.withInstruments(next);
        });
    refresh();
    grid.table().getSelectionModel().select(all().size() - 1);
  }

  private boolean remove(int row) {
    if (row < 0 || row >= all().size()) return false;
    return desk.editBook(
        "remove instrument " + all().get(row).name(),
        "",
        b -> {
          var next = new ArrayList<>(b.instruments());
          next.remove(row);
          return b.withInstruments(next);
        });
  }

  /** What an instrument answered, and who it says that it is. */
  private record Answer(String said, String identity) {}

  /** Who it is and what it reads, or what failed. */
  private void connect() {
    int row = grid.selectedRow();
    if (row < 0 || row >= all().size()) return;
    Instrument i = all().get(row);
    answers.put(i, "asking …");
    refresh();
    Background.run(
        () -> asked(i),
        a -> {
          Instrument known = a.identity.isEmpty() ? i : i.withIdentity(a.identity);
          answers.put(known, a.said);
          // Who it was is kept with it, for the plans that it is in.
          int at = all().indexOf(i);
          if (at >= 0 && desk.writable() && !known.equals(i)) replace(at, known);
          refresh();
        });
  }

  private static Answer asked(Instrument i) {
    if (i.byHand()) return new Answer("read by eye", "");
    try (Reference r = Connection.open(i)) {
      String who = r.identity();
      String reads = "reads %s %s".formatted(Numbers.trimmed(r.read(), 7), i.unit()).strip();
      return new Answer(who.isEmpty() ? reads : reads + " · " + who, who);
    } catch (InstrumentException e) {
      return new Answer(e.getMessage(), "");
    }
  }

  private void actions() {
    int row = grid.selectedRow();
    boolean there = row >= 0 && row < all().size();
    add.setDisable(!desk.writable());
    connect.setDisable(!there);
    remove.setDisable(!there || !desk.writable());
    showDetails();
  }

  Node node() {
    return root;
  }

  void refresh() {
    grid.editable(desk.writable());
    grid.show(all().size());
    actions();
  }
}
