package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Supplier;
import nocking.book.BookFile;
import nocking.channel.Book;
import nocking.channel.ChannelJson;
import nocking.demo.Hatchery;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Broken documents, column files and options, seeded. Whatever is given, the answer is an exit code
 * that the contract knows and at most one sentence; what is accepted comes out of a book as it went
 * in. {@code -Dnocking.fuzz=2000} tries more than every build does, and says what took longest.
 */
@Tag("campaign")
class FuzzTest {
  private static final int CASES = Integer.getInteger("nocking.fuzz", 60);

  /** Numbers, words and marks that do not belong where they are put. */
  private static final List<String> ODD =
      List.of(
          "",
          "0",
          "-1",
          "1e308",
          "-1e308",
          "1e-320",
          "NaN",
          "Infinity",
          "1e999",
          "007",
          "1,5",
          "1.2.3",
          "--5",
          "50%",
          "5 V",
          "5V",
          "3 psi",
          "10k",
          "4k7",
          "1/0",
          "sqrt(-1)",
          "((((",
          "x",
          "µ",
          "Ω",
          "\u0000",
          "\u0007",
          "\u202e",
          "'",
          "\"",
          "=1+1",
          "up",
          "down",
          "true",
          "…",
          "1…",
          "…1",
          "1 to 2",
          "2..1",
          "9999999999999999999999",
          "0x10",
          "5±1%",
          "±",
          "∞");

  @TempDir Path folder;
  private Random random;
  private final List<String> faults = new ArrayList<>();
  private long longest;
  private String slowest = "";

  @BeforeEach
  void seed() {
    random = new Random(20261126);
  }

  /** Runs a command; whatever breaks the contract is noted with what was given. */
  private Console run(String given, Object... words) {
    long start = System.nanoTime();
    Console c = Console.run(words);
    long took = System.nanoTime() - start;
    if (took > longest) {
      longest = took;
      slowest = List.of(words) + " " + given;
    }
    String said = c.err();
    // 4 is for what lies outside; nothing here does, so it can only be what nobody thought of.
    boolean known = c.code() >= 0 && c.code() <= 3;
    boolean sentence = c.code() <= 1 ? said.isEmpty() : said.startsWith("nocking: ");
    boolean one = said.lines().count() <= 1 && said.length() <= 700;
    String own = said.replaceAll("'.*'", "''");
    boolean java = own.contains("java.") || own.contains("Exception") || own.contains("null");
    if (!known || !sentence || !one || java) {
      faults.add("%s → %d %s | %s".formatted(List.of(words), c.code(), said.strip(), cut(given)));
    }
    return c;
  }

  private static String cut(String s) {
    return s.length() <= 300 ? s : s.substring(0, 300) + "…";
  }

  private void judge() {
    if (CASES > 60) System.out.printf("longest %.1f s: %s%n", longest / 1e9, cut(slowest));
    assertThat(faults).isEmpty();
  }

  private <T> T any(List<T> of) {
    return of.get(random.nextInt(of.size()));
  }

  @Test
  void brokenDocuments() throws IOException {
    List<String> sound =
        Hatchery.book(Hatchery.SEED).channels().stream().map(ChannelJson::write).toList();
    int accepted = 0;
    for (int i = 0; i < CASES; i++) {
      String text = broken(any(sound));
      Path file = folder.resolve("c.json");
      Files.write(file, text.getBytes(StandardCharsets.UTF_8));
      run(text, "path", file, "--at", any(ODD), "--json");
      Object[] other =
          switch (random.nextInt(4)) {
            case 0 -> new Object[] {"tolerance", file, "--draws", "200"};
            case 1 -> new Object[] {"path", file, "--equation", any(List.of("c", "sheet", "text"))};
            case 2 -> new Object[] {"path", file};
            default -> new Object[] {"faults", file};
          };
      run(text, other);
      accepted += thereAndBack(text, file);
    }
    judge();
    assertThat(accepted).as("documents that are accepted").isGreaterThan(CASES / 10);
  }

  /** What is accepted is verified, exported, and imported again the same. */
  private int thereAndBack(String text, Path file) throws IOException {
    Path book = folder.resolve("b.nocking");
    Path other = folder.resolve("o.nocking");
    Path out = folder.resolve("out.json");
    for (Path f : List.of(book, other, out)) Files.deleteIfExists(f);
    if (run(text, "import", file, "--book", book).code() != 0) return 0;
    if (run(text, "book", "verify", book).code() != 0) faults.add("not verified: " + cut(text));
    Book first = read(book);
    first
        .channels()
        .forEach(c -> run(text, "check", book, c.tag().isBlank() ? c.id() : c.tag(), "--json"));
    run(text, "export", book, "--out", out);
    if (run(text, "import", out, "--book", other).code() != 0 || !read(other).equals(first)) {
      faults.add("not the same again: " + cut(text));
    }
    return 1;
  }

  private static Book read(Path book) {
    try (BookFile b = BookFile.openToRead(book, Clock.systemUTC())) {
      return b.read();
    }
  }

  /** A document with one to four things done to its text. */
  private String broken(String text) {
    String s = text;
    for (int n = 1 + random.nextInt(random.nextBoolean() ? 1 : 4); n > 0; n--) {
      List<int[]> spans = values(s);
      if (spans.isEmpty()) return s;
      int[] v = any(spans);
      String value = s.substring(v[0], v[1]);
      String put =
          switch (random.nextInt(16)) {
            case 0 -> "null";
            case 1 -> "\"" + any(ODD).replace("\"", "\\\"").replace("\u0000", "\\u0000") + "\"";
            case 2 -> "-" + value;
            case 3 -> value + "e" + (random.nextInt(40) - 20);
            case 4 -> "[]";
            case 5 -> "{}";
            case 6 -> any(List.of("0", "1e308", "-1e-300", "true", "1e999", "3.7"));
            case 7 -> "[" + value + "," + value + "]";
            case 8 -> "\"" + "x".repeat(random.nextInt(5000)) + "\"";
            default -> value.matches("-?[0-9.]+") ? String.valueOf(nudged(value)) : value;
          };
      s = s.substring(0, v[0]) + put + s.substring(v[1]);
      if (random.nextInt(12) == 0) s = s.replaceFirst("\"[a-z]+\":", "\"zzz\":");
      if (random.nextInt(20) == 0) s = s.substring(0, random.nextInt(s.length()));
      if (random.nextInt(30) == 0) s = "\uFEFF" + s;
    }
    return s;
  }

  private double nudged(String number) {
    double v = Double.parseDouble(number);
    return random.nextBoolean()
        ? v * Math.pow(10, random.nextInt(9) - 4)
        : v + random.nextInt(7) - 3;
  }

  /** Where numbers, words and texts behind a colon stand. */
  private static List<int[]> values(String json) {
    var spans = new ArrayList<int[]>();
    for (int i = json.indexOf(": "); i >= 0; i = json.indexOf(": ", i + 1)) {
      int from = i + 2;
      int to = from;
      if (from >= json.length()) break;
      if (json.charAt(from) == '"') {
        to = json.indexOf('"', from + 1) + 1;
      } else {
        while (to < json.length() && ",}]\n".indexOf(json.charAt(to)) < 0) to++;
      }
      if (to > from) spans.add(new int[] {from, to});
    }
    return spans;
  }

  @Test
  void brokenColumnFiles() throws IOException {
    Path book = Console.demoBook(folder);
    Path channel = folder.resolve("c.json");
    Files.writeString(
        channel, ChannelJson.write(Hatchery.book(Hatchery.SEED).byTag("SG-P1").orElseThrow()));
    Path file = folder.resolve("t.csv");
    Path out = folder.resolve("out.csv");
    for (int i = 0; i < CASES; i++) {
      String text = columns();
      Files.writeString(file, text);
      run(text, "fit", file, "--tolerance", any(ODD), "--json");
      run(
          text,
          "table",
          file,
          "--cells",
          any(List.of("2", "16", "0", "x")),
          "--out",
          out,
          "--force");
      Object[] other =
          switch (random.nextInt(5)) {
            case 0 -> new Object[] {"bands", file, "--range", any(ODD)};
            case 1 -> new Object[] {"check", book, "IN-T2", "--measured", file};
            case 2 -> new Object[] {"diagnose", channel, "--seen", file};
            case 3 -> new Object[] {"import", file, "--book", book, "--channel", "BL-P1"};
            default -> new Object[] {"import", file, "--book", book, "--stock", "--force"};
          };
      run(text, other);
    }
    assertThat(run("", "book", "verify", book).code()).isZero();
    judge();
  }

  private String columns() {
    String delimiter = any(List.of(",", ";", "\t", "|", ", "));
    var text = new StringBuilder(random.nextInt(20) == 0 ? "\uFEFF" : "");
    int width = 1 + random.nextInt(5);
    List<String> names =
        List.of(
            "applied",
            "reading 1",
            "raw",
            "volts",
            "name",
            "place",
            "at",
            "value",
            "V",
            "kPa",
            "ohms",
            "tolerance",
            "direction",
            "left out",
            "quantity",
            "centre",
            "half",
            "");
    if (random.nextInt(4) > 0) line(text, width, delimiter, () -> any(names));
    if (random.nextInt(3) == 0) {
      line(text, width, delimiter, () -> any(List.of("V", "kPa", "counts", "", "Ω", "degC", "zz")));
    }
    for (int rows = random.nextInt(30); rows > 0; rows--) {
      int odd = random.nextInt(12);
      line(
          text,
          odd == 0 ? random.nextInt(9) : width,
          delimiter,
          () ->
              odd == 1
                  ? any(ODD)
                  : odd == 2
                      ? any(List.of("up", "down", "display", "TP2", "sensor", "drain"))
                      : String.valueOf(random.nextInt(2000) / 1000.0));
    }
    return text.toString();
  }

  private void line(StringBuilder text, int width, String delimiter, Supplier<String> cell) {
    for (int i = 0; i < width; i++) text.append(i == 0 ? "" : delimiter).append(cell.get());
    text.append(any(List.of("\n", "\n", "\r\n")));
  }

  @Test
  void brokenOptions() throws IOException {
    Path book = Console.demoBook(folder);
    Path channel = folder.resolve("c.json");
    Files.writeString(
        channel, ChannelJson.write(Hatchery.book(Hatchery.SEED).byTag("RW-T1").orElseThrow()));
    List<List<Object>> sound =
        List.of(
            List.of("convert", "25", "psi", "kPa"),
            List.of("sensor", "linear", "offset=350mV", "at=0degC", "slope=20mV", "--at", "9"),
            List.of(
                "sensor", "ntc-beta", "r0=10k", "t0=25degC", "beta=3950", "--electrical", "8k2"),
            List.of("sensor", "thermocouple", "type=K", "cj=22degC", "--electrical", "12.2mV"),
            List.of("sensor", "loop", "low=0", "high=4m", "current=4mA..20mA", "--at", "1.5"),
            List.of("sensor", "formula", "f=0.35+0.02*x", "range=0..100", "--at", "9"),
            List.of("sensor", "ac", "waveform=sine", "from=rms", "to=peak", "--at", "230V"),
            List.of("design", "divider", "--in", "5V", "--out", "3.3V", "--total", "10k..50k"),
            List.of("design", "combination", "--value", "4k321", "--series", "E12", "--parts", "2"),
            List.of("design", "extender", "--fits", "30V", "--highest", "50V", "--total", "15k"),
            List.of("design", "gain-shift", "--in", "0.2..0.6", "--out", "0.3..3", "--ref", "3.3"),
            List.of("design", "ends", "--track", "5k", "--supply", "5V", "--inside", "0.5V..4.5V"),
            List.of("design", "blend", "--swing", "40%", "--rest", "2.5V", "--track", "1k,10k"),
            List.of("design", "string", "--value", "1M", "--volts", "325V", "--watts", "0.25"),
            List.of("path", channel, "--at", "12", "--json"),
            List.of("path", channel, "--csv"),
            List.of("design", "path", channel, "--supply", "3.3V", "--settling", "10ms"),
            List.of(
                "new",
                "RW-X1",
                "--sensor",
                "ntc-beta",
                "beta=3950",
                "--stage",
                "pull-up",
                "resistance=10k",
                "--range",
                "0..25",
                "--out",
                folder.resolve("new.json"),
                "--force"),
            List.of("swap", channel, "--sensor", "ntc-beta", "r0=10k", "beta=3950"),
            List.of("ranges", channel, "--of", "0..50", "0..100", "--percent", "0.5%"),
            List.of("tolerance", channel, "--draws", "100", "--seed", "1", "--at", "12"),
            List.of("check", book, "IN-T2"),
            List.of("book", "verify", book));
    for (int i = 0; i < CASES; i++) {
      var words = new ArrayList<>(any(sound));
      for (int n = 1 + random.nextInt(3); n > 0; n--) {
        int at = 1 + random.nextInt(words.size() - 1);
        switch (random.nextInt(5)) {
          case 0 -> words.remove(at);
          case 1 -> words.add(at, any(ODD));
          case 2 -> words.set(at, words.get(at) + any(ODD));
          case 3 -> words.set(at, String.valueOf(words.get(at)).replaceFirst("=.*", "=" + safe()));
          default -> words.set(at, any(ODD));
        }
        if (words.size() < 2) words.add(any(ODD));
      }
      run("", words.toArray());
    }
    judge();
  }

  private String safe() {
    return any(ODD).replace("\\", "").replace("$", "");
  }
}
