package nocking.cli;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.converter.Converter;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import nocking.quantity.UnitCatalogue;
import nocking.quantity.Value;
import nocking.sensor.LinearSensor;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.Sensor;
import nocking.sensor.TwoPointSensor;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Evaluates one sensor model, forward or inverse. */
@Command(
    name = "sensor",
    description = {
      "Evaluate a sensor model:",
      "  nocking sensor linear offset=350mV at=0degC slope=20mV --at 9",
      "  nocking sensor two-point points=0kPa:0.4V,100kPa:4.6V --at 30kPa",
      "  nocking sensor ratiometric points=0kPa:8%%,100kPa:92%% supply=5V --electrical 2.92V"
    })
final class SensorCommand extends JsonOption {
  private static final Set<String> LATER =
      Set.of(
          "table",
          "ntc-beta",
          "ntc-steinhart",
          "rtd",
          "thermocouple",
          "loop",
          "potentiometer",
          "bridge",
          "bipolar",
          "ac",
          "formula");
  private static final Pattern UNIT_AT_END = Pattern.compile("[0-9.)]\\s*([^0-9.\\s)(+*/-].*)$");

  @Parameters(index = "0", paramLabel = "MODEL", description = "linear, two-point, ratiometric")
  String model;

  @Parameters(index = "1..*", paramLabel = "key=value", description = "The model's parameters.")
  List<String> pairs = List.of();

  @Option(names = "--at", arity = "1..*", paramLabel = "X", description = "Inputs, forward.")
  List<String> at = List.of();

  @Option(
      names = "--electrical",
      arity = "1..*",
      paramLabel = "Y",
      description = "Electrical values, inverse.")
  List<String> electrical = List.of();

  @Option(names = "--unit", paramLabel = "UNIT", description = "Unit of the quantity.")
  String unit;

  @Override
  int run(Answer answer) {
    if (LATER.contains(model)) throw new NotAvailableException("the sensor model " + model);
    if (at.isEmpty() == electrical.isEmpty()) {
      throw new QuantityException("give --at for forward or --electrical for inverse, one of them");
    }
    Map<String, String> keys = keys();
    Unit quantity = quantityUnit(keys);
    Sensor sensor = sensor(keys, quantity);
    sensor.require(quantity);
    SignalPath path = SignalPath.of("x", sensor, List.of(), Converter.of(12, 5));
    var points = new ArrayList<Map<String, Object>>();
    var rows = new ArrayList<List<String>>();
    for (String x : at) {
      double q = QuantityParser.value(x, quantity);
      add(points, rows, q, path.output(q), quantity, sensor);
    }
    for (String y : electrical) {
      double v = QuantityParser.value(y, Unit.VOLT);
      add(points, rows, path.quantity(v), v, quantity, sensor);
    }
    answer.put("points", points).table(rows);
    return 0;
  }

  private static void add(
      List<Map<String, Object>> points,
      List<List<String>> rows,
      double quantity,
      double volts,
      Unit unit,
      Sensor sensor) {
    sensor
        .possibleOutput()
        .filter(span -> !span.contains(volts))
        .ifPresent(
            span -> {
              throw new QuantityException(
                  "%s %s would need %s, outside the supply's 0 … %s V"
                      .formatted(
                          Numbers.trimmed(quantity, 6),
                          unit.symbol(),
                          Numbers.engineering(volts, "V", 4),
                          Numbers.trimmed(span.high(), 4)));
            });
    points.add(
        Answer.object(
            "quantity",
            quantity,
            "quantityUnit",
            unit.symbol(),
            "electrical",
            volts,
            "electricalUnit",
            "V"));
    rows.add(
        List.of(
            (Numbers.trimmed(quantity, 7) + " " + unit.symbol()).strip(),
            Numbers.trimmed(volts, 7) + " V"));
  }

  private Map<String, String> keys() {
    var keys = new LinkedHashMap<String, String>();
    for (String pair : pairs) {
      int equals = pair.indexOf('=');
      if (equals < 1) throw new QuantityException("read '" + pair + "', expected key=value");
      keys.put(pair.substring(0, equals), pair.substring(equals + 1));
    }
    return keys;
  }

  /** The unit asked for, else the one that stands with the model's own points. */
  private Unit quantityUnit(Map<String, String> keys) {
    if (unit != null) return Unit.of(unit);
    String own =
        model.equals("linear")
            ? keys.getOrDefault("at", "")
            : first(keys.getOrDefault("points", ""));
    return unitOf(own).orElse(Unit.ONE);
  }

  private static String first(String points) {
    int colon = points.indexOf(':');
    return colon < 0 ? "" : points.substring(0, colon);
  }

  private static Optional<Unit> unitOf(String typed) {
    Matcher m = UNIT_AT_END.matcher(typed.strip());
    return m.find() ? UnitCatalogue.find(m.group(1).strip()) : Optional.empty();
  }

  private Sensor sensor(Map<String, String> keys, Unit quantity) {
    return switch (model) {
      case "linear" -> {
        only(keys, "offset", "at", "slope");
        yield new LinearSensor(
            Value.typed(keys.getOrDefault("offset", "0V"), Unit.VOLT),
            Value.typed(keys.getOrDefault("at", "0"), quantity),
            Value.typed(required(keys, "slope"), Unit.VOLT),
            Value.of(0),
            Value.of(100),
            Value.of(0));
      }
      case "two-point" -> {
        only(keys, "points");
        String[][] p = points(keys);
        yield new TwoPointSensor(
            Value.typed(p[0][0], quantity),
            Value.typed(p[0][1], Unit.VOLT),
            Value.typed(p[1][0], quantity),
            Value.typed(p[1][1], Unit.VOLT),
            Value.of(0));
      }
      case "ratiometric" -> {
        only(keys, "points", "supply");
        String[][] p = points(keys);
        yield new RatiometricSensor(
            Value.typed(p[0][0], quantity),
            Value.typed(p[0][1], Unit.PERCENT),
            Value.typed(p[1][0], quantity),
            Value.typed(p[1][1], Unit.PERCENT),
            Value.typed(required(keys, "supply"), Unit.VOLT),
            Value.of(0));
      }
      default ->
          throw new QuantityException(
              "'%s' is no sensor model; known are linear, two-point, ratiometric".formatted(model));
    };
  }

  private void only(Map<String, String> keys, String... known) {
    for (String key : keys.keySet()) {
      if (!List.of(known).contains(key)) {
        throw new QuantityException(
            "%s has no key '%s'; its keys are %s".formatted(model, key, String.join(", ", known)));
      }
    }
  }

  private String required(Map<String, String> keys, String key) {
    String value = keys.get(key);
    if (value == null) throw new QuantityException(model + " needs " + key + "=…");
    return value;
  }

  private String[][] points(Map<String, String> keys) {
    String[] both = required(keys, "points").split(",");
    if (both.length != 2) {
      throw new QuantityException(
          "read %d points, expected two: points=X:Y,X:Y".formatted(both.length));
    }
    String[][] split = new String[2][];
    for (int i = 0; i < 2; i++) {
      split[i] = both[i].split(":");
      if (split[i].length != 2) {
        throw new QuantityException("read '" + both[i] + "', expected a point X:Y");
      }
    }
    return split;
  }
}
