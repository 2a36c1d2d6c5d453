package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.io.IOException;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.regex.Pattern;
import javax.xml.parsers.DocumentBuilderFactory;
import nocking.analysis.Analysis;
import nocking.band.Positions;
import nocking.book.BookFile;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.PointsCsv;
import nocking.book.exchange.StockCsv;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.DocumentException;
import nocking.converter.Converter;
import nocking.demo.Hatchery;
import nocking.firmware.Decoder;
import nocking.firmware.DecoderSource;
import nocking.firmware.TableC;
import nocking.firmware.TableFirmware;
import nocking.firmware.TablePython;
import nocking.parts.StockPart;
import nocking.path.GeneratedEquation;
import nocking.quantity.PlainText;
import nocking.quantity.Span;
import nocking.report.PdfPages;
import nocking.report.page.SettingsSheet;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Palette;
import nocking.report.plot.Plot;
import nocking.report.plot.PlotPicture;
import nocking.report.plot.Role;
import nocking.report.wiring.FaultCardPage;
import nocking.report.wiring.WirePlanPage;
import nocking.table.Outside;
import nocking.table.StepTable;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.text.PDFTextStripper;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.w3c.dom.Document;
import org.xml.sax.InputSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/**
 * Names that were made to do harm, through every way out; a thousand of them with {@code
 * -Pcampaign}.
 */
@Tag("campaign")
class HostileNamesTest {
  private static final int NAMES = Integer.getInteger("nocking.names", 200);

  /** What a name is made of. */
  private static final List<String> PARTS =
      List.of(
          "\u001b[2J",
          "\u001b]0;title\u0007",
          "\u0007",
          "\b\b\b",
          "\u0000",
          "\u009b31m",
          "\r",
          "\n",
          "\r\n=1+1",
          "\n=cmd",
          "\u2028",
          "\u0085",
          "\f",
          "\u202e",
          "\u2066",
          "\u200f",
          "\u061c",
          "\ufeff",
          "\u200b",
          "\ud83d\ude00",
          "\ud83d",
          "\ude00",
          "\udb40\udc41",
          "*/",
          "/*",
          "*\\/",
          "??/",
          "??",
          "//",
          "\\",
          "\\\n",
          "\"\"\"",
          "'''",
          "\"",
          "'",
          "#",
          "#include <x>",
          "%s%n",
          "{0}",
          "$1",
          "=HYPERLINK(\"x\")",
          "+1",
          "-1",
          "@SUM(A1)",
          "\uff1d1",
          " =1",
          "\t=1",
          "<script>alert(1)</script>",
          "</title>",
          "]]>",
          "<!--",
          "&amp;",
          "&#0;",
          "<![CDATA[",
          ";",
          ",",
          "|",
          "../../x",
          "/dev/null",
          "~",
          "`id`",
          "$(id)",
          "ä",
          "م",
          "Ω",
          "x".repeat(300));

  /** Keys of a document whose text is a person's. */
  private static final Set<String> FREE =
      Set.of("name", "text", "wire", "position", "terminal", "leftOut", "source", "note", "remark");

  /** What no reader of a line may get. */
  private static final Pattern HARMFUL =
      Pattern.compile(
          "[\\p{Cc}\\p{Cs}\\u061C\\u200E\\u200F\\u2028-\\u202E\\u2066-\\u2069\\uFEFF&&[^\\n\\t]]");

  @TempDir Path folder;

  private static String name(Random r) {
    var name = new StringBuilder(r.nextBoolean() ? "N" : "");
    for (int i = 1 + r.nextInt(5); i > 0; i--) {
      name.append(PARTS.get(r.nextInt(PARTS.size())));
      if (r.nextInt(3) == 0) name.append((char) ('a' + r.nextInt(26)));
    }
    return name.isEmpty() || name.toString().isBlank() ? name + "N" : name.toString();
  }

  private static void clean(String text, String what, int seed) {
    assertThat(HARMFUL.matcher(text).find()).as("%s, name %d: %s", what, seed, text).isFalse();
  }

  /** The demo's channel with one text in the place of every text of a person's. */
  private static Channel named(Channel c, String name) {
    JsonNode tree = JsonMapper.shared().readTree(ChannelJson.write(c));
    replace(tree, name);
    ((ObjectNode) tree.get("channel").get("definition")).put("tag", name);
    return ChannelJson.readChannel(tree.toString(), "hostile.json");
  }

  private static void replace(JsonNode node, String name) {
    if (node instanceof ArrayNode list) list.forEach(n -> replace(n, name));
    if (!(node instanceof ObjectNode object)) return;
    for (String key : List.copyOf(object.propertyNames())) {
      JsonNode value = object.get(key);
      boolean free = value.isString() && FREE.contains(key) && !value.stringValue().isEmpty();
      if (free) object.put(key, name);
      else replace(value, name);
    }
  }

  @Test
  void noNameDoesMoreThanStandThere() throws Exception {
    Book hatchery = Hatchery.book(Hatchery.SEED);
    List<String> tags = List.of("RW-T1", "FD-S1", "BL-P1", "SG-P1");
    var sources = new ArrayList<Path>();
    int refused = 0;
    for (int seed = 0; seed < NAMES; seed++) {
      String name = name(new Random(seed));
      Channel c;
      try {
        c = named(hatchery.byTag(tags.get(seed % tags.size())).orElseThrow(), name);
      } catch (DocumentException e) {
        clean(e.getMessage(), "refusal", seed);
        refused++;
        continue;
      }
      Analysis a = Analysis.of(c);
      sources(c, a, name, seed, sources);
      cells(c, name, seed);
      pages(a, name, seed);
      if (seed % 50 < tags.size()) commands(c, name, seed);
    }
    assertThat(refused).as("most names are names").isLessThan(NAMES / 20);
    compiles(sources);
  }

  /** Halves of pairs become question marks, as everywhere in UTF-8. */
  private static void write(Path file, String text) throws IOException {
    Files.write(file, text.getBytes(StandardCharsets.UTF_8));
  }

  private void sources(Channel c, Analysis a, String name, int seed, List<Path> all)
      throws IOException {
    String id = GeneratedEquation.identifier(name) + "_" + seed;
    String stem = "n_" + seed;
    var table = new StepTable(0, 1, new int[] {0, 50, 100}, new long[] {0, 700, 1000}, true);
    TableFirmware f = TableFirmware.of(table, Outside.HOLD, 8, 16, false);
    List<String> about = List.of(name, "Table of " + name);
    var tableC = new TableC(id, f, about, name);
    Positions p = Positions.of(c.wiring().bands(), new Span(0, 5));
    Map<String, String> files = new HashMap<>();
    files.put(stem + "_table.h", tableC.header());
    files.put(
        stem + "_table.c",
        tableC.source().replace("\"%s_table.h\"".formatted(id), "\"%s_table.h\"".formatted(stem)));
    files.put(stem + "_table.py", new TablePython(id, f, name, name).source());
    if (!p.windows().isEmpty()) {
      Decoder d = Decoder.ofPositions(p.windows(), null, Converter.of(10, 5), null);
      files.put(stem + "_decoder.h", new DecoderSource(id, name).header(d));
      files.put(stem + "_decoder.py", new DecoderSource(id, name).python(d));
      files.put(
          stem + "_uses.c", "#include \"%s_decoder.h\"\nint %s(void);\n".formatted(stem, stem));
    }
    for (var s : files.entrySet()) {
      clean(s.getValue(), s.getKey(), seed);
      Path file = folder.resolve(s.getKey());
      write(file, s.getValue());
      all.add(file);
    }
  }

  private static void cells(Channel c, String name, int seed) {
    String points = PointsCsv.write(c);
    clean(points, "points", seed);
    String drawer = StockCsv.write(List.of(new StockPart(name, 4700, 1, 0.25, 200, 3)));
    clean(drawer, "drawer", seed);
    for (String csv : List.of(points, drawer)) {
      // As any spreadsheet might take it apart, whatever separates in its language.
      for (String line : csv.split("\n")) {
        for (String cell : line.split("[,;|\t]")) {
          boolean number = cell.matches("[-+]?[0-9.]+(E-?[0-9]+)?");
          String begins = cell.replaceFirst("^[\\s\"]+", "");
          boolean formula = !begins.isEmpty() && "=+-@\uff1d".indexOf(begins.charAt(0)) >= 0;
          assertThat(formula && !number).as("name %d: %s in %s", seed, cell, csv).isFalse();
        }
      }
    }
    List<StockPart> again = StockCsv.read(ColumnFile.parse(drawer, "drawer"));
    assertThat(again.getFirst().name()).as("name %d", seed).isEqualTo(PlainText.of(name).strip());
    String json = ChannelJson.write(c);
    clean(json, "document", seed);
    // As it is on the disk, in UTF-8.
    String stored = new String(json.getBytes(StandardCharsets.UTF_8), StandardCharsets.UTF_8);
    assertThat(ChannelJson.readChannel(stored, "again")).as("name %d", seed).isEqualTo(c);
  }

  private void pages(Analysis a, String name, int seed) throws Exception {
    var pages = new ArrayList<String>();
    pages.add(WirePlanPage.html(a));
    FaultCardPage.html(a).ifPresent(pages::add);
    pages.add(SettingsSheet.html(a));
    for (String page : pages) {
      clean(page, "page", seed);
      var document = wellFormed(page);
      assertThat(document.getElementsByTagName("script").getLength()).isZero();
      // The name stands there as what it is, a text.
      assertThat(words(document.getDocumentElement().getTextContent()))
          .as("page, name %d", seed)
          .contains(words(PlainText.of(name)));
    }
    var plot =
        new Plot(
            new Axis(name, new Span(0, 10)),
            new Axis(name, new Span(-1, 1)),
            List.of(
                new Layer.Mark(2, 0.7, name), new Layer.Label(Role.OTHER, 9, -0.8, name, true)));
    if (seed % 10 == 0) {
      String svg = PlotPicture.svg(plot, Palette.LIGHT, 300, 200);
      clean(svg, "plot", seed);
      wellFormed(svg);
    }
    if (seed % 50 == 0) {
      try (var pdf = Loader.loadPDF(PdfPages.of(pages.getFirst()))) {
        clean(new PDFTextStripper().getText(pdf).replace("\r", ""), "PDF", seed);
      }
    }
  }

  private static String words(String text) {
    return text.replaceAll("\\s+", " ").strip();
  }

  private static Document wellFormed(String xml) throws Exception {
    var factory = DocumentBuilderFactory.newInstance();
    factory.setFeature("http://apache.org/xml/features/nonvalidating/load-external-dtd", false);
    var builder = factory.newDocumentBuilder();
    builder.setErrorHandler(null);
    return builder.parse(new InputSource(new StringReader(xml)));
  }

  /** What commands print, of a channel and of a book; and of names of files. */
  private void commands(Channel c, String name, int seed) throws IOException {
    Path file = folder.resolve("c" + seed + ".json");
    write(file, ChannelJson.write(c));
    Path book = folder.resolve("b" + seed + ".nocking");
    try (BookFile b = BookFile.open(book, Clock.systemUTC())) {
      b.save(c, name);
      b.nameRevision(c, name);
      b.saveStock(List.of(new StockPart(name, 4700, 1, 0.25, 200, 3)), name);
    }
    Path sheet = folder.resolve("sheet.txt");
    write(sheet, name + "\nOutput: 0.5 V to 4.5 V\nRange: 0 to 10 bar\n" + name);
    Path stations = folder.resolve("stations.csv");
    String cell = '"' + name.replace("\"", "\"\"") + '"';
    write(stations, "name,volts\n" + cell + ",1\n" + cell + ",1.01\nother,3\n");
    Object out = folder.resolve("out" + seed + ".json");
    List<List<Object>> all =
        List.of(
            List.of("path", file),
            List.of("path", file, "--json"),
            List.of("path", file, "--equation", "c"),
            List.of("faults", file),
            List.of("bands", stations),
            List.of("bands", stations, "--json"),
            List.of("datasheet", sheet),
            List.of("export", book, "--out", out),
            List.of("export", book, c.tag(), "--out", folder.resolve("p" + seed + ".csv")),
            List.of("export", book, name + "?", "--out", out),
            List.of("book", "verify", book),
            List.of("import", file, "--book", book),
            List.of("path", folder.resolve("no such file").toString() + name.replace("\0", "")),
            List.of("convert", name, "kPa", "bar"),
            List.of(name));
    for (List<Object> words : all) {
      Console said = Console.run(words.toArray());
      clean(said.out() + said.err(), words.getFirst() + " says", seed);
      assertThat(said.err()).as("%s, name %d", words, seed).doesNotContain("should not have");
      if (words.contains("--json")) JsonMapper.shared().readTree(said.out());
    }
  }

  private void compiles(List<Path> sources) throws Exception {
    assumeThat(available("cc") && available("python3")).isTrue();
    var c =
        new ArrayList<>(
            List.of(
                "cc",
                "-std=c99",
                "-pedantic",
                "-Wall",
                "-Wextra",
                "-Werror",
                "-trigraphs",
                "-fsyntax-only"));
    sources.stream().map(Path::toString).filter(s -> s.endsWith(".c")).forEach(c::add);
    assertThat(said(c)).isEmpty();
    var list = folder.resolve("all.txt");
    Files.write(list, sources.stream().map(Path::toString).filter(s -> s.endsWith(".py")).toList());
    assertThat(
            said(
                List.of(
                    "python3",
                    "-W",
                    "error",
                    "-c",
                    """
                    import sys
                    with open(sys.argv[1]) as names:
                        for name in names.read().split():
                            with open(name, encoding='utf-8') as source:
                                compile(source.read(), name, 'exec')
                    """,
                    list.toString())))
        .isEmpty();
  }

  private static String said(List<String> command) throws Exception {
    Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
    String said = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    return p.waitFor() == 0 ? said : said + "\nended with an error";
  }

  private static boolean available(String program) {
    try {
      return new ProcessBuilder(program, "--version").redirectErrorStream(true).start().waitFor()
          == 0;
    } catch (IOException | InterruptedException e) {
      return false;
    }
  }
}
