package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.UUID;
import java.util.regex.Pattern;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.Definition;
import nocking.channel.Overload;
import nocking.channel.QuantityKind;
import nocking.channel.StoredCurve;
import nocking.converter.Converter;
import nocking.datasheet.SheetSensor;
import nocking.finding.Finding;
import nocking.path.SignalPath;
import nocking.quantity.Ends;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.Sensor;
import nocking.sensor.TablePoint;
import nocking.stage.Stage;
import nocking.table.DisplayLimits;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Makes a channel from options. */
@Command(
    name = "new",
    description = {
      "Make a channel without writing its document by hand:",
      "  nocking new BL-P1 --sensor ratiometric points=0kPa:8%%,100kPa:92%% supply=5V"
          + " --stage divider upper=5k1 lower=10k --bits 12 --ref 3.3V --range 0..60"
          + " --tolerance 0.25 --out BL-P1.json"
    })
final class NewCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "TAG", description = "Short name of the channel.")
  String tag;

  /** Against what a pressure is measured, as a word beside its kind. */
  private static final Pattern REFERENCE =
      Pattern.compile("(?i)\\b(absolute|gauge)\\b[\\s-]*|[\\s-]*\\b(absolute|gauge)\\b");

  @Option(
      names = "--sensor",
      arity = "1..*",
      paramLabel = "MODEL key=value",
      description = "Sensor model and its values, as for the command sensor.")
  List<String> sensor = List.of();

  @Option(
      names = "--datasheet",
      paramLabel = "FILE.txt",
      description = "Text of a datasheet in the place of --sensor.")
  Path datasheet;

  @Option(
      names = "--decimal",
      paramLabel = "point|comma",
      description = "How the datasheet's numbers are written, where they do not say it themselves.")
  String decimal;

  @Option(names = "--type", paramLabel = "NAME", description = "Which of the datasheet's types.")
  String type;

  @Option(
      names = "--stage",
      arity = "1..*",
      paramLabel = "NAME key=value",
      description = "A stage and its values; repeated in the order of the path.")
  List<String> stages = List.of();

  @Option(names = "--bits", paramLabel = "N", description = "Bits of the converter.")
  String bits = "12";

  @Option(names = "--ref", paramLabel = "V", description = "Reference of the converter.")
  String reference = "3.3V";

  @Option(names = "--input", paramLabel = "R", description = "Input resistance of the converter.")
  String input;

  @Option(names = "--unit", paramLabel = "UNIT", description = "Unit of the quantity.")
  String unit;

  @Option(
      names = "--kind",
      paramLabel = "KIND",
      description = "What is measured; a pressure is gauge unless it is an \"absolute pressure\".")
  String kind;

  @Option(
      names = "--range",
      paramLabel = "A..B",
      description = "Working range; what the sensor is rated for where nothing is said.")
  String range;

  @Option(names = "--name", paramLabel = "TEXT", description = "The channel in words.")
  String name = "";

  @Option(names = "--tolerance", paramLabel = "T", description = "Largest error that is good.")
  String tolerance;

  @Option(names = "--rest", paramLabel = "X", description = "Quantity at rest.")
  String rest;

  @Option(
      names = "--stored",
      split = ",",
      paramLabel = "V:X,V:X",
      description = "Points of a curve of its own that the receiver goes by.")
  List<String> stored = List.of();

  @Option(
      names = "--display",
      paramLabel = "A..B",
      description = "Least and largest reading of the display; either may be left open.")
  String display;

  @Option(names = "--out", required = true, paramLabel = "FILE.json", description = "Where to.")
  Path out;

  @Option(names = "--force", description = "Replace an existing file.")
  boolean force;

  @Override
  int run(Answer answer) {
    if (!out.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(".json")) {
      throw new QuantityException("--out takes a name ending in .json; read " + out);
    }
    Channel channel = channel();
    Analysis analysis = Analysis.of(channel);
    SignalPath path = ChannelFiles.required(analysis, analysis.design().path());
    write(out, ChannelJson.write(channel), force);
    answer.put("file", out.toString()).put("findings", PathCommand.findings(analysis));
    Span w = channel.definition().working();
    answer.line(
        "%s: %s %s … %s %s gives %s … %s V",
        out,
        channel.tag(),
        Numbers.trimmed(w.low(), 6),
        Numbers.trimmed(w.high(), 6),
        channel.definition().unit(),
        Numbers.fixed(path.output(w.low()), 4),
        Numbers.fixed(path.output(w.high()), 4));
    for (Finding f : analysis.findings()) {
      answer.line("%s: %s", f.severity().name().toLowerCase(Locale.ROOT), f.text());
    }
    return 0;
  }

  private Channel channel() {
    if (sensor.isEmpty() == (datasheet == null)) {
      throw new QuantityException("a channel is made of --sensor or of --datasheet, one of them");
    }
    return datasheet == null ? ofModel() : ofDatasheet();
  }

  private Channel ofModel() {
    var arguments = new SensorArguments(sensor.getFirst(), sensor.subList(1, sensor.size()), unit);
    return channel(arguments.quantity(), arguments.sensor(), null);
  }

  private Channel ofDatasheet() {
    SheetSensor chosen = DatasheetCommand.chosen(DatasheetCommand.read(datasheet, decimal), type);
    Unit quantity = unit == null ? chosen.unit() : Unit.of(unit);
    if (!quantity.dimension().equals(chosen.unit().dimension())) {
      throw new QuantityException(
          "--unit: the datasheet is in %s, read %s".formatted(chosen.unit().symbol(), unit));
    }
    return channel(
        quantity,
        chosen.sensorIn(quantity),
        chosen.overload().map(o -> chosen.overloadIn(quantity)).orElse(null));
  }

  private Channel channel(Unit quantity, Sensor made, Overload overload) {
    List<Stage> path = StageArguments.stages(stages, quantity);
    Converter converter =
        Converter.of(
            option("--bits", bits, Unit.ONE),
            option("--ref", reference, Unit.VOLT),
            input == null ? null : option("--input", input, Unit.OHM));
    Ends ends = ends(made, quantity);
    Channel channel =
        Channel.blank(UUID.randomUUID().toString(), tag)
            .define(d -> defined(d, quantity, ends))
            .design(
                d ->
                    d.withSensor(made)
                        .withOverload(overload)
                        .withStages(path)
                        .withConverter(converter));
    Channel whole =
        channel.receiver(r -> r.withStored(storedCurve(quantity)).withLimits(limits(quantity)));
    whole.require();
    return whole;
  }

  private StoredCurve storedCurve(Unit quantity) {
    if (stored.isEmpty()) return null;
    var rows = new ArrayList<TablePoint>();
    for (String pair : stored) {
      String[] both = pair.split(":");
      if (both.length != 2) {
        throw new QuantityException(
            "--stored: read '%s', expected volts and reading, for example 0.5:0".formatted(pair));
      }
      rows.add(
          new TablePoint(
              option("--stored", both[1], quantity), option("--stored", both[0], Unit.VOLT)));
    }
    try {
      return StoredCurve.through(quantity, rows);
    } catch (QuantityException e) {
      throw new QuantityException("--stored: " + e.getMessage());
    }
  }

  private DisplayLimits limits(Unit quantity) {
    if (display == null) return null;
    try {
      return DisplayLimits.typed(display, quantity);
    } catch (QuantityException e) {
      throw new QuantityException("--display: " + e.getMessage());
    }
  }

  private Definition defined(Definition blank, Unit quantity, Ends ends) {
    Definition d =
        blank
            .withName(name)
            .measuring(kind == null ? QuantityKind.measuredIn(quantity) : kindNamed())
            .withUnit(quantity.symbol())
            .withRange(ends.from(), ends.to());
    if (absolute()) {
      d = d.withGauge(false);
      if (d.gauge() == null) {
        throw new QuantityException(
            "--kind: read '%s', and only a pressure in a unit of pressure is gauge or absolute"
                .formatted(kind));
      }
    }
    if (tolerance != null) {
      double width = ends.to().number() - ends.from().number();
      d = d.withTolerance(Value.tolerance(tolerance, quantity.difference(), width));
    }
    return rest == null ? d : d.withRest(option("--rest", rest, quantity));
  }

  private Ends ends(Sensor made, Unit quantity) {
    if (range == null) {
      Span rated = made.rated(quantity);
      return new Ends(Value.of(rated.low()), Value.of(rated.high()));
    }
    try {
      return Ends.typed(range, quantity);
    } catch (QuantityException e) {
      throw new QuantityException("--range: " + e.getMessage());
    }
  }

  private static Value option(String option, String text, Unit unit) {
    try {
      return Value.typed(text, unit);
    } catch (QuantityException e) {
      throw new QuantityException(option + ": " + e.getMessage());
    }
  }

  private boolean absolute() {
    return kind != null
        && REFERENCE
            .matcher(kind)
            .results()
            .anyMatch(m -> m.group().toLowerCase(Locale.ROOT).contains("absolute"));
  }

  private QuantityKind kindNamed() {
    String wanted = REFERENCE.matcher(kind).replaceAll("").strip().toLowerCase(Locale.ROOT);
    return Arrays.stream(QuantityKind.values())
        .filter(k -> k.title().equals(wanted) || k.name().toLowerCase(Locale.ROOT).equals(wanted))
        .findFirst()
        .orElseThrow(
            () ->
                new QuantityException(
                    "--kind: '%s' is not known; known are %s"
                        .formatted(
                            kind,
                            String.join(
                                ", ",
                                Arrays.stream(QuantityKind.values())
                                    .map(k -> k.name().toLowerCase(Locale.ROOT))
                                    .toList()))));
  }
}
