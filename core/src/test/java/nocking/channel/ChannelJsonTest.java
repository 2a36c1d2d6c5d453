package nocking.channel;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;
import static org.assertj.core.api.Assertions.within;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import nocking.Channels;
import nocking.analysis.Analysis;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.band.SwitchPoint;
import nocking.check.CheckPoint;
import nocking.check.CheckTable;
import nocking.converter.Converter;
import nocking.fit.Coefficient;
import nocking.fit.Trim;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.quantity.Spread;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.LinearSensor;
import nocking.sensor.Sensor;
import nocking.sensor.TwoPointSensor;
import nocking.stage.Stage;
import nocking.table.Arithmetic;
import nocking.table.BenchPairs;
import nocking.table.Cell;
import nocking.table.Demands;
import nocking.table.DisplayLimits;
import nocking.table.Outside;
import nocking.table.Placement;
import nocking.table.ReceiverShape;
import nocking.table.TableGoal;
import nocking.table.TableSpec;
import nocking.table.Transfer;
import nocking.table.TypedCell;
import nocking.wiring.Checklist;
import nocking.wiring.Meter;
import nocking.wiring.Observation;
import nocking.wiring.PairReading;
import nocking.wiring.Pin;
import nocking.wiring.Place;
import nocking.wiring.Thresholds;
import nocking.wiring.WirePlan;
import nocking.wiring.WireStep;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The JSON form loses nothing and is what its schema says. */
class ChannelJsonTest {

  private static Channel full() {
    Spread spread = Spread.percent(1).withTemperatureCoefficient(50);
    Channel c =
        Channels.incubator()
            .design(
                d ->
                    d.withCard(new CardRef("card-1", "Probe", 2))
                        .withSurroundings(Surroundings.of(v(5), v(35), v(0.02)))
                        .withConverter(
                            new Converter(
                                v(12),
                                v(3.3).withSpread(spread),
                                null,
                                v(0.1),
                                v(2),
                                v(1),
                                v(16),
                                v(1e-3))))
            .calibration(
                k ->
                    k.withPoints(
                        Channels.points(new double[] {4, 9, 14}, x -> 1.65 + 0.269 * (x - 9))))
            .design(d -> d.withStages(Stage.kinds()).withOverload(new Overload(v(20), v(30))))
            .receiver(r -> r.withStored(stored()).withLimits(new DisplayLimits(v(0), null)))
            .receiver(ChannelJsonTest::table)
            .journal(j -> j.withNotes(List.of(new Note("4k7 || 10k", "3.197 k"))))
            .wiring(
                w ->
                    w.withPlan(wiring())
                        .withBands(bands())
                        .withChecklist(
                            Checklist.EMPTY
                                .plus(WireStep.Phase.BEFORE, "Drip loop below the gland.")
                                .with(
                                    new Checklist.Tick(
                                        "Crimp, then pull by hand.", "2026-03-01T10:00", "K", "1")))
                        .withObservations(
                            List.of(
                                new Observation(Place.DISPLAY, v(9), v(9.4)),
                                new Observation(
                                    Place.testPoint(3), null, Value.typed("1.65 V", Unit.VOLT)))))
            .journal(j -> j.withLocked(true));
    PointSet points = c.calibration().points();
    PointSet without = points.with(1, points.points().get(1).withLeftOut("bath not \"settled\""));
    return Analysis.of(c.calibration(k -> k.withPoints(without)))
        .calibration()
        .adopting("line")
        .calibration(k -> k.withTrim(new Trim(v(0), v(0.3), v(14), v(14.1))))
        .define(d -> d.withHazards(List.of(Hazard.HEAT)));
  }

  /** A table with all that can be said of one, half typed in, after one that went over. */
  private static Receiver table(Receiver r) {
    var typed =
        List.of(new TypedCell(0.3, 4, true, 0.3, 4.1), new TypedCell(2.9, 14, false, null, null));
    TableSpec spec =
        new TableSpec(12, RawUnit.COUNTS, true, 0, 2)
            .with(new TableGoal(Placement.EVERY, 3, false, "0.5", true))
            .with(new Arithmetic(true, 0, 12, 16, Outside.FAULT))
            .with(new Demands("Gate", false, List.of(0.0, 100.0), v(0), v(4095)))
            .withHand(new Cell(120, 5));
    return r.withTable(spec)
        .withBench(new BenchPairs("bench", RawUnit.COUNTS, List.of(1.0, 2.0), List.of(4.0, 14.0)))
        .withTyping(typed)
        .withTransfers(
            List.of(
                new Transfer(
                    "2026-03-01T10:00:00Z", "K", "typed in", "", RawUnit.VOLTS, "°C", typed)));
  }

  /**
   * Pairs, cells by hand and a bare tolerance follow the unit; what went over stays what it was.
   */
  @Test
  void whatTheReceiverWantsFollowsTheUnit() {
    Channel c = full().design(d -> d.withStages(List.of()));
    Receiver f = UnitChange.apply(c, Unit.of("°F")).receiver();
    assertThat(f.bench().truth()).containsExactly(39.2, 57.2);
    assertThat(f.bench().raw()).isEqualTo(c.receiver().bench().raw());
    assertThat(f.table().byHand()).containsExactly(new Cell(120, 41));
    assertThat(f.table().goal().tolerance()).isEqualTo("0.9");
    assertThat(f.typing()).as("a list of the old unit").isEmpty();
    assertThat(f.transfers()).isEqualTo(c.receiver().transfers());
    for (String same : List.of("1.5 LSB", "2 %", "0.5 K")) {
      Channel typed =
          c.receiver(r -> r.withTable(r.table().with(r.table().goal().withTolerance(same))));
      assertThat(UnitChange.apply(typed, Unit.of("°F")).receiver().table().goal().tolerance())
          .isEqualTo(same);
    }
  }

  private static StoredCurve stored() {
    return new StoredCurve(
        "as it was",
        "°C",
        new TwoPointSensor(v(0), v(0.5), v(50), v(4.5), v(0)),
        List.of(Stage.kinds().getFirst()),
        new Adopted(
            "line", List.of(new Coefficient("b0", 1, 0.1), new Coefficient("b1", 2, 0.1)), 3),
        new Trim(v(0), v(0.2), null, null));
  }

  private static WirePlan wiring() {
    var pin = new Pin(Pin.Function.SIGNAL, "white", "A1", "J1-3", v(12), v(0.59), v(0.4));
    return WirePlan.of(v(5), List.of(Pin.of(Pin.Function.GROUND, "black", "J1-2"), pin))
        .withPair(0, 1, PairReading.read("OL"))
        .withThresholds(new Thresholds(v(0.15), null));
  }

  private static BandPlan bands() {
    var position =
        new BandPosition("drain", v(1.2), v(0.2), List.of(v(1.21)), List.of(v(1.19), v(1.18)));
    return BandPlan.EMPTY
        .withPositions(List.of(position, BandPosition.of("bypass", v(2))))
        .withDwell(v(0.5))
        .withLever(v(60), v(100))
        .withAlarms(List.of(new AlarmBand("low", null, v(5)), new AlarmBand("high", v(5), null)))
        .withHysteresis(v(0.2))
        .withSwitches(List.of(new SwitchPoint("contact", v(5), v(1), v(5.2), null, false)));
  }

  /** What is stated in the quantity goes over to another unit; volts and ohms stay. */
  @Test
  void bandsAndWhatWasSeenFollowTheUnit() {
    Channel f = UnitChange.apply(full().design(d -> d.withStages(List.of())), Unit.of("°F"));
    assertThat(f.wiring().bands().alarms().getFirst().to().number()).isEqualTo(41);
    assertThat(f.wiring().bands().hysteresis().number()).isEqualTo(0.36);
    assertThat(f.wiring().bands().switches().getFirst().window().number()).isEqualTo(1.8);
    assertThat(f.wiring().bands().switches().getFirst().at().number()).isEqualTo(41);
    assertThat(f.wiring().bands().positions()).isEqualTo(bands().positions());
    assertThat(f.wiring().seen().getFirst().value().number()).isCloseTo(48.92, within(1e-9));
    assertThat(f.wiring().seen().getFirst().at().number()).isCloseTo(48.2, within(1e-9));
    assertThat(f.wiring().seen().get(1)).isEqualTo(full().wiring().seen().get(1));
    assertThat(f.wiring().plan()).isEqualTo(full().wiring().plan());
  }

  private static final PriorWeights WEIGHED =
      new PriorWeights(new Meter(0.2, 3, 4000, 1e6), Map.of(FaultKind.SWAPPED, 9.0));

  @Test
  void roundTripLosesNothing() {
    for (Sensor s : Sensor.models()) {
      Channel c = full().design(d -> d.withSensor(s));
      assertThat(ChannelJson.readChannel(ChannelJson.write(c), "c.json")).isEqualTo(c);
      assertThat(ChannelJson.readCompact(ChannelJson.compact(c), "c")).isEqualTo(c);
    }
    var gate = new ReceiverShape("Gate", full().receiver().table());
    Book book = new Book(List.of(full(), Channel.blank("x", "NEW"))).withShapes(List.of(gate));
    assertThat(ChannelJson.readAny(ChannelJson.write(book), "b.json")).isEqualTo(book);
    Book weighed = book.withPriorWeights(WEIGHED);
    assertThat(ChannelJson.readAny(ChannelJson.write(weighed), "b.json")).isEqualTo(weighed);
  }

  /** A book from before there were weights has the usual ones; wrong ones are named. */
  @Test
  void weightsOfABookAreReadOrRefused() {
    String json = ChannelJson.write(Book.EMPTY.withPriorWeights(WEIGHED));
    String without = json.replaceAll("(?s),\\s*\"weighing\" : \\{.*", "}}");
    assertThat(ChannelJson.readAny(without, "b.json").priorWeights()).isEqualTo(PriorWeights.USUAL);
    assertThatThrownBy(() -> ChannelJson.readAny(json.replace(": 9.0", ": -9.0"), "b.json"))
        .hasMessageContaining("'supply and ground swapped' must be 0 to 1000; read -9");
    assertThatThrownBy(() -> ChannelJson.readAny(json.replace(": 4000", ": 4"), "b.json"))
        .hasMessageContaining("at least 100 counts; read 4");
    assertThatThrownBy(() -> ChannelJson.readAny(json.replace("swapped", "gremlins"), "b.json"))
        .isInstanceOf(DocumentException.class)
        .hasMessageContaining("weighing.weights")
        .hasMessageContaining("gremlins");
  }

  /**
   * Sensors, stages and converter in the shipped schema are those of the records. After a change of
   * the models {@code -Dnocking.schema=write} on the test run writes the file anew.
   */
  @Test
  void schemaKnowsEveryElement() throws IOException {
    var mapper = JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();
    Path file = Path.of("src/main/resources/nocking/channel", ChannelJson.SCHEMA);
    var schema = (ObjectNode) mapper.readTree(Files.readString(file));
    var channel = (ObjectNode) schema.at("/$defs/channel/properties");
    var expected = channel.deepCopy();
    expected.set("sensor", mapper.valueToTree(ElementSchema.sensors()));
    expected.set("stages", mapper.valueToTree(ElementSchema.stages()));
    expected.set("converter", mapper.valueToTree(ElementSchema.converter()));
    if (System.getProperty("nocking.schema", "").equals("write")) {
      channel.setAll(expected);
      Files.writeString(file, mapper.writeValueAsString(schema) + "\n");
    }
    assertThat(channel).isEqualTo(expected);
  }

  /** Nothing that the schema lets be null is called missing: a stored channel would go unseen. */
  @Test
  void whatMayBeNullIsNotMissing() throws IOException {
    String text =
        Files.readString(Path.of("src/main/resources/nocking/channel/channel.schema.json"));
    Schema schema =
        SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12).getSchema(text);
    var mapper = JsonMapper.builder().build();
    int allowed = 0;
    // What does not belong to the sensor is looked at with one of them.
    String within = "";
    for (Sensor s : Sensor.models()) {
      Channel c =
          full()
              .design(d -> d.withSensor(s))
              .acceptance(
                  a ->
                      a.withCheck(
                          new CheckTable(
                              CheckTable.Measured.VOLTS, List.of(new CheckPoint(v(9), v(1))))));
      String whole = ChannelJson.write(c);
      for (String pointer : pointers(mapper.readTree(whole), "")) {
        if (!pointer.startsWith(within)) continue;
        JsonNode root = mapper.readTree(whole);
        int cut = pointer.lastIndexOf('/');
        if (!(root.at(pointer.substring(0, cut)) instanceof ObjectNode parent)) continue;
        parent.putNull(pointer.substring(cut + 1));
        String odd = mapper.writeValueAsString(root);
        if (!schema.validate(odd, InputFormat.JSON).isEmpty()) continue;
        allowed++;
        String compact = mapper.writeValueAsString(root.get("channel"));
        Throwable refused = catchThrowable(() -> ChannelJson.readCompact(compact, "c"));
        // Two limits of which one must be there are another matter.
        if (refused != null)
          assertThat(refused.getMessage()).as(pointer).doesNotContain("is missing");
      }
      within = "/channel/sensor/";
    }
    assertThat(allowed).isGreaterThan(50);
  }

  private static List<String> pointers(JsonNode node, String path) {
    var list = new ArrayList<String>();
    for (String name : node.propertyNames()) {
      list.add(path + "/" + name);
      list.addAll(pointers(node.get(name), path + "/" + name));
    }
    for (int k = 0; node.isArray() && k < node.size(); k++) {
      list.addAll(pointers(node.get(k), path + "/" + k));
    }
    return list;
  }

  @Test
  void documentIsWhatTheSchemaSays() throws IOException {
    String text;
    try (var in = ChannelJson.class.getResourceAsStream(ChannelJson.SCHEMA)) {
      text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
    }
    Schema schema =
        SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12).getSchema(text);
    for (Sensor s : Sensor.models()) {
      assertThat(
              schema.validate(
                  ChannelJson.write(full().design(d -> d.withSensor(s))), InputFormat.JSON))
          .isEmpty();
    }
    assertThat(schema.validate(ChannelJson.write(Channel.blank("x", "NEW")), InputFormat.JSON))
        .isEmpty();
    assertThat(schema.validate("{\"format\": \"nocking-channel-1\"}", InputFormat.JSON))
        .isNotEmpty();
    String wrong = ChannelJson.write(full()).replaceFirst("\"difference-amp\"", "\"magic\"");
    assertThat(schema.validate(wrong, InputFormat.JSON)).isNotEmpty();
  }

  /** What a hand may leave out or spoil is said with its place. */
  @Test
  void sensorsThatAreNotWholeAreRefused() {
    String table =
        ChannelJson.write(
            Channels.blower()
                .design(
                    d ->
                        d.withSensor(
                            Sensor.models().stream()
                                .filter(s -> s.model().equals("table"))
                                .findFirst()
                                .orElseThrow())));
    assertRefused(
        table.replaceAll(
            "(?s)\"points\" : \\[ \\{.*?\"interpolation", "\"points\" : [], \"interpolation"),
        "a table needs at least two rows; it has 0");
    assertRefused(
        table.replace("\"interpolation\" : \"linear\"", "\"interpolation\" : null"),
        "channel.sensor.interpolation is missing");
    assertRefused(table.replace("\"linear\"", "\"wavy\""), "wavy");
    assertRefused(
        table.replaceFirst("\"output\" : 0.5", "\"output\" : null"), "a row of a table needs");
    assertRefused(table.replaceFirst("0.5", "\"about a half\""), "c.json");
  }

  private static void assertRefused(String json, String says) {
    assertThatThrownBy(() -> ChannelJson.readChannel(json, "c.json"))
        .isInstanceOf(DocumentException.class)
        .hasMessageStartingWith("c.json")
        .hasMessageContaining(says);
  }

  @Test
  void handWrittenValuesAreTaken() {
    String json = ChannelJson.write(Channels.blower());
    Channel c =
        ChannelJson.readChannel(
            json.replace("\"lower\" : 10000.0", "\"lower\" : \"2*4k7\""), "c.json");
    assertThat(c.design().stages().getFirst().number("R2")).isEqualTo(9400);
    assertThatThrownBy(
            () ->
                ChannelJson.readChannel(
                    json.replace("\"high\" : 60.0", "\"high\" : \"25 psi\""), "c.json"))
        .isInstanceOf(DocumentException.class)
        .hasMessage(
            "c.json: at channel.definition.high: '25 psi' has a unit; write the number in the channel's own unit");
  }

  @Test
  void anotherUnitKeepsTheChannelWhatItIs() {
    Channel kPa =
        Channels.blower()
            .calibration(
                k ->
                    k.withPoints(
                        Channels.points(new double[] {0, 30, 60}, x -> 0.26 + 0.0278 * x)));
    Channel psi = UnitChange.apply(kPa, Unit.of("psi"));
    assertThat(psi.definition().high().number()).isCloseTo(8.70226, within(1e-5));
    var before = Analysis.of(kPa).design().path().orElseThrow();
    var after = Analysis.of(psi).design().path().orElseThrow();
    assertThat(after.output(8.7022642)).isCloseTo(before.output(60), within(1e-7));
    assertThat(Analysis.of(psi).calibration().fit("line").orElseThrow().worstError())
        .isCloseTo(
            Analysis.of(kPa).calibration().fit("line").orElseThrow().worstError() / 6.894757,
            within(1e-7));

    Channel fahrenheit = UnitChange.apply(Channels.incubator(), Unit.of("degF"));
    assertThat(fahrenheit.definition().low().number()).isCloseTo(39.2, within(1e-9));
    assertThat(fahrenheit.definition().tolerance().number()).isCloseTo(0.18, within(1e-9));
    LinearSensor sensor = (LinearSensor) fahrenheit.design().sensor();
    assertThat(sensor.at().number()).isCloseTo(32, within(1e-9));
    assertThat(sensor.slope().number()).isCloseTo(0.02 / 1.8, within(1e-12));
    assertThat(Analysis.of(fahrenheit).design().path().orElseThrow().output(48.2))
        .isCloseTo(1.65, within(1e-9));
  }

  @Test
  void rangesAndTolerancesMustMakeSense() {
    assertThatThrownBy(() -> Channels.blower().define(d -> d.withRange(v(60), v(0))))
        .hasMessage("the working range must rise: read 60 … 0");
    assertThatThrownBy(() -> Channels.blower().define(d -> d.withTolerance(Value.of(0))))
        .hasMessage("a tolerance must be above 0; read 0");
  }
}
