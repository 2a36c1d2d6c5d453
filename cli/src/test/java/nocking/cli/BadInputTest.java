package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import nocking.book.BookFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Bad input is named in one sentence with exit code 3, and changes nothing. */
class BadInputTest {
  @TempDir Path folder;

  private Console fit(String content) throws IOException {
    Path file = folder.resolve("points.csv");
    Files.writeString(file, content);
    return Console.run("fit", file, "--model", "line", "--json");
  }

  @Test
  void badColumnsAreNamed() throws IOException {
    check(
        "q,raw\n1,0.1\n2,abc\n3,0.3\n",
        "points.csv, row 3, column raw: read 'abc', expected a number.");
    check("q,raw\n1,0.1\n2\n3,0.3\n", "points.csv, row 3: has 1 cell, expected 2.");
    check("", "points.csv is empty: expected a header row and rows of numbers.");
    check("q,raw\n1,0.1\n", "Least-squares line needs at least 2 points; there is 1.");
    check(
        "q,raw\n1,0.5\n2,0.5\n",
        "Least-squares line needs two different raw values; all 2 are 0.5.");
    check("q,raw\n", "points.csv has no rows of numbers under its header.");
    check(
        "q;raw\n1,5;0,1\n2,5;x\n",
        "points.csv, row 3, column raw: read 'x', expected a number with a decimal comma.");
    check("q,raw\n1,1e999\n2,2\n", "points.csv, row 2, column raw: '1e999' is too large.");
  }

  @Test
  void longAndOddCellsAreCutInTheSentence() throws IOException {
    String cell = "x".repeat(100_000);
    check(
        "q,raw\n1,0.1\n2," + cell + "\n",
        "points.csv, row 3, column raw: read '" + "x".repeat(60) + "…', expected a number.");
    check(
        "q,raw\n1,0.1\n2,\u001b[31mred\u0007\n",
        "points.csv, row 3, column raw: read '\uFFFD[31mred\uFFFD', expected a number.");
    Console wide = fit("a,".repeat(5000) + "z\n" + "1,".repeat(5000) + "1\n");
    assertThat(wide.err().length()).isLessThan(700);
  }

  @Test
  void pointsThatAreThereAlreadyAreNotTakenInTwice() throws IOException {
    Path book = Console.demoBook(folder);
    Path points = folder.resolve("p.csv");
    Files.writeString(points, "applied,reading 1\nkPa,V\n11,1.11\n22,1.22\n");
    Object[] command = {"import", points, "--book", book, "--channel", "BL-P1"};
    assertThat(Console.run(command).code()).isZero();
    Console again = Console.run(command);
    assertThat(again.code()).isZero();
    assertThat(again.out()).contains("all 2 points are there already, none taken in; --force");
    Files.writeString(points, "applied,reading 1\nkPa,V\n11,1.11\n33,1.33\n");
    assertThat(Console.run(command).out())
        .contains("2 points taken in")
        .contains("1 of them like points that were there already");
  }

  private void check(String content, String sentence) throws IOException {
    Console c = fit(content);
    assertThat(c.err()).isEqualTo("nocking: " + sentence + "\n");
    assertThat(c.code()).isEqualTo(3);
    assertThat(c.out()).isEmpty();
  }

  @Test
  void foreignFilesAreNoBooks() throws IOException, SQLException {
    Path text = folder.resolve("text.nocking");
    Files.writeString(text, "not a book");
    assertThat(Console.run("book", "verify", text).code()).isEqualTo(3);
    assertThat(Console.run("import", text, "--book", text).code()).isEqualTo(3);
    assertThat(text).hasContent("not a book");

    Path database = folder.resolve("foreign.nocking");
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + database)) {
      c.createStatement().execute("CREATE TABLE stamps (id INTEGER)");
    }
    Console foreign = Console.run("check", database, "IN-T2");
    assertThat(foreign.code()).isEqualTo(3);
    assertThat(foreign.err()).contains("is a database, but not a bench book");

    Path truncated = folder.resolve("cut.nocking");
    byte[] whole = Files.readAllBytes(Console.demoBook(folder));
    Files.write(truncated, Arrays.copyOf(whole, whole.length / 2));
    assertThat(Console.run("check", truncated, "IN-T2").code()).isEqualTo(3);
    assertThat(Console.run("check", folder.resolve("none.nocking"), "X").code()).isEqualTo(3);
  }

  @Test
  void newerBookIsReadButNotWritten() throws IOException, SQLException {
    Path book = Console.demoBook(folder);
    Path json = folder.resolve("c.json");
    assertThat(Console.run("export", book, "GV-P1", "--out", json).code()).isZero();
    try (var c = DriverManager.getConnection("jdbc:sqlite:" + book)) {
      c.createStatement().execute("PRAGMA user_version = 99");
    }
    assertThat(Console.run("check", book, "IN-T2").code()).isZero();
    Console c = Console.run("import", json, "--book", book, "--force");
    assertThat(c.code()).isEqualTo(4);
    assertThat(c.err()).contains("a newer Nocking wrote it (book version 99, this one writes 6)");
  }

  @Test
  void folderThatCannotBeWrittenIsReported() throws IOException {
    Path json = folder.resolve("c.json");
    assertThat(Console.run("export", Console.demoBook(folder), "GV-P1", "--out", json).code())
        .isZero();
    // The kernel's own file system refuses new files even to the superuser.
    Console c = Console.run("import", json, "--book", "/proc/nocking-test.nocking");
    assertThat(c.code()).isEqualTo(4);
    assertThat(c.err()).contains("cannot be made").hasLineCount(1);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "{ | is not JSON",
        "{\"format\": \"other\"} | format reads \"other\"",
        "{\"format\": \"nocking-channel-1\"} | the channel is missing",
        "[] | at the top",
        "null | nothing but null"
      })
  void brokenChannelFilesAreNamed(String json, String part) throws IOException {
    Path file = folder.resolve("channel.json");
    Files.writeString(file, json);
    Console c = Console.run("path", file, "--at", "1");
    assertThat(c.err()).startsWith("nocking: channel.json").contains(part).hasLineCount(1);
    assertThat(c.code()).isEqualTo(3);
  }

  /** What a reader would be led astray by, or a machine brought to its end. */
  @Test
  void documentsThatMeanHarmAreRefused() throws IOException {
    Path file = folder.resolve("channel.json");
    Console.run("export", Console.demoBook(folder), "BL-P1", "--out", file);
    String sound = Files.readString(file);
    Map<String, String> odd = new LinkedHashMap<>();
    odd.put(
        sound.replaceFirst("\"tag\" :", "\"tag\" : \"X\", \"tag\" :"), "'tag' stands there twice");
    odd.put("{\"a\":".repeat(100_000), "it is nested too deeply");
    odd.put("[".repeat(100_000), "expected an object");
    odd.put(sound + sound, "something follows behind the end of it");
    for (var o : odd.entrySet()) {
      Files.writeString(file, o.getKey());
      for (Object[] words :
          List.of(
              new Object[] {"path", file},
              new Object[] {"import", file, "--book", folder.resolve("b.nocking")})) {
        Console c = Console.run(words);
        assertThat(c.err()).contains(o.getValue()).hasLineCount(1);
        assertThat(c.code()).as(c.err()).isEqualTo(3);
      }
    }
    assertThat(folder.resolve("b.nocking")).doesNotExist();
    Files.writeString(file, "\uFEFF" + sound);
    assertThat(Console.run("path", file).code()).as("a mark of an editor's").isZero();
  }

  /** What cannot be taken in whole is not taken in, and the second try is as good as the first. */
  @Test
  void anImportIsAllThereOrNotAtAll() throws IOException {
    Path json = folder.resolve("whole.json");
    Path book = folder.resolve("other.nocking");
    Console.run("export", Console.demoBook(folder), "--out", json);
    String whole = Files.readString(json);
    Path odd = folder.resolve("odd.json");
    // A part without a name, far behind the channels.
    int stock = whole.indexOf("\"stock\"");
    Files.writeString(
        odd,
        whole.substring(0, stock)
            + whole.substring(stock).replaceFirst("\"name\" : \"[^\"]*\"", "\"name\" : null"));
    Console c = Console.run("import", odd, "--book", book);
    assertThat(c.code()).as(c.err()).isIn(3, 4);
    assertThat(c.err()).hasLineCount(1);
    if (Files.exists(book)) {
      try (BookFile b = BookFile.openToRead(book, Clock.systemUTC())) {
        assertThat(b.read().channels()).isEmpty();
        assertThat(b.problems()).isEmpty();
      }
    }
    Console again = Console.run("import", json, "--book", book);
    assertThat(again.code()).as(again.err()).isZero();
    try (BookFile b = BookFile.openToRead(book, Clock.systemUTC())) {
      assertThat(b.problems()).isEmpty();
      assertThat(b.read().cards()).isNotEmpty();
    }
  }

  @Test
  void whatIsNestedTooDeeplyIsSaidAndNotFallenOver() {
    for (String text :
        List.of("(".repeat(50_000), "-".repeat(50_000) + "1", "2^".repeat(50_000) + "1")) {
      Console c = Console.run("convert", text, "kPa", "bar");
      assertThat(c.err()).contains("nested too deeply").hasLineCount(1);
      assertThat(c.code()).isEqualTo(3);
      Console f =
          Console.run(
              "sensor", "formula", "f=" + text.substring(0, 3000), "range=0..1", "--at", "1");
      assertThat(f.err()).contains("nested too deeply").hasLineCount(1);
      assertThat(f.code()).isEqualTo(3);
    }
    Console lengthy =
        Console.run("sensor", "formula", "f=" + "x+".repeat(9000) + "1", "range=0..1", "--at", "1");
    assertThat(lengthy.err()).contains("the formula has 18001 characters, expected 4000 at most");
  }

  /** Whatever a command reads, by whatever word of its line, it does not write over. */
  @Test
  void inputsAreNotWrittenOver() throws IOException {
    Path data = Files.writeString(folder.resolve("d.csv"), "raw,out\n0,0\n1,1\n2,4\n");
    Path cells = Files.writeString(folder.resolve("cells.csv"), "raw\n0\n2\n");
    Path hard = Files.createLink(folder.resolve("same.csv"), data);
    Path channel = folder.resolve("channel.json");
    Path book = Console.demoBook(folder);
    Console.run("export", book, "BL-P1", "--out", channel);
    Path page = Files.createSymbolicLink(folder.resolve("page.html"), channel);
    Path copy = Files.createSymbolicLink(folder.resolve("book.json"), book);
    List<Object[]> all =
        List.of(
            new Object[] {"table", data, "--cells", 2, "--out", data, "--force"},
            new Object[] {"table", data, "--cells", 2, "--out=" + data, "--force"},
            new Object[] {"table", data, "--cells", 2, "--out", hard, "--force"},
            new Object[] {
              "table", data, "--placement", "fixed:" + cells, "--out", cells, "--force"
            },
            new Object[] {"faults", channel, "--card", page, "--force"},
            new Object[] {"export", book, "--out", copy, "--force"});
    byte[] before = Files.readAllBytes(channel);
    for (Object[] words : all) {
      Console c = Console.run(words);
      assertThat(c.err()).as("%s", List.of(words)).contains("is what was read").hasLineCount(1);
      assertThat(c.code()).isEqualTo(4);
    }
    assertThat(data).hasContent("raw,out\n0,0\n1,1\n2,4\n");
    assertThat(cells).hasContent("raw\n0\n2\n");
    assertThat(Files.readAllBytes(channel)).isEqualTo(before);
  }

  @Test
  void wrongValueInAChannelFileIsNamedWithItsPlace() throws IOException {
    Path file = folder.resolve("channel.json");
    Console.run("export", Console.demoBook(folder), "BL-P1", "--out", file);
    String sound = Files.readString(file);
    Files.writeString(file, sound.replaceFirst("\"lowAt\" : 0", "\"lowAt\" : \"many\""));
    assertThat(Console.run("path", file).err())
        .contains("sensor.lowAt")
        .contains("'many' is neither a unit nor a symbol");
    Files.writeString(file, sound.replaceFirst("\"value\" : 5100.0", "\"value\" : -1"));
    assertThat(Console.run("path", file).err())
        .contains("Divider: Upper resistor (R1) must be above 0 Ω; read 5k1");
    Files.writeString(file, sound.replaceFirst("\"bits\" : 12", "\"bits\" : 12, \"colour\" : 3"));
    assertThat(Console.run("path", file).err()).contains("colour");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "convert 25 psi kg | 3 | psi is a pressure and kg is a mass",
        "convert abc V mV | 3 | 'abc' is neither a unit nor a symbol",
        "convert 1/0 V mV | 3 | divides by zero",
        "convert 1,5 V mV | 3 | write decimals with a point",
        "sensor linear slope=20mV | 3 | give --at",
        "sensor linear slope=20kPa --at 1 | 3 | expected a voltage in V",
        "sensor two-point points=1:1V,1:2V --at 1 | 3 | the sensor does not respond",
        "sensor ratiometric points=0:8%,100:92% supply=5V --at 120 | 3 | outside the supply's",
        "sensor magic --at 1 | 3 | is no sensor model",
        "sensor rtd r0=100 --at 900 | 3 | lies outside what the sensor is known for, -200 … 850 °C",
        "sensor rtd r0=-5 --at 0 | 3 | must be above 0 Ω; read -5",
        "sensor rtd r1=100 --at 0 | 3 | rtd has no key 'r1'; its keys are r0, wires, lead",
        "sensor thermocouple type=Q --at 0 | 3 | type=Q: expected one of b, e, j, k, n, r, s, t",
        "sensor ntc-beta --at 0 | 3 | ntc-beta needs beta=…",
        "sensor ntc-steinhart points=0:1k,10:2k,20:3k --at 0 | 3 | these points give no thermistor curve",
        "sensor formula f=(x-5)^2 range=0..9 --at 1 | 3 | the formula turns back at 5",
        "sensor loop low=0 --at 1 | 3 | loop needs high=…",
        "sensor potentiometer travel=0mm --at 1 | 3 | expected two ends, for example",
        "sensor table file=nowhere.csv --at 1 | 3 | nowhere.csv does not exist",
        "design divider --in 3V --out 5V | 3 | read 3 V in and 5 V out",
        "design divider --in 5V --out 3V --total 50k..10k | 3 | a range must rise",
        "design divider --in 5V --out 3V --parts 9 | 3 | a search takes 1 to 6 parts, not 9",
        "design divider --in 5V --out 3V --series E25 | 3 | 'E25' is no series",
        "design divider --in 5V --out 3V --parts many | 3 | expected a number from 1 to 6",
        "sensor loop high=4m --at 99 | 3 | would need 400.0 mA, outside what it can give, 3.6 mA … 21 mA",
        "sensor ntc-beta beta=3950 --at -300 | 3 | -300 °C lies outside what the sensor is known for",
        "sensor formula f=1/x range=-1..1 --at 0 | 3 | the formula turns back at 0: two",
        "design pull-up ntc-beta beta=3950 --range 0..25 --supply 0 | 3 | must be above 0 V",
        "design ends --track 5k --supply 5V --inside 0.5V..6V | 3 | between 0 V and the supply of 5 V; read 0.5 V to 6 V",
        "design ends --supply 5V --inside 0.5V..4V | 3 | --track is missing",
        "design ends --track 5k --wiper 0..130% --inside 0.5V..3V | 3 | between 0 and 1 of the track",
        "design blend --swing 140% --rest 2V | 3 | less than 100 % of a swing; read 140 %",
        "design blend --rest 2V | 3 | --swing is missing",
        "design blend --swing 40% --rest 2V --track 5k,zero | 3 | --track: ",
        "design magic | 3 | is no design; known are divider",
        "design string --value 1M --volts 300V | 3 | --watts is missing",
        "design pull-up linear slope=1mV --range 0..10 | 3 | a pull-up needs a sensor that is a resistance",
        "convert 1 V | 2 | Missing required parameter",
        "book | 2 | book needs a command"
      })
  void wrongWordsAreExplained(String words, int code, String part) {
    Console c = Console.run((Object[]) words.split(" "));
    assertThat(c.err()).contains(part).hasLineCount(1);
    assertThat(c.code()).isEqualTo(code);
  }
}
