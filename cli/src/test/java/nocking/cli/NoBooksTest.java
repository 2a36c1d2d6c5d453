package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import nocking.book.BookFile;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Forty files that are called books and are none, through every command that takes one: a sentence,
 * and the file as it was.
 */
class NoBooksTest {
  private static final String ENDLESS =
      " AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) SELECT i AS id, i AS"
          + " place, 'T' AS tag, '{}' AS document FROM n";

  @TempDir Path folder;
  private Path sound;
  private Path incoming;
  private final Map<String, Path> files = new LinkedHashMap<>();

  @BeforeEach
  void make() throws IOException, SQLException {
    sound = folder.resolve("sound.nocking");
    try (BookFile b = BookFile.open(sound, Clock.systemUTC())) {
      for (int i = 0; i < 30; i++) {
        Channel c = Channel.blank("c" + i, "T-" + i);
        b.save(c, "made");
        b.nameRevision(c, "first");
      }
    }
    incoming = folder.resolve("incoming.json");
    Files.writeString(incoming, ChannelJson.write(Channel.blank("n", "N-1")));
    texts();
    pieces();
    databases();
    changed();
  }

  private Path put(String name, byte[] bytes) throws IOException {
    Path f = Files.write(folder.resolve(name + ".nocking"), bytes);
    files.put(name, f);
    return f;
  }

  private void texts() throws IOException {
    put("empty", new byte[0]);
    put("text", "Header tank\n".getBytes(StandardCharsets.UTF_8));
    put("json", Files.readAllBytes(incoming));
    put("picture", new byte[] {(byte) 0x89, 'P', 'N', 'G', '\r', '\n', 0x1a, '\n', 0, 0, 0, 13});
    put("archive", new byte[] {'P', 'K', 3, 4, 20, 0, 0, 0});
    byte[] noise = new byte[1 << 20];
    new Random(1).nextBytes(noise);
    put("noise", noise);
    System.arraycopy("SQLite format 3\0".getBytes(StandardCharsets.US_ASCII), 0, noise, 0, 16);
    put("noise behind the first words", noise);
    files.put("folder", Files.createDirectory(folder.resolve("folder.nocking")));
    files.put("nothing", folder.resolve("nothing.nocking"));
    Path lost = Files.createSymbolicLink(folder.resolve("lost.nocking"), Path.of("nowhere"));
    files.put("link that leads nowhere", lost);
    files.put("device without an end", Path.of("/dev/zero"));
    Path huge = folder.resolve("huge.nocking");
    try (var f = new RandomAccessFile(huge.toFile(), "rw")) {
      f.setLength(1L << 40);
    }
    files.put("a terabyte of nothing", huge);
  }

  /** A book that was cut off while it was copied. */
  private void pieces() throws IOException {
    byte[] whole = Files.readAllBytes(sound);
    for (int length : new int[] {15, 16, 99, 100, 512, 4095, 4096, 4097, 20_000}) {
      put("first %d bytes".formatted(length), Arrays.copyOf(whole, length));
    }
    byte[] zeros = whole.clone();
    Arrays.fill(zeros, 100, 4096, (byte) 0);
    put("zeros in the first page", zeros);
  }

  private void databases() throws SQLException {
    database("another program's", "CREATE TABLE note (id INTEGER PRIMARY KEY, text TEXT)");
    database("tables of the same names", "CREATE TABLE channel (id, place, tag, document)");
    database(
        "calls itself a book",
        "PRAGMA application_id = 1313817419",
        "PRAGMA user_version = 6",
        "CREATE TABLE channel (id, place, tag, document)");
    database(
        "calls itself a book and has only views",
        "PRAGMA application_id = 1313817419",
        "PRAGMA user_version = 6",
        "CREATE VIEW channel" + ENDLESS,
        "CREATE VIEW revision" + ENDLESS,
        "CREATE VIEW log" + ENDLESS);
    database("empty but for its name", "PRAGMA application_id = 1313817419");
  }

  private void database(String name, String... statements) throws SQLException {
    Path f = folder.resolve(name + ".nocking");
    sql(f, statements);
    files.put(name, f);
  }

  private static void sql(Path file, String... statements) throws SQLException {
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + file);
        var s = c.createStatement()) {
      for (String one : statements) s.execute(one);
    }
  }

  private void changed() throws IOException, SQLException {
    List<String> all =
        List.of(
            "DROP TABLE channel",
            "DROP TABLE log",
            "DROP TABLE receiver_shape",
            "ALTER TABLE card RENAME TO cards",
            "ALTER TABLE revision ADD COLUMN more TEXT",
            "ALTER TABLE run DROP COLUMN title",
            "DROP TABLE channel; CREATE VIEW channel" + ENDLESS,
            "DROP TABLE log; CREATE VIEW log" + ENDLESS,
            "DROP TABLE card; CREATE VIEW card" + ENDLESS,
            "DROP TABLE practice; CREATE VIRTUAL TABLE practice USING fts5(learner)",
            "PRAGMA writable_schema = ON; UPDATE sqlite_schema SET sql = 'CREATE TABLE x' WHERE name ="
                + " 'card'",
            "PRAGMA writable_schema = ON; UPDATE sqlite_schema SET rootpage = 4000 WHERE name = 'log'",
            "PRAGMA writable_schema = ON; UPDATE sqlite_schema SET name = 'card' WHERE name = 'log'",
            "PRAGMA user_version = 0",
            "PRAGMA user_version = -1");
    for (String one : all) {
      Path f = put("changed " + files.size(), Files.readAllBytes(sound));
      sql(f, one.split(";"));
    }
  }

  private List<Object> call(String command, Path file) {
    return switch (command) {
      case "export" -> List.of("export", file, "--out", folder.resolve("out.json"));
      case "verify" -> List.of("book", "verify", file);
      case "copy" -> List.of("book", "copy", file, "--out", folder.resolve("copy.nocking"));
      case "check" -> List.of("check", file, "T-1");
      default -> List.of("import", incoming, "--book", file);
    };
  }

  @Test
  void eachIsASentenceAndStaysAsItWas() throws IOException {
    assertThat(files).hasSizeGreaterThanOrEqualTo(40);
    for (var f : files.entrySet()) {
      boolean content = Files.isRegularFile(f.getValue()) && Files.size(f.getValue()) < 1 << 21;
      byte[] before = content ? Files.readAllBytes(f.getValue()) : null;
      for (String command : List.of("export", "verify", "copy", "check", "import")) {
        // Where there is nothing an import makes a book.
        if (command.equals("import") && f.getKey().equals("nothing")) continue;
        Console said = Console.run(call(command, f.getValue()).toArray());
        String as = "%s of %s: %s".formatted(command, f.getKey(), said);
        assertThat(said.code()).as(as).isIn(3, 4);
        assertThat(said.out()).as(as).isEmpty();
        assertThat(said.err().strip().lines()).as(as).hasSize(1);
        assertThat(said.err()).as(as).doesNotContain("should not have", "Exception");
        if (content) assertThat(Files.readAllBytes(f.getValue())).as(as).isEqualTo(before);
      }
    }
    assertThat(folder.resolve("out.json")).doesNotExist();
    assertThat(folder.resolve("copy.nocking")).doesNotExist();
    assertThat(left()).isEmpty();
  }

  /** SQLite leaves an empty log where it has looked; nothing else is left. */
  private List<String> left() throws IOException {
    var left = new ArrayList<String>();
    try (var all = Files.list(folder)) {
      for (Path p : all.toList()) {
        String n = p.getFileName().toString();
        boolean log = n.endsWith("-wal") && Files.size(p) > 0;
        if (log || n.endsWith(".part") || n.endsWith("-journal")) left.add(n);
      }
    }
    return left;
  }
}
