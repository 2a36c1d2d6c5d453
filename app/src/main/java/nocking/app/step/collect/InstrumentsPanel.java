package nocking.app.step.collect;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.function.Function;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.app.control.Column;
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
import nocking.run.Instrument;
import nocking.run.Instrument.Language;

/**
 * The instruments of the bench, kept in the book; each can be asked who it is and what it reads.
 */
final class InstrumentsPanel {
  private final Desk desk;
  private final Grid grid;
  private final Button add = new Button("Add an instrument");
  private final Button connect = new Button("Connect");
  private final Button remove = new Button("Remove row");
  private final Map<Instrument, String> answers = new HashMap<>();
  private final HBox root;

  InstrumentsPanel(Desk desk, Region looks) {
    this.desk = desk;
    grid =
        BlockPaste.into(
            new Grid(
                    "instruments",
                    "No instruments yet. Add the meter and the reference that stand on the bench.",
                    List.of(
                        text("name", 106, Instrument::name, Instrument::withName),
                        text("speaks", 96, i -> i.language().title(), InstrumentsPanel::speaks),
                        text("address", 122, Instrument::address, Instrument::withAddress),
                        text("asked with", 76, Instrument::ask, Instrument::withAsk),
                        text("set with", 68, Instrument::set, Instrument::withSet),
                        text("channel", 62, Instrument::channel, this::channel),
                        text("at", 66, Instrument::place, Instrument::withPlace),
                        text("unit", 42, Instrument::unit, InstrumentsPanel::unit),
                        text("range", 70, InstrumentsPanel::range, InstrumentsPanel::range),
                        text(
                            "accuracy", 70, InstrumentsPanel::accuracy, InstrumentsPanel::accuracy),
                        text("due", 82, Instrument::due, InstrumentsPanel::due),
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
    var foot = new FlowPane(8, 6, add, connect, remove);
    var paper =
        new Paper(
            "",
            grid,
            Paper.caption(
                "Speaks: SCPI over TCP, lines over TCP, serial line or typed by hand. An address is"
                    + " HOST:PORT or DEVICE@BAUD; %s in what sets a reference stands for the set"
                    + " point."),
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
        "read '%s', expected SCPI over TCP, lines over TCP, serial line or typed by hand"
            .formatted(t));
  }

  private static Instrument unit(Instrument i, String t) {
    Unit.of(t);
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
