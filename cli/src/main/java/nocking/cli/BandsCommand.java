package nocking.cli;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import nocking.band.BandPlan;
import nocking.band.BandProblem;
import nocking.band.Positions;
import nocking.book.exchange.BandsCsv;
import nocking.book.exchange.ColumnFile;
import nocking.converter.Converter;
import nocking.firmware.Decoder;
import nocking.firmware.DecoderSource;
import nocking.path.GeneratedEquation;
import nocking.quantity.Ends;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Windows of a selector's positions from where they were seen to settle. */
@Command(
    name = "bands",
    description = {
      "Windows of a selector's positions from where they were seen to settle.",
      "FILE.csv has the columns name and volts, and where known centre, half and direction (up or"
          + " down); several rows of one name are its settles."
    })
final class BandsCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "FILE.csv")
  Path file;

  @Option(names = "--range", paramLabel = "LO..HI", description = "Converter's range (0..5V).")
  String range = "0V..5V";

  @Option(names = "--lever", paramLabel = "LENGTH", description = "Lever that turns the sensor.")
  String lever;

  @Option(
      names = "--turn",
      paramLabel = "ANGLE",
      description = "Turn of the sensor over the whole range.")
  String turn;

  @Option(
      names = "--c",
      paramLabel = "DIR",
      description = "Write NAME_decoder.h and NAME_decoder.py into this folder.")
  Path code;

  @Option(names = "--bits", paramLabel = "N", description = "Bits of the converter, for --c.")
  String bits = "12";

  @Option(names = "--dwell", paramLabel = "S", description = "Time before a state counts, for --c.")
  String dwell;

  @Option(names = "--force", description = "Replace existing files.")
  boolean force;

  /** Codes from a volt range that begins at 0 V. */
  private void write(Answer answer, Positions p) {
    Span range = span();
    if (range.low() != 0) {
      throw new QuantityException("--c needs a --range that begins at 0 V; read " + this.range);
    }
    var converter =
        Converter.of(Value.of(QuantityParser.value(bits, Unit.ONE)), Value.of(range.high()), null);
    converter.require(Unit.ONE);
    Value seconds = dwell == null ? null : Value.typed(dwell, Unit.of("s"));
    Decoder d = Decoder.ofPositions(p.windows(), null, converter, seconds);
    String stem = file.getFileName().toString().replaceAll("\\.[^.]*$", "");
    String name = GeneratedEquation.identifier(stem);
    var source = new DecoderSource(name, "Positions of " + stem);
    Path header = code.resolve(name + "_decoder.h");
    Path module = code.resolve(name + "_decoder.py");
    var files = new LinkedHashMap<Path, byte[]>();
    files.put(header, source.header(d).getBytes(StandardCharsets.UTF_8));
    files.put(module, source.python(d).getBytes(StandardCharsets.UTF_8));
    write(files, force);
    answer.put("written", List.of(header.toString(), module.toString()));
    answer.line("%s and %s, %d states", header, module, d.states().size());
  }

  @Override
  int run(Answer answer) {
    if ((lever == null) != (turn == null)) {
      throw new QuantityException("--lever and --turn belong together; one of them is missing");
    }
    BandPlan plan = BandPlan.EMPTY.withPositions(BandsCsv.read(ColumnFile.read(file)));
    if (lever != null) {
      plan =
          plan.withLever(
              Value.of(QuantityParser.value(lever, Unit.of("mm"))),
              Value.of(QuantityParser.value(turn, Unit.of("°"))));
    }
    Positions p = Positions.of(plan, span());
    text(answer, p);
    answer
        .put(
            "positions",
            p.windows().stream()
                .map(
                    w ->
                        Answer.object(
                            "name",
                            w.name(),
                            "centre",
                            w.centre(),
                            "low",
                            w.low(),
                            "high",
                            w.high(),
                            "mean",
                            w.mean(),
                            "scatter",
                            w.scatter(),
                            "slack",
                            w.slack(),
                            "settles",
                            w.observed()))
                .toList())
        .put("suggestedHalf", p.suggested())
        .put("travelUsed", p.used())
        .put("lever", p.lever().isPresent() ? p.lever().getAsDouble() : null)
        .put(
            "findings",
            p.problems().stream()
                .map(
                    f ->
                        Answer.object(
                            "kind", f.kind().name().toLowerCase(Locale.ROOT), "text", f.text()))
                .toList());
    if (code != null) write(answer, p);
    boolean contradicts = p.problems().stream().anyMatch(f -> !f.kind().advice());
    return contradicts ? NockingCli.FAIL : 0;
  }

  private Span span() {
    Span s;
    try {
      s = Ends.typed(range, Unit.VOLT).span();
    } catch (QuantityException e) {
      throw new QuantityException("--range: " + e.getMessage());
    }
    if (!(s.width() > 0)) {
      throw new QuantityException("--range must rise; read '%s'".formatted(range));
    }
    return s;
  }

  private static void text(Answer answer, Positions p) {
    var rows = new ArrayList<List<String>>();
    for (Positions.Window w : p.windows()) {
      String slack =
          Double.isNaN(w.slack()) ? "" : "slack " + Numbers.engineering(w.slack(), "V", 2);
      rows.add(
          List.of(
              w.name(),
              Numbers.fixed(w.low(), 3) + " … " + Numbers.fixed(w.high(), 3) + " V",
              "scatter " + Numbers.engineering(w.scatter(), "V", 2),
              slack));
    }
    answer.table(rows);
    if (!Double.isNaN(p.suggested())) {
      answer.line("suggested half window %s", Numbers.engineering(p.suggested(), "V", 3));
    }
    for (BandProblem f : p.problems()) answer.line("%s", f.text());
  }
}
