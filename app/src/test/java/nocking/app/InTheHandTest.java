package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CountDownLatch;
import javafx.animation.AnimationTimer;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import nocking.app.desk.MemoryStore;
import nocking.app.desk.Store;
import nocking.book.BookFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.demo.Hatchery;
import nocking.prior.PriorWeights;
import org.junit.jupiter.api.Test;

/** How the window behaves in the hand: fields, probe, undo, findings, keys, bad input. */
class InTheHandTest extends WindowTest {

  @Test
  void wrongEntryIsMarkedAndTheLastGoodValueStays() {
    openDemo("BL-P1", WorkStep.CONDITION);
    hands.fill("element-upper", "4k7");
    assertThat(channel().design().stages().getFirst().number("R1")).isEqualTo(4700);
    hands.type("x");
    assertThat(wrong("element-upper")).isTrue();
    assertThat(text("element-upper")).isEqualTo("4k7x");
    assertThat(channel().design().stages().getFirst().number("R1")).isEqualTo(4700);
    hands.press(KeyCode.ESCAPE);
    assertThat(wrong("element-upper")).isFalse();
    assertThat(text("element-upper")).isEqualTo("4k7");
    hands.fill("element-upper", "0");
    assertThat(wrong("element-upper")).as("a resistor is above 0 Ω").isTrue();
    assertThat(channel().design().stages().getFirst().number("R1")).isEqualTo(4700);
  }

  @Test
  void anotherUnitIsConvertedAndWhatWasTypedIsKept() {
    openDemo("BL-P1", WorkStep.DEFINE);
    hands.fill("define-tolerance", "0.1 psi");
    assertThat(channel().definition().tolerance().typed()).isEqualTo("0.1 psi");
    assertThat(channel().definition().tolerance().number()).isCloseTo(0.689476, within(1e-6));
    assertThat(text("define-tolerance")).isEqualTo("0.1 psi");
  }

  @Test
  void undoAndRedoGoThroughEveryEdit() {
    openDemo("BL-P1", WorkStep.CONDITION);
    Book start = Hands.ask(() -> desk.book());
    hands.fill("element-upper", "6k8");
    hands.click("stage-remove");
    hands.press(KeyCode.CONTROL, KeyCode.D);
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT4);
    hands.run(() -> ((TableView<?>) shell.scene().lookup("#points")).requestFocus());
    Book end = Hands.ask(() -> desk.book());
    assertThat(end.channels()).hasSize(start.channels().size() + 1);
    int steps = 0;
    while (Hands.ask(() -> desk.undoable().isPresent())) {
      hands.press(KeyCode.CONTROL, KeyCode.Z);
      steps++;
    }
    assertThat(steps).as("typing in one field is one step").isEqualTo(3);
    assertThat(Hands.<Book>ask(() -> desk.book())).isEqualTo(start);
    assertThat(onDisk()).isEqualTo(start);
    for (int i = 0; i < steps; i++) hands.press(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Z);
    assertThat(Hands.<Book>ask(() -> desk.book())).isEqualTo(end);
  }

  @Test
  void probeFollowsMouseKeysAndTyping() {
    openDemo("BL-P1", WorkStep.CONDITION);
    hands.fill("probe-value", "30");
    assertThat(text("value-TP1")).isEqualTo("1.660 V");
    assertThat(text("value-TP2")).isEqualTo("1.099 V");
    assertThat(text("value-raw")).isEqualTo("1364");
    hands.fill("probe-value", "5 psi");
    assertThat(Hands.<Double>ask(() -> desk.probe())).isCloseTo(34.4738, within(1e-4));
    Node rail = hands.node("probe-rail");
    hands.run(rail::requestFocus);
    hands.press(KeyCode.END);
    assertThat(text("value-raw")).isEqualTo("2400");
    hands.press(KeyCode.HOME).press(KeyCode.RIGHT);
    assertThat(Hands.<Double>ask(() -> desk.probe())).isCloseTo(0.6, within(1e-9));
    double before = Hands.ask(() -> desk.probe());
    hands.drag(hands.node("probe-handle"), 200, 0);
    assertThat(Hands.<Double>ask(() -> desk.probe())).isGreaterThan(before + 5);
  }

  /** From a probe move to every pad: the values are there before the pulse that would show them. */
  @Test
  void probeOfASelectorWalksItsStationsByName() {
    openDemo("FD-S1", WorkStep.CONDITION);
    assertThat(text("probe-value")).isEqualTo("raceway 2");
    hands.click("probe-handle");
    hands.press(KeyCode.RIGHT);
    assertThat(text("probe-value")).isEqualTo("raceway 3");
    assertThat(desk.probe()).isEqualTo(4);
    hands.press(KeyCode.HOME);
    assertThat(text("probe-value")).isEqualTo("drain");
    hands.drag(hands.node("probe-handle"), 37, 0);
    assertThat(desk.probe()).as("a drag comes to rest on a station").isEqualTo(1);
    hands.fill("probe-value", "Bypass");
    assertThat(desk.probe()).isEqualTo(5);
    hands.fill("probe-value", "2");
    assertThat(desk.probe()).isEqualTo(2);
    hands.fill("probe-value", "1.8");
    assertThat(wrong("probe-value")).as("there is no station between two").isFalse();
    hands.fill("probe-value", "1.5");
    assertThat(wrong("probe-value")).isTrue();
  }

  @Test
  void everyEmptyFieldSaysWhatHoldsWhileItIsEmpty() {
    openDemo("BL-P1", WorkStep.DEFINE);
    var silent = new TreeSet<String>();
    for (String tag : List.of("BL-P1", "RW-T1", "HD-L1", "FD-S1", "AE-V1")) {
      hands.run(() -> desk.select(desk.book().byTag(tag).orElseThrow().id()));
      for (WorkStep step : WorkStep.values()) {
        hands.run(() -> desk.step(step));
        hands.run(() -> silentFields(shell.scene().getRoot(), silent));
      }
    }
    assertThat(silent).isEmpty();
  }

  private static void silentFields(Node n, Set<String> silent) {
    if (!n.isVisible()) return;
    if (n instanceof TextField f
        && f.isEditable()
        && f.getText().isEmpty()
        && (f.getPromptText() == null || f.getPromptText().isBlank())) {
      silent.add(String.valueOf(f.getId()));
    }
    if (n instanceof Parent p) p.getChildrenUnmodifiable().forEach(c -> silentFields(c, silent));
  }

  @Test
  void probeMovesEverythingWithinOnePulse() {
    openDemo("IN-T2", WorkStep.CONDITION);
    assertThat(Hands.<Integer>ask(() -> staleMoves(101))).isZero();
  }

  /** Moves the probe so many times; how often a pad did not show the new code at once. */
  private int staleMoves(int moves) {
    int stale = 0;
    for (int i = 0; i < moves; i++) {
      double x = 4 + 10.0 * i / (moves - 1);
      desk.probe(x);
      String raw = text(shell.scene().lookup("#value-raw"));
      int code = desk.analysis().at(x).orElseThrow().readOut().code();
      if (!raw.equals(String.valueOf(code))) stale++;
    }
    return stale;
  }

  /** A move in every pulse for 120 pulses; the figures go into a report, not into an assertion. */
  @Test
  void dragIsFollowedPulseByPulse() throws IOException {
    openDemo("BL-P1", WorkStep.CONDITION);
    hands.run(() -> desk.probe(0));
    var handling = new ArrayList<Long>();
    var shown = new ArrayList<String>();
    var done = new CountDownLatch(1);
    hands.run(
        () ->
            new AnimationTimer() {
              @Override
              public void handle(long now) {
                if (!handling.isEmpty()) shown.add(text(shell.scene().lookup("#value-raw")));
                if (handling.size() == PULSES) {
                  stop();
                  done.countDown();
                  return;
                }
                long start = System.nanoTime();
                desk.probe(60.0 * (handling.size() + 1) / PULSES);
                handling.add(System.nanoTime() - start);
              }
            }.start());
    Quiet.await(done);
    assertThat(shown).hasSize(PULSES).doesNotHaveDuplicates();
    long worst = handling.stream().mapToLong(Long::longValue).max().orElseThrow();
    double mean = handling.stream().mapToLong(Long::longValue).average().orElseThrow();
    Files.writeString(
        Path.of("target", "probe-report.txt"),
        "%d probe moves in %d pulses, all pads new in each; one move takes %.2f ms on the interface thread, the slowest %.2f ms%n"
            .formatted(PULSES, shown.size(), mean / 1e6, worst / 1e6));
  }

  private static final int PULSES = 120;

  private static String text(Node label) {
    return ((Label) label).getText();
  }

  @Test
  void findingIsMendedWithOneClickAndComesBackWithUndo() {
    openDemo("BL-P1", WorkStep.COLLECT);
    assertThat(hands.has("finding-point-slip")).isTrue();
    hands.click("fix-point-slip");
    assertThat(hands.has("finding-point-slip")).isFalse();
    assertThat(channel().calibration().points().points().get(4).mean())
        .isCloseTo(1.3757, within(0.01));
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(hands.has("finding-point-slip")).isTrue();
  }

  @Test
  void elementsAreMovedOnTheTraceAndByKey() {
    openDemo("BL-P1", WorkStep.CONDITION);
    hands.click("insert-1").choose("insert-non-inverting-amp");
    assertThat(titles()).containsExactly("Divider", "Non-inverting amp");
    Node card = hands.node("element-2");
    hands.dragAway(card, -260);
    assertThat(titles()).containsExactly("Non-inverting amp", "Divider");
    hands.run(() -> shell.scene().lookup("#element-1").requestFocus());
    hands.press(KeyCode.ALT, KeyCode.RIGHT);
    assertThat(titles()).containsExactly("Divider", "Non-inverting amp");
    hands.run(() -> shell.scene().lookup("#element-2").requestFocus());
    hands.press(KeyCode.DELETE);
    assertThat(titles()).containsExactly("Divider");
  }

  private List<String> titles() {
    return channel().design().stages().stream().map(s -> s.title()).toList();
  }

  @Test
  void badBlockChangesNothingAndSaysWhy() {
    openDemo("BL-P1", WorkStep.COLLECT);
    Channel before = channel();
    hands.run(
        () -> {
          var content = new ClipboardContent();
          content.putString("10\t0.5\nmany\t0.6\n");
          Clipboard.getSystemClipboard().setContent(content);
          TableView<?> t = (TableView<?>) shell.scene().lookup("#points");
          t.getSelectionModel().select(7);
          t.requestFocus();
        });
    hands.press(KeyCode.CONTROL, KeyCode.V);
    assertThat(channel()).isEqualTo(before);
    assertThat(shown(".text-fail")).anyMatch(s -> s.contains("row 2, column 1: 'many'"));
  }

  @Test
  void brokenFilesLeaveTheChannelAsItWas() throws IOException {
    openDemo("BL-P1", WorkStep.COLLECT);
    Channel before = channel();
    Path empty = Files.createFile(folder.resolve("empty.csv"));
    chosen.add(empty);
    hands.click("collect-import");
    assertThat(message())
        .isEqualTo(
            "Empty.csv is empty: expected a header row and rows of numbers. The channel is as it was.");
    Path words = Files.writeString(folder.resolve("words.csv"), "applied,reading\n1,0.3\n2,abc\n");
    chosen.add(words);
    hands.click("collect-import");
    assertThat(text("import-problem"))
        .isEqualTo("words.csv, row 3, column reading: read 'abc', expected a number in V.");
    hands.click("import-cancel");
    assertThat(channel()).isEqualTo(before);
  }

  @Test
  void finderHelpAndScratchAnswerToTheKeyboard() {
    openDemo("BL-P1", WorkStep.DEFINE);
    hands.press(KeyCode.CONTROL, KeyCode.K).type("OX-D1").press(KeyCode.ENTER);
    assertThat(channel().tag()).isEqualTo("OX-D1");
    hands.press(KeyCode.CONTROL, KeyCode.K).type("check").press(KeyCode.ENTER);
    assertThat(Hands.<WorkStep>ask(() -> desk.step())).isEqualTo(WorkStep.CHECK);
    hands.click("scratch").type("Vout at 10 mg/L");
    assertThat(text("scratch-answer")).isEqualTo("→ 1.250 V");
    hands.press(KeyCode.ENTER);
    assertThat(channel().journal().notes().getLast().answer()).isEqualTo("1.250 V");
    hands.press(KeyCode.F1);
    assertThat(text("help-text")).contains("parallel").contains("Check:");
    hands.press(KeyCode.ESCAPE);
    assertThat(hands.has("help")).isFalse();
  }

  @Test
  void twoHundredChannelsStayFluid() {
    var many = new ArrayList<Channel>();
    List<Channel> demo = Hatchery.book(1).channels();
    for (int i = 0; i < 200; i++) {
      Channel c = demo.get(i % 3);
      String tag = "CH-%03d with a rather long tag".formatted(i);
      many.add(c.withId("id" + i).define(d -> d.withTag(tag)).journal(j -> j.withLocked(false)));
    }
    open(new Book(many));
    ListView<?> rack = hands.node("rack");
    assertThat(rack.getItems()).hasSize(200);
    hands.run(() -> rack.scrollTo(150));
    hands.press(KeyCode.CONTROL, KeyCode.K).type("CH-150").press(KeyCode.ENTER);
    assertThat(channel().tag()).startsWith("CH-150");
    hands.fill("define-name", "found");
    assertThat(onDisk().channels()).hasSize(200);
    assertThat(onDisk().byId("id150").orElseThrow().definition().name()).isEqualTo("found");
  }

  private void openFromTheDialog(Path file) {
    chosen.add(file);
    hands.press(KeyCode.CONTROL, KeyCode.O);
  }

  @Test
  void foreignFileIsRefusedAndTheOpenBookStays() throws IOException {
    open(Hatchery.book(1));
    openFromTheDialog(Files.writeString(folder.resolve("letter.nocking"), "Dear book,"));
    assertThat(message())
        .contains("letter.nocking is not a bench book")
        .endsWith("The open book is as it was.");
    assertThat(Hands.<Book>ask(() -> desk.book())).isEqualTo(Hatchery.book(1));
    hands.run(() -> desk.select(desk.book().byTag("BL-P1").orElseThrow().id()));
    hands.fill("define-name", "still here");
    assertThat(onDisk().byTag("BL-P1").orElseThrow().definition().name()).isEqualTo("still here");
  }

  @Test
  void newerBookOpensReadOnlyWithAMessage() throws SQLException {
    open(Hatchery.book(1));
    Path newer = DemoBook.at(folder.resolve("newer.nocking"));
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + newer)) {
      c.createStatement().execute("PRAGMA user_version = 7");
    }
    openFromTheDialog(newer);
    assertThat(message()).startsWith("Open read-only: a newer Nocking wrote it (book version 7");
    assertThat(text("lock-state")).isEqualTo("read-only");
  }

  @Test
  void bookThatCannotBeMadeIsSaid() {
    open(Hatchery.book(1));
    // The kernel's own file system refuses new files even to the superuser.
    openFromTheDialog(Path.of("/proc/nocking-test.nocking"));
    assertThat(message()).contains("cannot be made").endsWith("The open book is as it was.");
  }

  @Test
  void onePointAndEqualPointsSayWhyThereIsNoLine() {
    openDemo("GV-P1", WorkStep.COLLECT);
    hands.run(() -> paste("0\t0.5\n"));
    hands.press(KeyCode.CONTROL, KeyCode.V).press(KeyCode.CONTROL, KeyCode.DIGIT5);
    settled();
    assertThat(shown(".caption")).anyMatch(s -> s.startsWith("1 point is too few for "));
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT4);
    hands.run(() -> paste("10\t0.5\n"));
    hands.press(KeyCode.CONTROL, KeyCode.V).press(KeyCode.CONTROL, KeyCode.DIGIT5);
    settled();
    assertThat(shown(".caption"))
        .anyMatch(s -> s.contains("needs two different raw values; all 2 are 0.5."));
  }

  /** Puts a block on the clipboard and the keyboard on the last row of the points. */
  private void paste(String block) {
    var content = new ClipboardContent();
    content.putString(block);
    Clipboard.getSystemClipboard().setContent(content);
    TableView<?> t = (TableView<?>) shell.scene().lookup("#points");
    t.requestFocus();
    t.getSelectionModel().clearAndSelect(t.getItems().size() - 1);
  }

  @Test
  void bookIsCopiedWhole() {
    open(Hatchery.book(1));
    Path copy = folder.resolve("copy.nocking");
    chosen.add(copy);
    hands.press(KeyCode.CONTROL, KeyCode.K).type("Copy book").press(KeyCode.ENTER);
    assertThat(message()).startsWith("The whole book is copied to");
    try (BookFile file = BookFile.openToRead(copy, Clock.systemUTC())) {
      assertThat(file.read()).isEqualTo(Hatchery.book(1));
    }
  }

  @Test
  void secondWindowOnABookIsReadOnly() {
    open(Hatchery.book(1));
    Store second = store(book());
    Store first = Hands.ask(() -> desk.store());
    hands.run(() -> desk.open(second));
    assertThat(message())
        .isEqualTo("Open read-only: another window has it open. Nothing can be changed here.");
    assertThat(first.readOnlyBecause()).isEmpty();
    hands.run(() -> desk.select(desk.book().byTag("BL-P1").orElseThrow().id()));
    hands.fill("define-name", "x");
    assertThat(channel().definition().name()).isEqualTo("Blower manifold");
    hands.click("tab-diagnose");
    hands.fill("diagnose-counts", "50000");
    hands.press(KeyCode.ENTER);
    assertThat(text("diagnose-counts")).isEqualTo("6000");
    assertThat(desk.book().priorWeights()).isEqualTo(PriorWeights.USUAL);
  }

  /** A store whose disk is full. */
  private static final class FullDisk extends MemoryStore {
    FullDisk() {
      super(Hatchery.book(1), "");
    }

    @Override
    public boolean failed() {
      return !saved().isEmpty();
    }

    @Override
    public String state() {
      return failed()
          ? "full.nocking cannot be written: disk full; the work is kept in memory"
          : "open";
    }
  }

  @Test
  void fullDiskIsSaidAndTheWorkGoesOn() {
    open(new FullDisk());
    hands.run(() -> desk.select(desk.book().byTag("BL-P1").orElseThrow().id()));
    hands.fill("define-name", "kept in memory");
    assertThat(message()).contains("disk full; the work is kept in memory");
    assertThat(channel().definition().name()).isEqualTo("kept in memory");
  }
}
