package nocking.app.step.table;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.algebra.AlgebraException;
import nocking.analysis.Analysis;
import nocking.app.control.Paper;
import nocking.app.control.Segments;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.book.Revision;
import nocking.channel.Channel;
import nocking.firmware.Decoder;
import nocking.firmware.DecoderSource;
import nocking.firmware.FixedPointC;
import nocking.firmware.SheetFormula;
import nocking.firmware.TableC;
import nocking.firmware.TableFirmware;
import nocking.firmware.TablePython;
import nocking.path.GeneratedEquation;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.table.StepTable;
import nocking.view.TableResult;

/** The code that looks the table up, as it would be written, and what is proven of it. */
final class CodePage implements TablePage {
  private enum Part {
    HEADER("header"),
    SOURCE("source"),
    PYTHON("Python"),
    FORMULA("sheet formula"),
    EXPRESSION("one expression");

    private final String title;

    Part(String title) {
      this.title = title;
    }
  }

  /** What is written for a table, or why nothing is. */
  record Code(
      Optional<TableC> c,
      Optional<TablePython> python,
      String formula,
      String expression,
      String says,
      Map<String, String> decoders) {}

  private final Desk desk;
  private final Clock clock;
  private final TextArea text = new TextArea();
  private final Label says = Paper.caption("");
  private final Segments<Part> parts;
  private final VBox root;
  private final Latest work = new Latest();
  private Part part = Part.SOURCE;
  private Code code = new Code(Optional.empty(), Optional.empty(), "", "", "", Map.of());

  CodePage(Desk desk, Clock clock) {
    this.desk = desk;
    this.clock = clock;
    text.setId("table-code");
    text.setEditable(false);
    text.getStyleClass().add("code-text");
    text.setAccessibleText("Code of the table");
    VBox.setVgrow(text, Priority.ALWAYS);
    parts =
        new Segments<>(
            "table-code",
            List.of(Part.values()),
            p -> p.title,
            p -> {
              part = p;
              fill();
            });
    parts.show(part);
    says.setId("table-code-says");
    root = new VBox(8, new FlowPane(8, 6, parts), text, says);
  }

  @Override
  public Node node() {
    return root;
  }

  /** What the head of a file says: what it belongs to, when, how far off it is. */
  private List<String> about(Analysis a, TableResult t) {
    Channel c = a.channel();
    var lines = new ArrayList<String>();
    lines.add((c.tag() + " " + c.definition().name()).strip());
    lines.add("Made on " + LocalDate.now(clock) + revision(c));
    lines.add(
        "Worst error %s at raw %s, rms %s"
            .formatted(
                t.output().error(t.error().worst()),
                Numbers.fixed(t.error().worstAt(), t.spec().rawDecimals()),
                t.output().error(t.error().rms())));
    if (!Double.isNaN(t.tolerance())) {
      lines.add("Tolerance " + t.output().tolerance(t.tolerance()) + (t.holds() ? "" : ", missed"));
    }
    if (!t.output().plain()) {
      lines.add(
          "Output 0 is %s, %d is %s"
              .formatted(
                  a.design().amount(t.output().quantity(0)),
                  t.spec().arithmetic().fullScale(),
                  a.design().amount(t.output().quantity(t.spec().arithmetic().fullScale()))));
    }
    if (t.byHand().contains(true)) lines.add("Some cells were set by hand");
    return lines;
  }

  private String revision(Channel c) {
    OptionalInt last = desk.store().revisions(c.id()).stream().mapToInt(Revision::number).max();
    return last.isPresent() ? ", after revision " + last.getAsInt() : "";
  }

  private static Code of(Analysis a, TableResult t, List<String> about) {
    String formula = formula(t);
    String expression = expression(a, t, about);
    try {
      TableFirmware f = a.receiver().firmware();
      String name = GeneratedEquation.identifier(a.channel().tag());
      String unit = t.output().unit();
      Map<String, String> decoders = decoders(a, name);
      return new Code(
          Optional.of(new TableC(name, f, about, unit, List.copyOf(decoders.keySet()))),
          Optional.of(new TablePython(name, f, about.getFirst(), unit)),
          formula,
          expression,
          proof(f),
          decoders);
    } catch (QuantityException e) {
      return new Code(
          Optional.empty(), Optional.empty(), formula, expression, e.getMessage() + ".", Map.of());
    }
  }

  /** Headers that give the position or the alarm of a raw code, where the receiver counts. */
  private static Map<String, String> decoders(Analysis a, String name) {
    var headers = new LinkedHashMap<String, String>();
    Channel c = a.channel();
    if (c.receiver().table().axis() != RawUnit.COUNTS || a.design().path().isEmpty())
      return headers;
    var plan = c.wiring().bands();
    String title = c.tag() + " " + c.definition().name();
    if (!plan.positions().isEmpty()) {
      put(headers, name + "_position", title + ", position", a.wiring()::positionDecoder);
    }
    if (!plan.alarms().isEmpty()) {
      put(headers, name + "_alarm", title + ", alarm", a.wiring()::alarmDecoder);
    }
    return headers;
  }

  private static void put(
      Map<String, String> headers, String name, String title, Supplier<Decoder> decoder) {
    try {
      headers.put(name + "_decoder.h", new DecoderSource(name, title).header(decoder.get()));
    } catch (QuantityException e) {
      // Bands that contradict each other have no decoder, which Wire says.
      return;
    }
  }

  private static String proof(TableFirmware f) {
    String crc = "CRC-32 of the cells %08X. ".formatted(f.crc());
    if (f.real()) {
      return crc
          + "Single precision; raw codes are whole steps of the raw column. A self-test comes with it.";
    }
    TableFirmware.Proof p = f.proof();
    return crc
        + "No product overflows: the largest over all %d codes is %d, in %d bits. Rounded half up."
            .formatted((long) f.mostRaw() - f.leastRaw() + 1, p.product(), p.narrow() ? 32 : 64)
        + " The compiled code gives what was computed here, bit for bit; its self-test says so.";
  }

  /** The curve without any table, where it is a line or a polynomial. */
  private static String expression(Analysis a, TableResult t, List<String> about) {
    try {
      String name = GeneratedEquation.identifier(a.channel().tag());
      List<String> head = about.subList(0, Math.min(2, about.size()));
      return new FixedPointC(name, a.receiver().expression(), head, t.output().unit()).source();
    } catch (QuantityException | AlgebraException e) {
      return Sentence.capital(e.getMessage()) + ".";
    }
  }

  private static String formula(TableResult t) {
    StepTable k = t.table();
    int n = k.count();
    String raws = "$A$3:$A$%d".formatted(n + 2);
    String outs = "$B$3:$B$%d".formatted(n + 2);
    var lines = new StringBuilder();
    lines
        .append("=")
        .append(
            SheetFormula.of(
                raws, outs, n, "$D$3", t.spec().descending(), t.spec().arithmetic().outside()))
        .append(
            "\n\nraw in A3:A%d, output in B3:B%d, raw to look up in D3:\n\n"
                .formatted(n + 2, n + 2));
    IntStream.range(0, n)
        .map(t::cell)
        .forEach(
            i ->
                lines
                    .append(Numbers.fixed(k.rawOf(i), t.spec().rawDecimals()))
                    .append('\t')
                    .append(Numbers.fixed(k.outOf(i), k.outDecimals()))
                    .append('\n'));
    return lines.toString();
  }

  @Override
  public void show(Analysis a, TableResult t) {
    work.run(
        () -> now(a, t),
        made -> {
          code = made;
          fill();
        });
  }

  private void fill() {
    String none = code.says();
    text.setText(
        switch (part) {
          case HEADER -> code.c().map(TableC::header).orElse(none);
          case SOURCE -> code.c().map(TableC::source).orElse(none);
          case PYTHON -> code.python().map(TablePython::source).orElse(none);
          case FORMULA -> code.formula();
          case EXPRESSION -> code.expression();
        });
    says.setText(none);
  }

  /** The code of a table; the book is asked for its revisions: not on the interface thread. */
  Code now(Analysis a, TableResult t) {
    return of(a, t, about(a, t));
  }

  @Override
  public void none(String why) {
    code = new Code(Optional.empty(), Optional.empty(), "", "", why, Map.of());
    fill();
  }
}
