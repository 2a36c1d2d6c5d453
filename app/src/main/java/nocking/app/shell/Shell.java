package nocking.app.shell;

import java.nio.file.Path;
import java.util.EnumMap;
import java.util.Map;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.analysis.LiveReading;
import nocking.app.desk.Aside;
import nocking.app.desk.Desk;
import nocking.app.step.Exports;
import nocking.app.step.Files;
import nocking.app.step.Sheet;
import nocking.app.step.check.CheckSheet;
import nocking.app.step.collect.CollectSheet;
import nocking.app.step.condition.ConditionSheet;
import nocking.app.step.define.DefineSheet;
import nocking.app.step.diagnose.DiagnoseSheet;
import nocking.app.step.diagnose.PracticeSheet;
import nocking.app.step.fit.FitSheet;
import nocking.app.step.record.RecordSheet;
import nocking.app.step.table.TableSheet;
import nocking.app.step.wire.WireSheet;
import nocking.app.theme.Theme;
import nocking.book.BookException;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.channel.WorkStep;
import nocking.quantity.QuantityException;
import nocking.view.Trouble;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The window's content: puts the parts together and tells them what has changed. */
public final class Shell {
  private static final Logger LOG = LoggerFactory.getLogger(Shell.class);

  /** Opens books for the shell. */
  public interface Books {
    /**
     * Opens or makes a book and puts it on the desk.
     *
     * @throws BookException or DocumentException, one sentence; the open book stays
     */
    void open(Path file);

    /** Puts a fresh copy of the demo book on the desk. */
    void openDemo();
  }

  private final Desk desk;
  private final Files files;
  private final BookTraffic traffic;
  private final Books books;
  private final Commands commands = new Commands();
  private final Map<WorkStep, Sheet> stages = new EnumMap<>(WorkStep.class);
  private final Map<Aside, Sheet> asides = new EnumMap<>(Aside.class);
  private final TopBar topBar;
  private final Rack rack;
  private final PathStrip strip;
  private final StepTabs tabs;
  private final FindingsPane findings;
  private Analysis logged;
  private final ScratchLine scratch;
  private final BorderPane frame = new BorderPane();
  private final StackPane root = new StackPane(frame);
  private Finder finder;
  private HelpCard help;
  private DrawerPanel drawer;
  private BenchWindow bench;
  private final StackPane body = new StackPane();
  private final Label message = new Label();
  private final HBox messageBar = new HBox(message);
  private final VBox desktop;
  private final Node frontPage;
  private final Scene scene;
  private int element = -1;

  public Shell(Desk desk, Files files, Books books, double width, double height) {
    this.desk = desk;
    this.files = files;
    this.books = books;
    traffic = new BookTraffic(desk, files);
    addCommands();
    topBar = new TopBar(desk, commands);
    rack = new Rack(desk, this::newChannel);
    strip = new PathStrip(desk, this::openElement);
    tabs = new StepTabs(desk);
    findings = new FindingsPane(desk);
    scratch = new ScratchLine(desk);
    message.setId("message");
    message.setWrapText(true);
    messageBar.getStyleClass().add("message-bar");
    body.getStyleClass().add("stage");
    body.setMinSize(0, 0);
    body.setAlignment(Pos.TOP_LEFT);
    HBox.setHgrow(body, Priority.ALWAYS);
    var work = new HBox(body, findings);
    VBox.setVgrow(work, Priority.ALWAYS);
    work.setMinHeight(0);
    desktop = new VBox(strip, tabs, work);
    frontPage =
        new FrontPage(
            this::newChannel, () -> traffic.bring(books::openDemo), traffic::importChannel);
    frame.setTop(topBar);
    frame.setLeft(rack);
    frame.setCenter(desktop);
    frame.setBottom(new VBox(messageBar, scratch));
    scene = new Scene(root, width, height);
    Theme.apply(scene);
    commands.accelerate(scene);
    scene.addEventFilter(KeyEvent.KEY_PRESSED, this::functionKeys);
    desk.listen(this::changed);
    desk.live()
        .listen(
            () -> {
              if (desk.channel().isEmpty()) return;
              guard("the strip", strip::live);
              guard("this view", () -> shown().live());
            });
    changed(Desk.Change.DOCUMENT);
  }

  public Scene scene() {
    return scene;
  }

  private Sheet stage(WorkStep step) {
    // Stages are made when they are first opened: the window is there sooner.
    return stages.computeIfAbsent(
        step,
        s ->
            switch (s) {
              case DEFINE -> new DefineSheet(desk);
              case CONDITION -> new ConditionSheet(desk, this::elementOpened, this::openDrawer);
              case WIRE -> new WireSheet(desk, new Exports(desk, files));
              case COLLECT -> new CollectSheet(desk, files);
              case FIT -> new FitSheet(desk);
              case TABLE -> new TableSheet(desk, files);
              case CHECK -> new CheckSheet(desk);
              case RECORD -> new RecordSheet(desk, files);
            });
  }

  private Sheet shown() {
    return desk.aside()
        .map(
            a ->
                asides.computeIfAbsent(
                    a,
                    k ->
                        switch (k) {
                          case DIAGNOSE -> new DiagnoseSheet(desk);
                          case PRACTICE -> new PracticeSheet(desk);
                        }))
        .orElseGet(() -> stage(desk.step()));
  }

  private void changed(Desk.Change change) {
    switch (change) {
      case PROBE -> probeMoved();
      case STATUS -> status();
      case SELECTION -> {
        stages.values().forEach(Sheet::switched);
        asides.values().forEach(Sheet::switched);
        everything();
      }
      case DOCUMENT, STEP -> everything();
    }
  }

  private void probeMoved() {
    guard("the strip", strip::probe);
    guard("this view", () -> shown().probe());
    scratch.evaluate();
  }

  private void everything() {
    Theme.dark(scene, desk.dark());
    guard("the rack", rack::refresh);
    boolean open = desk.channel().isPresent();
    Node centre = open ? desktop : frontPage;
    if (frame.getCenter() != centre) frame.setCenter(centre);
    if (open) {
      guard("the strip", strip::refresh);
      guard("this view", this::showView);
      guard("the strip", this::chooseElement);
      guard("the tabs", tabs::refresh);
      guard("the findings", findings::refresh);
      logTroubles(desk.analysis());
    }
    scratch.evaluate();
    status();
  }

  /** What could not be worked out is a finding; why is in the log, once. */
  private void logTroubles(Analysis a) {
    if (a == logged || a.troubles().isEmpty()) return;
    logged = a;
    for (Trouble t : a.troubles()) {
      LOG.error("{}: {}", a.channel().tag(), t.says(), t.cause());
    }
  }

  private void showView() {
    Sheet view = shown();
    if (body.getChildren().isEmpty() || body.getChildren().getFirst() != view.node()) {
      body.getChildren().setAll(view.node());
    }
    view.refresh();
  }

  private void chooseElement() {
    strip.choose(
        desk.step() == WorkStep.CONDITION ? element : desk.step() == WorkStep.DEFINE ? 0 : -1);
  }

  /** What cannot be drawn of one channel does not keep the rest of the window from being there. */
  private void guard(String what, Runnable draw) {
    try {
      draw.run();
    } catch (RuntimeException e) {
      LOG.error("{} could not be shown for {}", what, desk.channel().map(Channel::tag), e);
      String tag = desk.channel().map(Channel::tag).orElse("this book");
      desk.say(
          "%s: %s could not be shown. Everything is kept; undo or another channel goes on."
              .formatted(tag, what),
          true);
    }
  }

  private void status() {
    topBar.refresh();
    String words = desk.message();
    if (desk.store().failed()) words = (desk.store().state() + ". " + words).strip();
    boolean bad = desk.store().failed() || desk.messageIsBad();
    message.setText(words);
    messageBar.setVisible(!words.isEmpty());
    messageBar.setManaged(!words.isEmpty());
    messageBar.getStyleClass().remove("bad");
    if (bad) messageBar.getStyleClass().add("bad");
  }

  /** A click on the strip opens the element where it is edited. */
  private void openElement(int index) {
    if (desk.channel().isEmpty()) return;
    int n = desk.channel().get().design().stages().size();
    WorkStep step = PathStrip.stepOf(index, n);
    desk.step(step);
    if (step == WorkStep.CONDITION) stage(step).element(index);
  }

  private void openCard(SensorCard card) {
    desk.step(WorkStep.DEFINE);
    if (stage(WorkStep.DEFINE) instanceof DefineSheet define) define.openCard(card);
  }

  private void elementOpened(int index) {
    element = index;
    strip.choose(index);
  }

  private void openDrawer() {
    if (drawer == null) drawer = above(new DrawerPanel(desk, files));
    drawer.open(scene.getFocusOwner());
  }

  private void functionKeys(KeyEvent e) {
    if (e.getCode() == KeyCode.F1) {
      openHelp(scene.getFocusOwner());
      e.consume();
    }
  }

  private void addCommands() {
    commands.add("New channel", "Shortcut+N", this::newChannel);
    commands.add("Duplicate", "Shortcut+D", this::duplicate);
    commands.add("Take out of the book", "", desk::remove);
    commands.add("Name a revision", "Shortcut+S", this::nameRevision);
    commands.add("Lock or unlock", "Shortcut+L", this::lock);
    commands.add("Undo", "Shortcut+Z", desk::undo);
    commands.add("Redo", "Shortcut+Shift+Z", desk::redo);
    for (WorkStep s : WorkStep.values()) {
      commands.add(s.title(), "Shortcut+" + (s.ordinal() + 1), () -> desk.step(s));
    }
    commands.add("Diagnose", "Shortcut+9", () -> desk.aside(Aside.DIAGNOSE));
    commands.add("Practice finding faults", "", () -> desk.aside(Aside.PRACTICE));
    commands.add("Take the live reading", "F5", this::takeLive);
    commands.add("Live reading on or off", "F6", () -> desk.live().toggle());
    commands.add("Simulated bench…", "", this::openBench);
    commands.add("Find…", "Shortcut+K", () -> finder().open());
    commands.add(
        "New book…",
        "",
        () ->
            files
                .toSave("Bench book", "bench.nocking", ".nocking")
                .ifPresent(f -> traffic.bring(() -> books.open(f))));
    commands.add(
        "Open book…",
        "Shortcut+O",
        () ->
            files
                .toOpen("Bench book", "*.nocking")
                .ifPresent(f -> traffic.bring(() -> books.open(f))));
    commands.add("Copy book to…", "", traffic::copyBook);
    commands.add("Open the demo book", "", () -> traffic.bring(books::openDemo));
    commands.add("Import channel…", "", traffic::importChannel);
    commands.add("Export channel…", "Shortcut+E", traffic::exportChannel);
    commands.add("Export whole book…", "", traffic::exportBook);
    commands.add("Drawer of parts…", "", this::openDrawer);
    commands.add("Scratch line", "Shortcut+Space", () -> scratchField().requestFocus());
    commands.add("Fold or show the channels", "Shortcut+B", () -> rack.toggle());
    commands.add("Fold or show the findings", "Shortcut+J", () -> findings.toggle());
    commands.add("Dark variant", "", () -> desk.dark(!desk.dark()));
    commands.add("Help on what has the focus", "F1", () -> openHelp(scene().getFocusOwner()));
    commands.add("Keys", "", () -> openHelp(null));
    commands.add("Close the window", "Shortcut+Q", () -> scene().getWindow().hide());
  }

  /** Opens the bench that stands in for the selected channel; what its window shows. */
  public Scene bench() {
    openBench();
    return bench.scene();
  }

  /** The bench that stands in for the selected channel, in a window of its own. */
  private void openBench() {
    desk.channel().ifPresent(c -> desk.runs().standInFor(c.tag()));
    if (desk.runs().standIn().isEmpty()) {
      desk.say("No simulated bench stands in for this channel.", true);
      return;
    }
    if (bench == null) {
      bench = new BenchWindow(desk, scene.getWindow());
      // The keys of the work go on beside it.
      commands.accelerate(bench.scene());
    }
    bench.open();
  }

  /** The live reading goes where the work is; where there is no such place the probe goes to it. */
  private void takeLive() {
    if (desk.channel().isEmpty()) return;
    desk.live()
        .take(
            r -> {
              if (!r.read()) desk.say("The meter reads nothing: it is beyond its range.", true);
              else if (!guarded(r) && Double.isFinite(r.quantity())) desk.probe(r.quantity());
            });
  }

  private boolean guarded(LiveReading r) {
    try {
      return shown().live(r);
    } catch (QuantityException e) {
      desk.say(e.getMessage() + ".", true);
      return true;
    }
  }

  private Finder finder() {
    if (finder == null) {
      finder = above(new Finder(desk, commands, this::openElement, this::openCard));
      StackPane.setAlignment(finder, Pos.TOP_CENTER);
      StackPane.setMargin(finder, new Insets(70, 0, 0, 0));
    }
    return finder;
  }

  private void openHelp(Node about) {
    if (help == null) help = above(new HelpCard());
    help.open(about, desk.step(), desk.aside());
  }

  /** Puts a panel above the frame; panels are made when they are first opened. */
  private <T extends Node> T above(T panel) {
    root.getChildren().add(panel);
    return panel;
  }

  private Node scratchField() {
    return scratch.field();
  }

  private void newChannel() {
    String tag = desk.book().freeTag("CH-1");
    desk.add(Channel.blank(Book.newId(), tag), "new channel " + tag);
    if (stage(WorkStep.DEFINE) instanceof DefineSheet define) define.askTag();
  }

  private void duplicate() {
    desk.channel()
        .ifPresent(
            c -> {
              String tag = desk.book().freeTag(c.tag());
              desk.add(c.forAnotherDevice(Book.newId(), tag), "duplicate " + c.tag());
              desk.say(
                  "%s has design and wiring of %s, and nothing that was measured there."
                      .formatted(tag, c.tag()),
                  false);
            });
  }

  private void nameRevision() {
    if (desk.channel().isEmpty()) return;
    desk.step(WorkStep.RECORD);
    ((RecordSheet) stage(WorkStep.RECORD)).askName();
  }

  private void lock() {
    if (desk.channel().isEmpty()) return;
    desk.step(WorkStep.RECORD);
    ((RecordSheet) stage(WorkStep.RECORD)).askLock();
  }
}
