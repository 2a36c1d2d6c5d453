package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.book.BookFile;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.TableColumns;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.demo.Hatchery;
import nocking.fit.Fit;
import nocking.fit.Samples;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What the program writes of its points is read by each of its commands as what it is. */
class RoundTripTest {
  private static final Book BOOK = Hatchery.book(Hatchery.SEED);

  @TempDir Path folder;

  static Stream<String> tags() {
    return BOOK.channels().stream()
        .filter(c -> c.calibration().points().points().stream().anyMatch(ReferencePoint::counts))
        .map(Channel::tag);
  }

  private Channel channel(String tag) {
    return BOOK.byTag(tag).orElseThrow();
  }

  private Path book() throws IOException {
    Path book = folder.resolve("b.nocking");
    if (Files.exists(book)) return book;
    try (BookFile f = BookFile.open(book, Clock.systemUTC())) {
      f.save(Book.EMPTY, BOOK, "all");
    }
    return book;
  }

  private Path export(String tag) throws IOException {
    Path csv = folder.resolve("p.csv");
    Console c = Console.run("export", book().toString(), tag, "--out", csv.toString());
    assertThat(c.code()).as(c.err()).isZero();
    return csv;
  }

  private static JsonNode json(Console c) {
    return JsonMapper.shared().readTree(c.out());
  }

  @ParameterizedTest
  @MethodSource("tags")
  void fitGivesTheNumbersOfTheWindow(String tag) throws IOException {
    Path csv = export(tag);
    Path document = folder.resolve("c.json");
    Files.writeString(document, ChannelJson.write(channel(tag)));
    Console c = Console.run("fit", csv.toString(), "--channel", document.toString(), "--json");
    assertThat(c.code()).as(c.err()).isZero();
    List<Fit> own = Analysis.of(channel(tag)).calibration().fits();
    assertThat(own).isNotEmpty();
    for (Fit f : own) {
      JsonNode there = null;
      for (JsonNode m : json(c).get("models")) {
        if (m.get("model").asString().equals(f.model())) there = m;
      }
      assertThat(there).as(f.model()).isNotNull();
      assertThat(there.get("worstError").asDouble())
          .as("%s of %s", f.model(), tag)
          .isCloseTo(f.worstError(), within(1e-9 * (1 + Math.abs(f.worstError()))));
    }
  }

  @ParameterizedTest
  @MethodSource("tags")
  void tableTakesThePairsOfTheChannel(String tag) throws IOException {
    Path csv = export(tag);
    Channel c = channel(tag);
    TableColumns read = TableColumns.of(ColumnFile.read(csv), null, null, null);
    List<ReferencePoint> counting =
        c.calibration().points().points().stream().filter(ReferencePoint::counts).toList();
    assertThat(read.pairs().quantity())
        .containsExactly(counting.stream().mapToDouble(p -> p.applied().number()).toArray());
    assertThat(read.axis()).isEqualTo(c.calibration().points().raw());
    double step = Math.pow(10, -read.rawDecimals());
    for (int i = 0; i < counting.size(); i++) {
      assertThat(read.pairs().raw()[i]).isCloseTo(counting.get(i).mean(), within(step / 2 + 1e-9));
    }
    assertThat(read.unit()).isEqualTo(c.unit());
  }

  @ParameterizedTest
  @MethodSource("tags")
  void checkJudgesThePointsByTheChannelsOwnCurve(String tag) throws IOException {
    Path csv = export(tag);
    Console c =
        Console.run("check", book().toString(), tag, "--measured", csv.toString(), "--json");
    assertThat(c.code()).as(c.err()).isLessThanOrEqualTo(NockingCli.FAIL);
    Analysis a = Analysis.of(channel(tag));
    Samples points = a.calibration().samples();
    JsonNode rows = json(c).get("points");
    assertThat(rows.size()).isEqualTo(points.size());
    for (int i = 0; i < points.size(); i++) {
      double reading = a.calibration().curve().orElseThrow().quantity(points.raw()[i]);
      double error = reading - points.quantity()[i];
      if (Double.isNaN(error)) continue;
      assertThat(rows.get(i).get("error").asDouble())
          .as("%s, point %d", tag, i)
          .isCloseTo(error, within(1e-6 * (1 + Math.abs(reading))));
    }
  }

  static Stream<String> unlocked() {
    return tags().filter(t -> !BOOK.byTag(t).orElseThrow().journal().locked());
  }

  @ParameterizedTest
  @MethodSource("unlocked")
  void importGivesThePointsBack(String tag) throws IOException {
    Path csv = export(tag);
    Channel c = channel(tag);
    PointSet was = c.calibration().points();
    try (BookFile f = BookFile.open(book(), Clock.systemUTC())) {
      f.save(c.calibration(k -> k.withPoints(new PointSet(was.raw(), List.of()))), "emptied");
    }
    Console in =
        Console.run(
            "import", csv.toString(), "--book", book().toString(), "--channel", tag, "--force");
    assertThat(in.code()).as(in.err()).isZero();
    PointSet now;
    try (BookFile f = BookFile.openToRead(book(), Clock.systemUTC())) {
      now = f.read().byTag(tag).orElseThrow().calibration().points();
    }
    assertThat(now.raw()).isEqualTo(was.raw());
    assertThat(now.points()).hasSameSizeAs(was.points());
    for (int i = 0; i < was.points().size(); i++) {
      ReferencePoint before = was.points().get(i);
      ReferencePoint after = now.points().get(i);
      assertThat(after.applied().number()).isEqualTo(before.applied().number());
      assertThat(after.mean()).isEqualTo(before.mean());
      assertThat(after.down()).isEqualTo(before.down());
      assertThat(after.leftOut()).isEqualTo(before.leftOut());
    }
  }

  /** The program's own table, as a list of pairs again. */
  @Test
  void aTableThatWasWrittenIsReadAsWhatItIs() throws IOException {
    Path csv = folder.resolve("pairs.csv");
    Files.writeString(csv, "applied,reading\nL,V\n0,0.5\n50,1.4\n100,2.1\n150,2.6\n200,3\n");
    Path out = folder.resolve("t.csv");
    Console made =
        Console.run("table", csv.toString(), "--cells", "5", "--out", out.toString(), "--json");
    assertThat(made.code()).as(made.err() + made.out()).isZero();
    TableColumns back = TableColumns.of(ColumnFile.read(out), null, null, null);
    assertThat(back.pairs().raw()).containsExactly(0.5, 1.4, 2.1, 2.6, 3);
    Console fitted = Console.run("fit", out.toString(), "--model", "line", "--json");
    assertThat(fitted.code()).as(fitted.err()).isZero();
    JsonNode line = json(fitted).get("models").get(0);
    assertThat(line.get("worstError").asDouble()).as("litres, not volts").isGreaterThan(1);
    assertThat(back.axis()).isEqualTo(RawUnit.VOLTS);
  }

  /** A channel that reads what two others read together takes their points, added up. */
  @Test
  void pointsOfTwoChannelsAreAddedUp() throws IOException {
    Channel one = channel(tags().findFirst().orElseThrow());
    PointSet read = one.calibration().points();
    List<ReferencePoint> half =
        read.counting().stream().map(p -> p.withReadings(List.of(Value.of(p.mean() / 2)))).toList();
    try (var f = BookFile.open(book(), Clock.systemUTC())) {
      f.save(named(one, "TWIN", new PointSet(read.raw(), half)), "read at once");
      f.save(named(one, "BOTH", PointSet.EMPTY), "the sum of both");
    }
    List<String> sum =
        List.of("import", "--sum", one.tag() + "+TWIN", "--book", book().toString(), "--channel");
    Console c = with(sum, "BOTH");
    assertThat(c.code()).as(c.err()).isZero();
    assertThat(c.out()).contains("BOTH: %d points added up".formatted(half.size()));
    try (BookFile f = BookFile.open(book(), Clock.systemUTC())) {
      PointSet both = f.read().byTag("BOTH").orElseThrow().calibration().points();
      assertThat(both.points()).hasSameSizeAs(half);
      for (int i = 0; i < half.size(); i++) {
        double expected = 3 * half.get(i).mean();
        assertThat(both.points().get(i).mean()).isCloseTo(expected, within(1e-9 * expected));
      }
    }
    assertThat(with(sum, "BOTH").out()).contains("are there already, none taken in");
    assertThat(with(sum, "TWIN").err()).contains("TWIN is no part of its own sum");
    assertThat(Console.run("import", "--book", book().toString()).err())
        .contains("expected a file ending in .json or .csv, or --sum TAG+TAG");
  }

  private static Channel named(Channel c, String tag, PointSet points) {
    return Channel.blank(tag, tag)
        .define(d -> c.definition().withTag(tag))
        .calibration(k -> k.withPoints(points));
  }

  private static Console with(List<String> arguments, String last) {
    var all = new ArrayList<>(arguments);
    all.add(last);
    return Console.run(all.toArray());
  }
}
