package nocking.app.step.table;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.app.step.Files;
import nocking.book.BookException;
import nocking.book.exchange.ColumnException;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.TableColumns;
import nocking.channel.Channel;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.table.BenchPairs;
import nocking.view.TableResult;

/** The raw and true values that a table is made of: typed, pasted or from a file. */
final class PairsPage implements TablePage {
  private static final int MOST_DECIMALS = 9;

  /** No row: all pairs are replaced. */
  private static final int ALL = -1;

  /** A number alone, which belongs into the cell where it is put. */
  private static final Pattern ONE_CELL = Pattern.compile("[^\\s;]+");

  /** What binary arithmetic leaves of a decimal that is whole. */
  private static final double WHOLE = 1e-6;

  private final Desk desk;
  private final TableEdits edits;
  private final Files files;
  private final Grid grid;
  private final Label from = Paper.caption("");
  private final Button remove = new Button("Remove all");
  private final Button load = new Button("Import…");
  private final VBox root;
  private Optional<BenchPairs> pairs = Optional.empty();
  private Optional<TableResult> table = Optional.empty();

  /** Pairs whose decimals are known. */
  private BenchPairs measured;

  private int decimals;
  private int rawDecimals;

  /** The first raw value of a pair whose true value is not typed yet; NaN for none. */
  private double half = Double.NaN;

  PairsPage(Desk desk, TableEdits edits, Files files) {
    this.desk = desk;
    this.edits = edits;
    this.files = files;
    grid =
        new Grid(
            "pairs",
            "Paste two columns here, raw and true, or import a file.",
            List.of(
                Column.shown("pair", 52, true, i -> i < size() ? String.valueOf(i + 1) : ""),
                Column.typed("raw", 100, true, this::raw, this::takeRaw),
                Column.typed("true", 100, true, this::truth, this::takeTruth),
                Column.shown("left", 90, true, this::left)),
            i -> false);
    grid.onPaste(BlockPaste.said(desk, this::paste));
    grid.onDelete(this::delete);
    VBox.setVgrow(grid, Priority.ALWAYS);
    load.setId("pairs-import");
    load.setOnAction(e -> choose());
    remove.setId("pairs-remove");
    remove.setOnAction(
        e -> desk.edit("remove the bench pairs", "", c -> c.receiver(r -> r.withBench(null))));
    from.setId("pairs-from");
    root = new VBox(6, new HBox(8, load, remove), from, grid);
  }

  @Override
  public Node node() {
    return root;
  }

  private int size() {
    return pairs.map(BenchPairs::size).orElse(0);
  }

  private RawUnit axis() {
    return pairs.map(BenchPairs::axis).orElseGet(() -> edits.spec().axis());
  }

  private String raw(int i) {
    if (i < size()) return Numbers.fixed(pairs.orElseThrow().raw().get(i), rawDecimals);
    return i == size() && !Double.isNaN(half) ? Numbers.plain(half) : "";
  }

  private String truth(int i) {
    return i < size()
        ? Numbers.fixed(pairs.orElseThrow().truth().get(i), decimals).replace('-', '−')
        : "";
  }

  /** What the table leaves at a pair. */
  private String left(int i) {
    return table
        .filter(t -> t.pairs().isPresent() && i < t.pairs().get().size())
        .map(t -> Numbers.signed(t.offPair(i), 2 + Numbers.decimalsFor(t.error().worst())))
        .orElse("");
  }

  private void takeRaw(int i, String text) {
    double v = QuantityParser.value(text, axis().unit());
    if (i >= size()) {
      half = v;
      grid.show(size() + 1);
      return;
    }
    BenchPairs b = pairs.orElseThrow();
    var next = new ArrayList<>(b.raw());
    next.set(i, v);
    put("change a pair", new BenchPairs(b.source(), b.axis(), next, b.truth()));
  }

  private void takeTruth(int i, String text) {
    double v = QuantityParser.value(text.replace('−', '-'), desk.channel().orElseThrow().unit());
    var raw = new ArrayList<>(pairs.map(BenchPairs::raw).orElse(List.of()));
    var truth = new ArrayList<>(pairs.map(BenchPairs::truth).orElse(List.of()));
    if (i < size()) {
      truth.set(i, v);
      put("change a pair", pairs.orElseThrow().withTruth(truth));
      return;
    }
    if (Double.isNaN(half)) throw new QuantityException("type the raw value of this row first");
    raw.add(half);
    truth.add(v);
    half = Double.NaN;
    put("add a pair", new BenchPairs(source(), axis(), raw, truth));
  }

  private String source() {
    return pairs.map(BenchPairs::source).orElse("typed in");
  }

  private void put(String what, BenchPairs next) {
    desk.edit(what, "", c -> c.receiver(r -> r.withBench(next)));
  }

  private boolean delete(int i) {
    if (i >= size()) return false;
    BenchPairs b = pairs.orElseThrow();
    if (b.size() == 1)
      return desk.edit("remove the bench pairs", "", c -> c.receiver(r -> r.withBench(null)));
    var raw = new ArrayList<>(b.raw());
    var truth = new ArrayList<>(b.truth());
    raw.remove(i);
    truth.remove(i);
    return desk.edit(
        "remove pair " + (i + 1),
        "",
        c -> c.receiver(r -> r.withBench(new BenchPairs(b.source(), b.axis(), raw, truth))));
  }

  private void paste(int row, int column, String block) {
    if (ONE_CELL.matcher(block.strip()).matches()) {
      grid.putBlock(row, column, block);
      return;
    }
    try {
      take(ColumnFile.parse(block, "the pasted block"), Math.min(row, size()));
    } catch (ColumnException e) {
      throw new QuantityException(e.getMessage());
    }
  }

  private void choose() {
    files
        .toOpen("Column file", "*.csv", "*.tsv", "*.txt")
        .ifPresent(
            file ->
                Background.run(
                    () -> {
                      try {
                        return new Read(ColumnFile.read(file), "");
                      } catch (ColumnException | BookException e) {
                        return new Read(null, e.getMessage());
                      }
                    },
                    read -> {
                      if (read.file == null) desk.say(read.problem + ".", true);
                      else take(read.file);
                    }));
  }

  private record Read(ColumnFile file, String problem) {}

  private void take(ColumnFile file) {
    try {
      take(file, ALL);
    } catch (QuantityException | ColumnException e) {
      desk.say(e.getMessage() + ".", true);
    }
  }

  /**
   * @param at row from which on the pairs stand; {@link #ALL} for all that there are then
   * @throws QuantityException for pairs that a channel cannot keep
   */
  private void take(ColumnFile file, int at) {
    Channel c = desk.channel().orElseThrow();
    TableColumns columns = TableColumns.of(file, null, null, null);
    BenchPairs read = columns.pairs(c.unit());
    RawUnit axis = axis(file.unit(columns.rawColumn()).isPresent(), read, at == ALL, c);
    if (at != ALL && size() > 0 && pairs.orElseThrow().axis() != axis) {
      throw new QuantityException(
          "The pairs here are in %s, these in %s. Nothing was pasted."
              .formatted(pairs.get().axis().title(), axis.title()));
    }
    BenchPairs next =
        at == ALL || size() == 0
            ? new BenchPairs(read.source(), axis, read.raw(), read.truth())
            : over(pairs.orElseThrow(), at, read);
    int gone = at == ALL ? size() : 0;
    boolean done =
        desk.edit(
            "take %d bench pairs".formatted(read.size()),
            "",
            k ->
                k.receiver(
                    r ->
                        r.withBench(next)
                            .withTable(r.table().with(r.table().goal().withBench(true)))));
    if (done) {
      String instead = gone == 0 ? "" : " in the place of the %d that were here".formatted(gone);
      desk.say(
          "%d pairs in %s taken in%s: %s."
              .formatted(read.size(), axis.title(), instead, file.says()),
          false);
    }
  }

  /**
   * A raw column that does not say what it is: that of the pairs here, or what the receiver wants.
   */
  private RawUnit axis(boolean said, BenchPairs read, boolean all, Channel c) {
    if (said) return read.axis();
    RawUnit wanted = all ? edits.spec().axis() : axis();
    boolean whole = read.raw().stream().allMatch(v -> v == Math.rint(v));
    if (wanted == RawUnit.COUNTS) return whole ? RawUnit.COUNTS : read.axis();
    // Whole numbers far above any volt of this converter are its codes.
    double most = read.raw().stream().mapToDouble(Math::abs).max().orElse(0);
    boolean codes = whole && most > 2 * c.design().converter().reference().number();
    return wanted == RawUnit.VOLTS && codes ? RawUnit.COUNTS : wanted;
  }

  /** Pairs put on those that stand from a row on, and behind them. */
  private static BenchPairs over(BenchPairs a, int at, BenchPairs b) {
    var raw = new ArrayList<>(a.raw());
    var truth = new ArrayList<>(a.truth());
    for (int i = 0; i < b.size(); i++) {
      if (at + i < a.size()) {
        raw.set(at + i, b.raw().get(i));
        truth.set(at + i, b.truth().get(i));
      } else {
        raw.add(b.raw().get(i));
        truth.add(b.truth().get(i));
      }
    }
    return new BenchPairs(a.source(), a.axis(), raw, truth);
  }

  /** Decimals with which every one of the values is what it is, 9 at most. */
  private static int written(List<Double> values) {
    int decimals = 0;
    double scale = 1;
    for (double v : values) {
      while (decimals < MOST_DECIMALS && Math.abs(v * scale - Math.rint(v * scale)) > WHOLE) {
        decimals++;
        scale *= 10;
      }
    }
    return decimals;
  }

  private void refresh() {
    Channel c = desk.channel().orElseThrow();
    pairs = Optional.ofNullable(c.receiver().bench());
    root.setDisable(!edits.asked());
    if (!edits.asked()) {
      from.setText("");
      grid.show(0);
      return;
    }
    grid.editable(desk.editable());
    load.setDisable(!desk.editable());
    remove.setDisable(!desk.editable() || pairs.isEmpty());
    grid.table().getColumns().get(1).setText("raw " + axis().unit().symbol());
    grid.table().getColumns().get(2).setText(("true " + c.definition().unit()).strip());
    String left = table.map(t -> "left, " + t.output().errorUnit()).orElse("left");
    grid.table().getColumns().get(3).setText(left);
    String used =
        edits.spec().goal().bench() ? "" : " The table is made of the curve; these are kept.";
    from.setText(
        pairs
            .map(
                b ->
                    "%d pairs in %s from %s.%s"
                        .formatted(b.size(), b.axis().title(), b.source(), used))
            .orElse("Several true values for one raw value, gaps and both ways are welcome."));
    if (pairs.orElse(null) != measured) {
      measured = pairs.orElse(null);
      decimals = pairs.map(b -> written(b.truth())).orElse(0);
      rawDecimals = pairs.map(b -> written(b.raw())).orElse(0);
    }
    grid.show(pairs.isEmpty() && !desk.editable() ? 0 : size() + 1);
  }

  @Override
  public void show(Analysis a, TableResult t) {
    table = Optional.of(t);
    refresh();
  }

  @Override
  public void none(String why) {
    table = Optional.empty();
    refresh();
  }

  @Override
  public void switched() {
    half = Double.NaN;
    grid.clearWrong();
  }
}
