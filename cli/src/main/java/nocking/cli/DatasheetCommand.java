package nocking.cli;

import java.nio.file.Path;
import java.util.Locale;
import java.util.stream.Collectors;
import nocking.datasheet.Datasheet;
import nocking.datasheet.Separator;
import nocking.datasheet.SheetLine;
import nocking.datasheet.SheetSensor;
import nocking.quantity.QuantityException;
import nocking.sensor.Sensor;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Reads the text of a datasheet and says what of each line was understood. */
@Command(
    name = "datasheet",
    description = "Read the text of a datasheet: what each line says, and the sensors it makes.")
final class DatasheetCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "FILE.txt")
  Path file;

  @Option(
      names = "--decimal",
      paramLabel = "point|comma",
      description = "How its numbers are written, where they do not say it themselves.")
  String decimal;

  @Override
  int run(Answer answer) {
    Datasheet sheet = read(file, decimal);
    answer
        .put("decimal", sheet.separator().name().toLowerCase(Locale.ROOT))
        .put("lines", sheet.lines().stream().map(DatasheetCommand::line).toList())
        .put("sensors", sheet.sensors().stream().map(DatasheetCommand::sensor).toList())
        .put("problem", sheet.problem());
    answer.line("numbers with a %s", sheet.separator().title());
    for (SheetLine l : sheet.lines()) {
      answer.line("%3d %s %s    | %s", l.number(), mark(l.reading()), l.says(), l.text());
    }
    for (SheetSensor s : sheet.sensors()) {
      answer.line("%s: %s, %s", name(s), s.sensor().summary(), s.says());
    }
    if (!sheet.problem().isEmpty()) answer.line("no sensor: %s", sheet.problem());
    return sheet.problem().isEmpty() ? 0 : 1;
  }

  private static String mark(SheetLine.Reading r) {
    return switch (r) {
      case UNDERSTOOD -> "+";
      case NOT_NEEDED -> " ";
      case NOT_UNDERSTOOD -> "?";
      case CONTRADICTS -> "!";
    };
  }

  private static Object line(SheetLine l) {
    return Answer.object(
        "number",
        l.number(),
        "reading",
        l.reading().name().toLowerCase(Locale.ROOT),
        "says",
        l.says(),
        "text",
        l.text());
  }

  private static Object sensor(SheetSensor s) {
    Sensor of = s.sensor();
    return Answer.object(
        "type", s.type(), "model", of.model(), "unit", s.unit().symbol(), "summary", of.summary());
  }

  private static String name(SheetSensor s) {
    return s.type().isEmpty() ? "sensor" : s.type();
  }

  /**
   * @param decimal {@code point} or {@code comma}; null to find out
   */
  static Datasheet read(Path file, String decimal) {
    String text = ChannelFiles.text(file);
    try {
      return decimal == null
          ? Datasheet.read(text)
          : Datasheet.read(text, Choices.read(Separator.values(), "--decimal", decimal));
    } catch (QuantityException e) {
      throw new QuantityException("%s: %s".formatted(file, e.getMessage()));
    }
  }

  /**
   * The one sensor of a datasheet, or the one of this type.
   *
   * @param type null where there is one only
   */
  static SheetSensor chosen(Datasheet sheet, String type) {
    if (!sheet.problem().isEmpty()) throw new QuantityException(sheet.problem());
    String names =
        sheet.sensors().stream().map(SheetSensor::type).collect(Collectors.joining(", "));
    if (type == null) {
      if (sheet.sensors().size() == 1) return sheet.sensors().getFirst();
      throw new QuantityException("the datasheet has several types, choose one: --type " + names);
    }
    return sheet.sensors().stream()
        .filter(s -> s.type().equalsIgnoreCase(type.strip()))
        .findFirst()
        .orElseThrow(
            () ->
                new QuantityException(
                    "the datasheet has no type '%s'; it has %s".formatted(type, names)));
  }
}
