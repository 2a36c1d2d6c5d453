package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import nocking.analysis.Analysis;
import nocking.analysis.ChannelState;
import nocking.app.control.StateSign;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.channel.WorkStep;
import nocking.demo.Hatchery;
import nocking.quantity.Value;
import nocking.wiring.Supplied;
import org.junit.jupiter.api.Test;

/** The rack says of every channel what is so now, whether the channel is looked at or not. */
class RackTest extends WindowTest {

  /** What a screen reader says of the row of a channel. */
  private String row(String tag) {
    return Hands.ask(
        () ->
            ((ListView<?>) shell.scene().lookup("#rack"))
                .lookupAll(".list-cell").stream()
                    .map(n -> ((ListCell<?>) n).getAccessibleText())
                    .filter(t -> t != null && t.startsWith(tag + ","))
                    .findFirst()
                    .orElse(""));
  }

  private static String sign(Channel c, Book book) {
    return StateSign.words(ChannelState.of(Analysis.of(c, book.cards())));
  }

  private static SensorCard card(Channel of, int revision) {
    return new SensorCard(
            "gate",
            "Gate stroke",
            "",
            "",
            of.definition().kind(),
            of.definition().unit(),
            of.design().sensor(),
            revision)
        .withSupplied(Supplied.USUAL);
  }

  @Test
  void everyRowIsFilledThoughOneChannelIsLookedAt() {
    openDemo("IN-T2", WorkStep.DEFINE);
    Book book = Hands.ask(() -> desk.book());
    for (Channel c : book.channels()) {
      assertThat(row(c.tag())).as(c.tag()).endsWith(", " + sign(c, book));
    }
  }

  /** A card that is changed on one channel wants attention on the other that took it. */
  @Test
  void aChangedCardIsSeenOnEveryChannelThatTookIt() {
    Book demo = Hatchery.book(Hatchery.SEED);
    Channel gate = demo.byTag("GV-P1").orElseThrow();
    SensorCard card = card(gate, 1);
    Channel one =
        gate.withId("1").define(d -> d.withTag("ONE")).design(d -> d.withCard(card.ref()));
    Channel two = one.withId("2").define(d -> d.withTag("TWO"));
    open(new Book(List.of(one, two)).withCards(List.of(card)));
    settled();
    assertThat(row("TWO")).doesNotContain("needs attention");
    hands.run(() -> desk.editBook("keep card", "", b -> b.with(card(gate, 2))));
    settled();
    assertThat(row("ONE")).endsWith("needs attention");
    assertThat(row("TWO")).endsWith("needs attention");
    hands.run(desk::undo);
    settled();
    assertThat(row("TWO")).doesNotContain("needs attention");
  }

  /** An edit, its undo, and an edit while the others are still being worked out. */
  @Test
  void rowsFollowTheEdits() {
    open(Hatchery.book(Hatchery.SEED));
    hands.run(
        () -> {
          desk.select(desk.book().byTag("RW-T1").orElseThrow().id());
          desk.edit("tolerance", "", c -> c.define(d -> d.withTolerance(Value.of(1e-6))));
        });
    settled();
    Book book = Hands.ask(() -> desk.book());
    for (Channel c : book.channels()) assertThat(row(c.tag())).endsWith(sign(c, book));
    hands.run(desk::undo);
    settled();
    Book before = Hands.ask(() -> desk.book());
    for (Channel c : before.channels()) assertThat(row(c.tag())).endsWith(sign(c, before));
  }
}
