package nocking.cli;

import nocking.quantity.Dimension;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Converts a value between units, and between gauge and absolute pressure. */
@Command(name = "convert", description = "Convert a value: nocking convert 25 psi kPa")
final class ConvertCommand extends JsonOption {
  /** What arithmetic may leave below a limit that is itself allowed, SI. */
  private static final double SMALL = 1e-9;

  private static final String STANDARD_ATMOSPHERE = "101.325kPa";

  @Parameters(index = "0", paramLabel = "VALUE", description = "A number or an expression.")
  String value;

  @Parameters(index = "1", paramLabel = "FROM", description = "Unit of the value.")
  String from;

  @Parameters(index = "2", paramLabel = "TO", description = "Unit wanted.")
  String to;

  @Option(
      names = "--gauge-to-absolute",
      arity = "0..1",
      fallbackValue = STANDARD_ATMOSPHERE,
      paramLabel = "ATM",
      description = "Add the ambient pressure (default: ${FALLBACK-VALUE}).")
  String addAmbient;

  @Option(
      names = "--absolute-to-gauge",
      arity = "0..1",
      fallbackValue = STANDARD_ATMOSPHERE,
      paramLabel = "ATM",
      description = "Take the ambient pressure away (default: ${FALLBACK-VALUE}).")
  String takeAmbient;

  @Override
  int run(Answer answer) {
    Unit source = Unit.of(from);
    Unit target = Unit.of(to);
    double number = QuantityParser.value(value, source);
    if (source.dimension().equals(Dimension.TEMPERATURE) && source.toSi(number) < -SMALL) {
      throw new QuantityException(
          "%s %s is below absolute zero, %s %s"
              .formatted(
                  Numbers.trimmed(number, 9),
                  source.symbol(),
                  Numbers.trimmed(source.fromSi(0), 7),
                  source.symbol()));
    }
    if (takeAmbient != null && source.toSi(number) < -SMALL) throw belowVacuum(number, source);
    double converted = source.convert(number, target) + ambient(target);
    if (addAmbient != null && target.toSi(converted) < -SMALL) throw belowVacuum(converted, target);
    answer
        .put("value", converted)
        .put("unit", target.symbol())
        .line("%s %s", Numbers.trimmed(converted, 9), target.symbol());
    return 0;
  }

  private static QuantityException belowVacuum(double absolute, Unit unit) {
    return new QuantityException(
        "%s %s absolute is below a vacuum; an absolute pressure is at least 0"
            .formatted(Numbers.trimmed(absolute, 9), unit.symbol()));
  }

  private double ambient(Unit target) {
    if (addAmbient == null && takeAmbient == null) return 0;
    if (addAmbient != null && takeAmbient != null) {
      throw new QuantityException("gauge to absolute and absolute to gauge exclude each other");
    }
    if (!target.dimension().equals(Dimension.PRESSURE)) {
      throw new QuantityException(
          "gauge and absolute are for pressures; %s is %s"
              .formatted(target.symbol(), target.dimension().says()));
    }
    String typed = addAmbient != null ? addAmbient : takeAmbient;
    double ambient = QuantityParser.value(typed, target);
    return addAmbient != null ? ambient : -ambient;
  }
}
