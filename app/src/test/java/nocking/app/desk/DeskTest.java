package nocking.app.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.demo.Hatchery;
import nocking.quantity.QuantityException;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** The state of the window without a window: edits, history, selection, probe, refusals. */
class DeskTest {
  private MemoryStore store;
  private Desk desk;
  private final List<Desk.Change> told = new ArrayList<>();

  @BeforeEach
  void open() {
    store = new MemoryStore(Hatchery.book(1), "");
    desk = new Desk(store);
    desk.select(id("BL-P1"));
    desk.listen(told::add);
  }

  private String id(String tag) {
    return desk.book().byTag(tag).orElseThrow().id();
  }

  private boolean rename(String name, String key) {
    return desk.edit("rename", key, c -> c.define(d -> d.withName(name)));
  }

  private String name() {
    return desk.channel().orElseThrow().definition().name();
  }

  @Test
  void keystrokesOfOneFieldAreOneStepOfUndo() {
    rename("a", "name");
    rename("ab", "name");
    rename("abc", "name");
    desk.seal();
    rename("abcd", "name");
    desk.undo();
    assertThat(name()).isEqualTo("abc");
    desk.undo();
    assertThat(name()).isEqualTo("Blower manifold");
    assertThat(desk.undoable()).isEmpty();
    desk.redo();
    desk.redo();
    assertThat(name()).isEqualTo("abcd");
    assertThat(desk.redoable()).isEmpty();
  }

  @Test
  void newEditForgetsWhatWasUndone() {
    rename("a", "");
    desk.undo();
    rename("b", "");
    assertThat(desk.redoable()).isEmpty();
    assertThat(desk.undoable()).contains("rename");
  }

  @Test
  void everyEditIsHandedToTheStore() {
    rename("a", "");
    desk.undo();
    desk.redo();
    assertThat(store.saved()).containsExactly("rename", "undo rename", "redo rename");
    assertThat(told).contains(Desk.Change.DOCUMENT);
  }

  @Test
  void editThatChangesNothingIsNoStep() {
    rename("Blower manifold", "");
    assertThat(desk.undoable()).isEmpty();
    assertThat(store.saved()).isEmpty();
  }

  @Test
  void lockedChannelRefusesEditsWithASentence() {
    desk.select(id("IN-T2"));
    assertThat(rename("x", "")).isFalse();
    assertThat(desk.message()).isEqualTo("IN-T2 is locked. Unlock it with Ctrl+L first.");
    assertThat(desk.messageIsBad()).isTrue();
    desk.force("unlock", c -> c.journal(j -> j.withLocked(false)));
    assertThat(rename("x", "")).isTrue();
    assertThat(desk.message()).isEmpty();
  }

  @Test
  void readOnlyBookRefusesEverything() {
    Desk other = new Desk(new MemoryStore(Hatchery.book(1), "another window has it open"));
    other.select(id("BL-P1"));
    Book before = other.book();
    other.edit("x", "", c -> c.define(d -> d.withName("x")));
    other.add(Channel.blank("n", "N"), "new");
    other.remove();
    assertThat(other.book()).isEqualTo(before);
    assertThat(other.message()).contains("another window has it open");
  }

  @Test
  void removedChannelGivesTheSelectionToItsNeighbourAndComesBack() {
    desk.remove();
    assertThat(desk.channel().orElseThrow().tag()).isEqualTo("OX-D1");
    desk.undo();
    assertThat(desk.channel().orElseThrow().tag()).isEqualTo("BL-P1");
    for (int i = desk.book().channels().size(); i > 0; i--) desk.remove();
    assertThat(desk.channel()).isEmpty();
    assertThat(desk.editable()).isFalse();
    assertThat(desk.probeState()).isEmpty();
  }

  @Test
  void probeStaysInsideWhatTheSensorIsRatedFor() {
    desk.probe(1e6);
    assertThat(desk.probe()).isEqualTo(100);
    desk.probe(-5);
    assertThat(desk.probe()).isZero();
    desk.probe(Double.NaN);
    assertThat(desk.probe()).isZero();
    desk.probe(30);
    desk.select(id("GV-P1"));
    assertThat(desk.probe()).as("each channel has its own").isEqualTo(110);
    desk.select(id("BL-P1"));
    assertThat(desk.probe()).isEqualTo(30);
  }

  @Test
  void analysisIsMadeOnceForADocument() {
    assertThat(desk.analysis()).isSameAs(desk.analysis());
    var before = desk.analysis();
    rename("x", "");
    assertThat(desk.analysis()).isNotSameAs(before);
  }

  @Test
  void analysesOfDocumentsAsTheyNoLongerAreAreForgotten() {
    Channel former = desk.channel().orElseThrow();
    Channel other = desk.book().byTag("IN-T2").orElseThrow();
    var ofFormer = desk.analysis(former);
    var ofOther = desk.analysis(other);
    rename("a", "");
    assertThat(desk.analysis(other)).as("a channel that stays").isSameAs(ofOther);
    assertThat(desk.analysis(former)).as("one that is no more").isNotSameAs(ofFormer);
  }

  @Test
  void severalEditsAsOneAreUndoneWithOneStepOrNotDone() {
    desk.asOne(
        "two edits",
        () -> {
          rename("a", "");
          rename("b", "");
        });
    assertThat(name()).isEqualTo("b");
    assertThat(store.saved()).as("written at once, never half").containsExactly("two edits");
    desk.undo();
    assertThat(name()).isEqualTo("Blower manifold");
    assertThat(desk.undoable()).isEmpty();
    store.saved().clear();
    assertThatThrownBy(
            () ->
                desk.asOne(
                    "one and a half",
                    () -> {
                      rename("c", "");
                      throw new QuantityException("not understood");
                    }))
        .isInstanceOf(QuantityException.class);
    assertThat(name()).isEqualTo("Blower manifold");
    assertThat(store.saved()).as("what was refused leaves no trace").isEmpty();
    assertThat(desk.redoable()).as("and forgets nothing that was undone").isPresent();
    assertThat(desk.undoable()).isEmpty();
  }

  @Test
  void anotherBookStartsAfresh() {
    rename("x", "");
    desk.step(WorkStep.FIT);
    desk.open(new MemoryStore(Book.EMPTY, ""));
    assertThat(store.saved()).endsWith("close");
    assertThat(desk.undoable()).isEmpty();
    assertThat(desk.step()).isEqualTo(WorkStep.DEFINE);
    assertThat(desk.channel()).isEmpty();
    desk.add(Channel.blank("n", "N-1"), "new");
    assertThat(desk.channel().orElseThrow().tag()).isEqualTo("N-1");
  }

  @Test
  void importedChannelsAreOneStep() {
    desk.addAll(List.of(Channel.blank("x", "X"), Channel.blank("y", "Y")), "import");
    assertThat(desk.channel().orElseThrow().tag()).isEqualTo("X");
    desk.undo();
    assertThat(desk.book()).isEqualTo(Hatchery.book(1));
  }
}
