package nocking.app.step.table;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Clock;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Paper;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.app.step.Exports;
import nocking.app.step.Files;
import nocking.app.step.Sheet;
import nocking.book.exchange.TableDocument;
import nocking.channel.Channel;
import nocking.firmware.TableC;
import nocking.path.GeneratedEquation;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.report.PdfPages;
import nocking.report.page.SettingsSheet;
import nocking.table.TableGoal;
import nocking.table.TableSpec;
import nocking.view.TableOutcome;
import nocking.view.TableResult;

/** The view of the sixth stage. */
public final class TableSheet implements Sheet {
  private enum Look {
    PICTURE("picture"),
    CELLS("cells"),
    PAIRS("bench pairs"),
    LIST("list to type in"),
    CODE("code"),
    REHEARSAL("rehearsal");

    private final String title;

    Look(String title) {
      this.title = title;
    }
  }

  private static final double LEFT = 296;

  private final Desk desk;
  private final Exports saving;
  private final TableEdits edits;
  private final ReceiverForm receiver;
  private final GoalForm goal;
  private final CodePage code;
  private final PicturePage picture;
  private final Map<Look, TablePage> pages = new EnumMap<>(Look.class);
  private final StackPane place = new StackPane();
  private final Segments<Look> looks;
  private final Paper right;
  private final Button start = new Button("Make a table");
  private final Button drop = new Button("No table");
  private final FlowPane exports;
  private final Button settings = new Button("Settings sheet…");
  private final VBox form;
  private final HBox root;
  private final Latest work = new Latest();
  private final SearchBar search;
  private Look look = Look.PICTURE;

  /** The analysis whose table was asked for, and what came of it; null while it is looked for. */
  private Analysis asked;

  private TableOutcome known;

  public TableSheet(Desk desk, Files files) {
    this.desk = desk;
    saving = new Exports(desk, files);
    edits = new TableEdits(desk);
    receiver = new ReceiverForm(desk, edits);
    goal = new GoalForm(desk, edits);
    Clock clock = Clock.systemDefaultZone();
    picture = new PicturePage(desk, this::dragged);
    code = new CodePage(desk, clock);
    pages.put(Look.PICTURE, picture);
    pages.put(Look.CELLS, new CellsPage(desk, edits));
    pages.put(Look.PAIRS, new PairsPage(desk, edits, files));
    pages.put(Look.LIST, new TypingPage(desk, clock));
    pages.put(Look.CODE, code);
    pages.put(Look.REHEARSAL, new RehearsalPage(desk));
    start.setId("table-start");
    start.getStyleClass().add("primary");
    start.setOnAction(e -> start());
    drop.setId("table-drop");
    drop.getStyleClass().add("tiny");
    drop.setOnAction(
        e -> desk.edit("take the table out", "", c -> c.receiver(r -> r.withTable(null))));
    exports =
        new FlowPane(
            6,
            6,
            export("table-csv", "CSV…", ".csv"),
            export("table-xlsx", "Workbook…", ".xlsx"),
            export("table-json", "JSON…", ".json"),
            export("table-c", "C99…", ".c"),
            export("table-python", "Python…", ".py"));
    settings.setId("table-settings");
    settings.setOnAction(e -> exportSettings());
    form =
        new VBox(
            8,
            goal,
            Paper.subtitle("The receiver"),
            receiver,
            Paper.subtitle("To take away"),
            exports);
    var left = new Paper("Table", start, form, new FlowPane(6, 6, settings, drop));
    var leftScroll = WheelScroll.of(left);
    leftScroll.setMinWidth(LEFT);
    leftScroll.setMaxWidth(LEFT);
    looks =
        new Segments<>(
            "table-look",
            List.of(Look.values()),
            v -> v.title,
            v -> {
              look = v;
              showLook();
            });
    looks.show(look);
    right = new Paper("Table", place).head(looks);
    search = new SearchBar(right);
    VBox.setVgrow(place, Priority.ALWAYS);
    HBox.setHgrow(right, Priority.ALWAYS);
    right.setMinWidth(0);
    root = new HBox(12, leftScroll, right);
  }

  private Button export(String id, String title, String ending) {
    var button = new Button(title);
    button.setId(id);
    button.setOnAction(e -> export(ending));
    return button;
  }

  private void start() {
    int decimals = Math.min(9, desk.analysis().design().decimals() + 1);
    TableSpec usual = TableSpec.DEFAULT.withOutDecimals(decimals);
    // Without a path there is no volt to count in; a receiver that wants ohms or milliamperes needs
    // none.
    boolean curve = desk.analysis().calibration().curve().isPresent();
    TableSpec spec =
        curve
            ? usual
            : RawScale.own(desk.analysis().channel().design().sensor())
                .map(usual::withAxis)
                .orElse(usual.withAxis(RawUnit.COUNTS).with(TableGoal.USUAL.withBench(true)));
    // Without anything to make it of the pairs come first.
    if (spec.goal().bench()) looks.show(look = Look.PAIRS);
    desk.edit("make a table", "", c -> c.receiver(r -> r.withTable(spec)));
  }

  /** The band was dragged to a height, in the unit of the output. */
  private void dragged(double height) {
    Optional<TableResult> t = result();
    if (t.isEmpty() || !desk.editable() || !(height > 0)) return;
    String typed =
        t.get().output().plain()
            ? Numbers.significant(height, 2)
            : Numbers.significant(height, 2) + " LSB";
    edits.goal("tolerance", g -> g.withTolerance(typed));
  }

  private Optional<TableResult> result() {
    return known == null ? Optional.empty() : known.result();
  }

  /** The table that is asked for now, which may be another than the one that is seen. */
  private void export(String ending) {
    Analysis a = desk.analysis();
    String name = GeneratedEquation.identifier(a.channel().tag()) + "_table";
    if (ending.equals(".c")) {
      saving.writeAll("C99 source", name + ending, ending, file -> sources(a, name, file));
      return;
    }
    String kind =
        switch (ending) {
          case ".csv" -> "Column file";
          case ".json" -> "JSON";
          case ".py" -> "Python";
          default -> "Workbook";
        };
    saving.writeBytes(kind, name + ending, ending, () -> bytes(a, name + ending));
  }

  private static TableResult made(Analysis a) {
    TableOutcome outcome = a.receiver().table();
    return outcome.result().orElseThrow(() -> new QuantityException(outcome.problem()));
  }

  private byte[] bytes(Analysis a, String file) {
    TableResult t = made(a);
    if (file.endsWith(".py")) {
      CodePage.Code written = code.now(a, t);
      return written
          .python()
          .map(p -> p.source().getBytes(StandardCharsets.UTF_8))
          .orElseThrow(() -> none(written));
    }
    return new TableDocument(
            a.receiver().firmware(),
            t.spec().axis(),
            t.output().unit(),
            t.spec().descending(),
            t.error().worst())
        .of(file)
        .orElseThrow();
  }

  /** Why no code was made. */
  private static QuantityException none(CodePage.Code code) {
    return new QuantityException(code.says().replaceFirst("\\.$", ""));
  }

  /** Source, header and decoders, by the names that go with that of the source. */
  private Map<Path, byte[]> sources(Analysis a, String name, Path file) {
    CodePage.Code written = code.now(a, made(a));
    TableC c = written.c().orElseThrow(() -> none(written));
    String stem = file.getFileName().toString().replaceFirst("\\.c$", "");
    // The source looks for its header by the name that was chosen.
    String source =
        c.source().replace("#include \"" + name + ".h\"", "#include \"" + stem + ".h\"");
    var all = new LinkedHashMap<Path, byte[]>();
    all.put(file, source.getBytes(StandardCharsets.UTF_8));
    all.put(file.resolveSibling(stem + ".h"), c.header().getBytes(StandardCharsets.UTF_8));
    written
        .decoders()
        .forEach(
            (decoder, text) ->
                all.put(file.resolveSibling(decoder), text.getBytes(StandardCharsets.UTF_8)));
    return all;
  }

  private void exportSettings() {
    Analysis a = desk.analysis();
    String name = a.channel().tag().replaceAll("[^A-Za-z0-9-]", "_") + "-settings.pdf";
    saving.writeBytes("Settings sheet", name, ".pdf", () -> PdfPages.of(SettingsSheet.html(a)));
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    asked = null;
    known = null;
    search.done();
    pages.values().forEach(TablePage::switched);
  }

  @Override
  public void refresh() {
    Analysis a = desk.analysis();
    Channel c = a.channel();
    boolean none = c.receiver().table() == null;
    start.setVisible(none);
    start.setManaged(none);
    start.setDisable(!desk.editable());
    form.setVisible(!none);
    form.setManaged(!none);
    drop.setVisible(!none);
    drop.setManaged(!none);
    drop.setDisable(!desk.editable());
    looks.setDisable(none);
    settings.setDisable(a.calibration().curve().isEmpty());
    if (!none) {
      receiver.refresh();
      goal.refresh(a);
    }
    if (asked != a) {
      asked = a;
      search.done();
      Optional<TableOutcome> now = a.receiver().tableIfKnown();
      if (now.isPresent()) {
        known = now.get();
      } else {
        right.note("being worked out …");
        search.watch(a.receiver());
        work.run(a.receiver()::table, made -> made(a, made));
        return;
      }
    }
    if (known != null) showLook();
  }

  private void made(Analysis a, TableOutcome made) {
    if (asked != a || desk.channel().isEmpty()) return;
    known = made;
    search.done();
    showLook();
  }

  private void showLook() {
    TablePage page = pages.get(look);
    place.getChildren().setAll(page.node());
    if (known == null || desk.channel().isEmpty()) return;
    Analysis a = desk.analysis();
    exports.setDisable(known.result().isEmpty());
    boolean none = a.channel().receiver().table() == null;
    right.note("");
    known
        .result()
        .ifPresentOrElse(
            t -> page.show(a, t), () -> page.none(none ? "" : Sentence.capital(known.problem())));
    picture.probe();
  }

  @Override
  public void probe() {
    picture.probe();
  }
}
