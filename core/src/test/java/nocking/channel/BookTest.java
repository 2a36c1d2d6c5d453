package nocking.channel;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import nocking.Channels;
import nocking.quantity.Value;
import nocking.sensor.Sensor;
import nocking.stage.Divider;
import nocking.stage.Stage;
import org.junit.jupiter.api.Test;

/** The document changes by making a new one. */
class BookTest {
  private static final Channel A = Channel.blank("a", "A-1");
  private static final Channel B = Channel.blank("b", "B-1");

  @Test
  void channelsAreReplacedByTheirIdAndAddedAtTheEnd() {
    Book book = Book.EMPTY.with(A).with(B);
    Channel renamed = A.define(d -> d.withTag("A-2"));
    assertThat(book.with(renamed).channels()).containsExactly(renamed, B);
    assertThat(book.channels()).containsExactly(A, B);
    assertThat(book.without("a").channels()).containsExactly(B);
    assertThat(book.byTag("b-1")).contains(B);
    assertThat(book.byId("none")).isEmpty();
  }

  @Test
  void freeTagsAreFound() {
    Book book = new Book(List.of(A, A.withId("c").define(d -> d.withTag("A-1-2"))));
    assertThat(book.freeTag("Z")).isEqualTo("Z");
    assertThat(book.freeTag("A-1")).isEqualTo("A-1-3");
    assertThat(Book.newId()).isNotEqualTo(Book.newId());
  }

  @Test
  void stagesAreInsertedMovedAndTakenOut() {
    List<Stage> kinds = Stage.kinds().subList(0, 3);
    Channel c =
        A.insertStage(0, kinds.get(0)).insertStage(1, kinds.get(1)).insertStage(2, kinds.get(2));
    assertThat(c.moveStage(0, 2).stages())
        .containsExactly(kinds.get(1), kinds.get(2), kinds.get(0));
    assertThat(c.moveStage(2, 0).stages())
        .containsExactly(kinds.get(2), kinds.get(0), kinds.get(1));
    assertThat(c.removeStage(1).stages()).containsExactly(kinds.get(0), kinds.get(2));
    var other = new Divider(Channels.v(1), Channels.v(2));
    assertThat(c.withStage(1, other).stages().get(1)).isEqualTo(other);
    assertThat(c.stages()).isEqualTo(kinds);
  }

  @Test
  void everyPartIsChangedAlone() {
    Sensor sensor = Sensor.models().getFirst();
    Channel c = A.withSensor(sensor).withLocked(true).withNotes(List.of(new Note("1+1", "2")));
    assertThat(c.withSensor(null).withLocked(false).withNotes(List.of())).isEqualTo(A);
    assertThat(c.withId("z").id()).isEqualTo("z");
    assertThat(c.withAdopted(Adopted.DESIGN).adopted().isDesign()).isTrue();
  }

  @Test
  void pressureIsGaugeUntilSaidOtherwise() {
    Definition d = A.definition().withKind(QuantityKind.PRESSURE);
    assertThat(d.gauge()).isTrue();
    assertThat(d.withGauge(false).withKind(QuantityKind.PRESSURE).gauge()).isFalse();
    assertThat(d.withKind(QuantityKind.LEVEL).gauge()).isNull();
    assertThat(A.withDefinition(d).rest()).isZero();
    Channel absolute =
        A.withDefinition(d.withUnit("kPa").withRange(Value.of(50), Value.of(120)).withGauge(false));
    assertThat(absolute.rest()).as("what stands around it").isEqualTo(101.325);
    assertThat(absolute.define(a -> a.withRest(Value.of(80))).rest()).isEqualTo(80);
    assertThat(d.toleranceOrNaN()).isNaN();
  }
}
