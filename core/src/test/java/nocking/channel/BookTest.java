package nocking.channel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import nocking.Channels;
import nocking.check.CheckTable;
import nocking.converter.Converter;
import nocking.parts.StockPart;
import nocking.prior.PriorWeights;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Instrument;
import nocking.sensor.Sensor;
import nocking.stage.Divider;
import nocking.stage.Stage;
import nocking.table.DisplayLimits;
import nocking.table.ReceiverShape;
import nocking.table.TableSpec;
import nocking.wiring.Checklist;
import nocking.wiring.Meter;
import nocking.wiring.Observation;
import nocking.wiring.Place;
import nocking.wiring.Supplied;
import nocking.wiring.WireStep;
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
  void aTagBelongsToOneChannel() {
    Book book = new Book(List.of(A, B));
    book.requireTag("a-1", "a");
    book.requireTag("C-1", "a");
    assertThatThrownBy(() -> book.requireTag("b-1", "a"))
        .isInstanceOf(QuantityException.class)
        .hasMessage("B-1 is taken by another channel");
    assertThatThrownBy(() -> book.requireTag(" ", "a")).hasMessage("a channel needs a tag");
  }

  @Test
  void aHazardIsMarkedOnce() {
    Channel heat = A.define(d -> d.withHazard(Hazard.HEAT, true).withHazard(Hazard.HEAT, true));
    assertThat(heat.definition().hazards()).containsExactly(Hazard.HEAT);
    Channel both = heat.define(d -> d.withHazard(Hazard.MAINS, true));
    assertThat(both.definition().hazards()).containsExactly(Hazard.HEAT, Hazard.MAINS);
    assertThat(both.define(d -> d.withHazard(Hazard.HEAT, false)).definition().hazards())
        .containsExactly(Hazard.MAINS);
    assertThat(A.define(d -> d.withHazard(Hazard.HEAT, false))).isEqualTo(A);
  }

  @Test
  void freeTagsAreFound() {
    Book book = new Book(List.of(A, A.withId("c").define(d -> d.withTag("A-1-2"))));
    assertThat(book.freeTag("Z")).isEqualTo("Z");
    assertThat(book.freeTag("A-1")).isEqualTo("A-1-3");
    assertThat(Book.newId()).isNotEqualTo(Book.newId());
  }

  /** Neither a channel of the book nor another of the same file is written over. */
  @Test
  void channelsFromOutsideFindAPlaceOfTheirOwn() {
    Book book = new Book(List.of(A));
    Channel twin = A.withId("x").define(d -> d.withName("another"));
    List<Channel> placed = book.placing(List.of(A, twin, B, twin));
    assertThat(placed).extracting(Channel::tag).containsExactly("A-1-2", "A-1-3", "B-1", "A-1-4");
    assertThat(placed.get(2)).isSameAs(B);
    assertThat(placed).extracting(Channel::id).doesNotHaveDuplicates().doesNotContain("a");
    Book next = book;
    for (Channel c : placed) next = next.with(c);
    assertThat(next.channels()).hasSize(5).startsWith(A);
  }

  @Test
  void whatLiesOnTheOwnShelfStays() {
    SensorCard card = card("1", "Own");
    SensorCard other = card("2", "Other");
    var ohms = new StockPart("1k", 1000, 1, 0.25, 250, 3);
    var more = new StockPart("2k", 2000, 1, 0.25, 250, 5);
    var meter = new PriorWeights(new Meter(0.2, 3, 4000, 1e6), Map.of());
    Book from =
        new Book(
            List.of(B),
            List.of(card("1", "Theirs"), other),
            List.of(more),
            meter,
            List.of(Instrument.byHand("Rule", Unit.of("mm"))),
            List.of(new ReceiverShape("theirs", TableSpec.DEFAULT)));
    assertThat(Book.EMPTY.withShelfOf(from)).isEqualTo(from.withChannels(List.of()));
    Book own =
        new Book(
            List.of(A),
            List.of(card),
            List.of(ohms),
            meter,
            List.of(Instrument.byHand("Own", Unit.VOLT)),
            List.of(new ReceiverShape("own", TableSpec.DEFAULT)));
    Book taken = own.withShelfOf(from.withPriorWeights(PriorWeights.USUAL));
    assertThat(taken).isEqualTo(own.with(other));
  }

  /** Whatever part of a channel changes, the sentence says so. */
  @Test
  void everyDifferenceIsSaid() {
    Channel c = Channels.incubator();
    assertThat(Differences.between(c, c)).isEqualTo("The channel is as in this revision.");
    says(c, c.define(d -> d.withTolerance(Value.of(0.3))), "tolerance 0.3, then");
    says(c, c.design(d -> d.withSensor(null)), "sensor is another");
    says(c, c.design(d -> d.withStages(List.of())), "0 stages, then 1");
    says(c, c.design(d -> d.withConverter(Converter.of(10, 3.3))), "N 10, then 12");
    says(c, c.design(d -> d.withCard(new CardRef("1", "Own", 1))), "sensor card changed");
    says(
        c,
        c.design(d -> d.withSurroundings(d.surroundings().withReference(Value.of(0.1)))),
        "surroundings changed");
    says(c, c.wiring(w -> w.withPlan(w.plan().withSupply(Value.of(5)))), "wiring changed");
    says(c, c.wiring(w -> w.withBands(w.bands().withDwell(Value.of(1)))), "bands changed");
    Observation seen = new Observation(Place.DISPLAY, null, Value.of(1));
    says(c, c.wiring(w -> w.withObservations(List.of(seen))), "what was seen changed");
    assertThat(c.calibration().byDesign()).isTrue();
    says(c, c.calibration(k -> k.withAdopted(Adopted.DESIGN)), "adopted model changed");
    says(
        c,
        c.calibration(k -> k.withPoints(Channels.points(new double[] {4, 9}, x -> x / 10))),
        "points: 2, then");
    says(c, c.receiver(r -> r.withTable(TableSpec.DEFAULT)), "table changed");
    says(
        c,
        c.receiver(r -> r.withStored(StoredCurve.asItStands(c))),
        "receiver's own curve changed");
    says(
        c,
        c.receiver(r -> r.withLimits(new DisplayLimits(null, Value.of(99)))),
        "display limits changed");
    says(
        c,
        c.design(d -> d.withOverload(new Overload(Value.of(50), null))),
        "overload limits changed");
    says(
        c,
        c.wiring(
            w -> w.withChecklist(Checklist.EMPTY.plus(WireStep.Phase.MAKE, "Label both ends."))),
        "wiring steps changed");
    says(
        c,
        c.acceptance(a -> a.withCheck(new CheckTable(CheckTable.Measured.COUNTS, List.of()))),
        "check changed");
    says(c, c.journal(j -> j.withNotes(List.of(new Note("1+1", "2")))), "notes changed");
  }

  private static void says(Channel then, Channel now, String words) {
    assertThat(Differences.between(then, now)).startsWith("Since then: ").contains(words);
    assertThat(then).isNotEqualTo(now);
  }

  private static SensorCard card(String id, String name) {
    Sensor any = Sensor.models().getFirst();
    return new SensorCard(id, name, "", "", QuantityKind.PRESSURE, "kPa", any, 1)
        .withSupplied(Supplied.USUAL);
  }

  @Test
  void stagesAreInsertedMovedAndTakenOut() {
    List<Stage> kinds = Stage.kinds().subList(0, 3);
    Channel c =
        A.design(
            d ->
                d.insertStage(0, kinds.get(0))
                    .insertStage(1, kinds.get(1))
                    .insertStage(2, kinds.get(2)));
    assertThat(c.design(d -> d.moveStage(0, 2)).design().stages())
        .containsExactly(kinds.get(1), kinds.get(2), kinds.get(0));
    assertThat(c.design(d -> d.moveStage(2, 0)).design().stages())
        .containsExactly(kinds.get(2), kinds.get(0), kinds.get(1));
    assertThat(c.design(d -> d.removeStage(1)).design().stages())
        .containsExactly(kinds.get(0), kinds.get(2));
    var other = new Divider(Channels.v(1), Channels.v(2));
    assertThat(c.design(d -> d.withStage(1, other)).design().stages().get(1)).isEqualTo(other);
    assertThat(c.design().stages()).isEqualTo(kinds);
  }

  @Test
  void everyPartIsChangedAlone() {
    Sensor sensor = Sensor.models().getFirst();
    Channel c =
        A.design(d -> d.withSensor(sensor))
            .journal(j -> j.withLocked(true).withNotes(List.of(new Note("1+1", "2"))));
    assertThat(
            c.design(d -> d.withSensor(null))
                .journal(j -> j.withLocked(false).withNotes(List.of())))
        .isEqualTo(A);
    assertThat(c.withId("z").id()).isEqualTo("z");
    assertThat(c.calibration(k -> k.withAdopted(Adopted.DESIGN)).calibration().adopted().isDesign())
        .isTrue();
  }

  /** What somebody set by hand stays, whatever the quantity is called afterwards. */
  @Test
  void hazardsGoWithTheKindUntilSomebodySetsThem() {
    Definition d = A.definition().withHazards(List.of());
    Definition pressure = d.measuring(QuantityKind.PRESSURE);
    assertThat(pressure.hazards()).containsExactly(Hazard.PRESSURE);
    assertThat(pressure.measuring(QuantityKind.LEVEL).hazards()).isEmpty();
    Definition byHand = pressure.withHazard(Hazard.MAINS, true);
    assertThat(byHand.measuring(QuantityKind.LEVEL).hazards())
        .containsExactly(Hazard.PRESSURE, Hazard.MAINS);
    assertThat(d.withHazard(Hazard.HEAT, true).measuring(QuantityKind.PRESSURE).hazards())
        .containsExactly(Hazard.HEAT, Hazard.PRESSURE);
    assertThat(pressure.withHazards(List.of()).measuring(QuantityKind.ANGLE).hazards()).isEmpty();
  }

  @Test
  void pressureIsGaugeUntilSaidOtherwise() {
    Definition none = A.definition().withKind(QuantityKind.PRESSURE);
    assertThat(none.gauge()).as("no pressure is measured in %s", none.unit()).isNull();
    Definition d = none.withUnit("kPa");
    assertThat(d.gauge()).isTrue();
    assertThat(d.withUnit("mm").gauge()).isNull();
    assertThat(d.withGauge(false).withKind(QuantityKind.PRESSURE).gauge()).isFalse();
    assertThat(d.withKind(QuantityKind.LEVEL).gauge()).isNull();
    assertThat(A.design(next -> next.withDefinition(d)).design().rest()).isZero();
    Channel absolute =
        A.design(
            design ->
                design.withDefinition(
                    d.withUnit("kPa").withRange(Value.of(50), Value.of(120)).withGauge(false)));
    assertThat(absolute.design().rest()).as("what stands around it").isEqualTo(101.325);
    assertThat(absolute.define(a -> a.withRest(Value.of(80))).design().rest()).isEqualTo(80);
    assertThat(d.toleranceOrNaN()).isNaN();
  }
}
