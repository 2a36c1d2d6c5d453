package nocking.app.step.table;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Paper;
import nocking.app.control.Segments;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.book.Revision;
import nocking.channel.Channel;
import nocking.firmware.SheetFormula;
import nocking.firmware.TableC;
import nocking.firmware.TableFirmware;
import nocking.firmware.TablePython;
import nocking.path.GeneratedEquation;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.table.StepTable;
import nocking.view.TableResult;

/** The code that looks the table up, as it would be written, and what is proven of it. */
final class CodePage implements TablePage {
  private enum Part {
    HEADER("header"),
    SOURCE("source"),
    PYTHON("Python"),
    FORMULA("sheet formula");

    private final String title;

    Part(String title) {
      this.title = title;
    }
  }

  /** What is written for a table, or why nothing is. */
  record Code(Optional<TableC> c, Optional<TablePython> python, String formula, String says) {}

  private final Desk desk;
  private final Clock clock;
  private final TextArea text = new TextArea();
  private final Label says = Paper.caption("");
  private final Segments<Part> parts;
  private final VBox root;
  private final Latest work = new Latest();
  private Part part = Part.SOURCE;
  private Code code = new Code(Optional.empty(), Optional.empty(), "", "");

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

  Code of(Analysis a, TableResult t, List<String> about) {
    String formula = formula(t);
    try {
      TableFirmware f = a.receiver().firmware();
      String name = GeneratedEquation.identifier(a.channel().tag());
      String unit = t.output().unit();
      return new Code(
          Optional.of(new TableC(name, f, about, unit)),
          Optional.of(new TablePython(name, f, about.getFirst(), unit)),
          formula,
          proof(f));
    } catch (QuantityException e) {
      return new Code(Optional.empty(), Optional.empty(), formula, e.getMessage() + ".");
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
    List<String> about = about(a, t);
    work.run(
        () -> of(a, t, about),
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
        });
    says.setText(none);
  }

  /** The code of a table, made here and now. */
  Code now(Analysis a, TableResult t) {
    return of(a, t, about(a, t));
  }

  @Override
  public void none(String why) {
    code = new Code(Optional.empty(), Optional.empty(), "", why);
    fill();
  }
}
