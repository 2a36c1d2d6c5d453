package nocking.book;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.NullNode;
import tools.jackson.databind.node.ObjectNode;
import tools.jackson.databind.node.StringNode;

/** Books and exports of every version that was ever handed out, and what may be odd in them. */
@Tag("campaign")
class ShippedFormatsTest {
  @TempDir Path folder;

  private Path stored(String name) throws IOException {
    Path file = folder.resolve(name);
    try (InputStream in = ShippedFormatsTest.class.getResourceAsStream(name)) {
      Files.write(file, in.readAllBytes());
    }
    return file;
  }

  @ParameterizedTest
  @CsvSource({"1, 5", "2, 10", "3, 11", "4, 11", "5, 13"})
  void aBookOfAnyVersionIsReadMigratedAndVerified(int version, int channels) throws IOException {
    Path file = stored("version-%d.nocking".formatted(version));
    Book before;
    try (BookFile b = BookFile.openToRead(file, Clock.systemUTC())) {
      assertThat(b.problems()).isEmpty();
      before = b.read();
      assertThat(b.setAside()).isEmpty();
      assertThat(before.channels()).hasSize(channels);
    }
    try (BookFile b = BookFile.open(file, Clock.systemUTC())) {
      assertThat(b.writable()).isTrue();
      assertThat(b.read()).isEqualTo(before);
      Channel locked = before.byTag("IN-T2").orElseThrow();
      assertThat(b.revisions(locked.id())).singleElement().matches(r -> r.channel().isPresent());
      b.save(locked, "as it is");
      assertThat(b.problems()).isEmpty();
    }
    try (BookFile b = BookFile.open(file, Clock.systemUTC())) {
      assertThat(b.read()).isEqualTo(before);
    }
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3, 4, 5})
  void anExportOfAnyVersionSaysWhatTheBookSays(int version) throws IOException {
    Book exported =
        ChannelJson.readAny(
            Files.readString(stored("version-%d.json".formatted(version))), "the export");
    try (BookFile b =
        BookFile.openToRead(stored("version-%d.nocking".formatted(version)), Clock.systemUTC())) {
      assertThat(b.read().channels()).isEqualTo(exported.channels());
    }
  }

  @ParameterizedTest
  @CsvSource({"1, BL-P1", "2, RW-T1", "3, SG-P1", "4, PD-Q1", "5, RW-T1"})
  void oneOddFieldKeepsNoOtherChannelFromBeingRead(int version, String tag)
      throws IOException, SQLException {
    Path file = stored("version-%d.nocking".formatted(version));
    Channel other;
    String document;
    try (Connection c = connection(file)) {
      execute(c, "DELETE FROM channel WHERE tag NOT IN ('IN-T2', ?)", tag);
      document = document(c, tag);
    }
    try (BookFile b = BookFile.openToRead(file, Clock.systemUTC())) {
      other = b.read().byTag("IN-T2").orElseThrow();
    }
    var told = new ArrayList<String>();
    int tried = 0;
    for (String odd : odd(document)) {
      try (Connection c = connection(file)) {
        execute(c, "UPDATE channel SET document = ? WHERE tag = ?", odd, tag);
      }
      try (BookFile b = BookFile.openToRead(file, Clock.systemUTC())) {
        Book read = b.read();
        assertThat(read.byId(other.id())).as(odd).contains(other);
        assertThat(read.channels().size() + b.setAside().size()).as(odd).isEqualTo(2);
        told.addAll(b.setAside());
        // The whole check takes its time: now and then is enough to see that it ends with a
        // sentence.
        if (tried % 40 == 0) assertThat(b.problems()).as("written by someone else").isNotEmpty();
      }
      tried++;
    }
    assertThat(tried).isGreaterThan(300);
    assertThat(told)
        .hasSizeGreaterThan(50)
        .allMatch(s -> s.startsWith("The channel " + tag + " cannot be read"))
        .noneMatch(s -> s.contains("java") || s.contains("Exception") || s.contains("Optional["));
  }

  private static Connection connection(Path file) throws SQLException {
    return DriverManager.getConnection("jdbc:sqlite:" + file);
  }

  private static void execute(Connection c, String sql, String... values) throws SQLException {
    try (var s = c.prepareStatement(sql)) {
      for (int i = 0; i < values.length; i++) s.setString(i + 1, values[i]);
      s.executeUpdate();
    }
  }

  private static String document(Connection c, String tag) throws SQLException {
    try (var s = c.prepareStatement("SELECT document FROM channel WHERE tag = ?")) {
      s.setString(1, tag);
      try (var r = s.executeQuery()) {
        r.next();
        return r.getString(1);
      }
    }
  }

  /** The document with each of its fields, in turn, missing, null, a word, and with one unknown. */
  private static List<String> odd(String document) {
    var all = new ArrayList<String>();
    JsonNode root = JsonMapper.shared().readTree(document);
    walk(root, root, all);
    return all;
  }

  private static void walk(JsonNode root, JsonNode node, List<String> all) {
    if (node instanceof ArrayNode array) array.forEach(n -> walk(root, n, all));
    if (!(node instanceof ObjectNode object)) return;
    for (String field : List.copyOf(object.propertyNames())) {
      JsonNode sound = object.get(field);
      object.remove(field);
      all.add(root.toString());
      for (JsonNode other : List.of(NullNode.instance, StringNode.valueOf("of tomorrow"))) {
        object.set(field, other);
        if (!sound.equals(other)) all.add(root.toString());
      }
      object.set(field, sound);
      walk(root, sound, all);
    }
    object.put("of tomorrow", 1);
    all.add(root.toString());
    object.remove("of tomorrow");
  }
}
