package nocking.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import nocking.element.Measurand;
import nocking.path.SensorCurve;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.sensor.Sensor;
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
      "  nocking sensor ratiometric points=0kPa:8%%,100kPa:92%% supply=5V --electrical 2.92V",
      "  nocking sensor table file=TABLE.csv interpolation=monotone-cubic --at 12",
      "  nocking sensor ntc-beta r0=10k t0=25degC beta=3950 --electrical 8k2",
      "  nocking sensor ntc-steinhart points=0degC:32650,25degC:10k,100degC:680 --at 60",
      "  nocking sensor rtd r0=100 --at -40 100",
      "  nocking sensor thermocouple type=K cj=22degC --electrical 12.2mV",
      "  nocking sensor loop low=0 high=4m current=4mA..20mA --at 1.5",
      "  nocking sensor potentiometer travel=0mm..220mm supply=5V start=0.05 end=0.95 --at 110",
      "  nocking sensor bridge full-scale=60kg sensitivity=2mV/V excitation=5V --at 30",
      "  nocking sensor bipolar rest=2.5V slope=25mV --at -40",
      "  nocking sensor ac waveform=sine from=rms to=peak --at 230V",
      "  nocking sensor formula f=\"0.35+0.02*x\" range=0..100 --at 9"
    })
final class SensorCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "MODEL", description = "One of the models above.")
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
    var arguments = new SensorArguments(model, pairs, unit);
    if (at.isEmpty() == electrical.isEmpty()) {
      throw new QuantityException("give --at for forward or --electrical for inverse, one of them");
    }
    Unit quantity = arguments.quantity();
    Sensor sensor = arguments.sensor();
    SensorCurve curve = SensorCurve.of(new Measurand("x", quantity), sensor);
    Span card = stated(sensor.rated(quantity));
    Unit out = shownIn(curve.outputUnit());
    var points = new ArrayList<Map<String, Object>>();
    var rows = new ArrayList<List<String>>();
    for (String x : at) {
      double q = QuantityParser.value(x, quantity);
      add(points, rows, q, quantity, out.fromSi(curve.output(q)), out, card);
    }
    for (String y : electrical) {
      double v = QuantityParser.value(y, out);
      add(points, rows, curve.quantity(out.toSi(v)), quantity, v, out, card);
    }
    answer.put("points", points).table(rows);
    return 0;
  }

  /** The range that the model's own numbers state; everything where they state none. */
  private Span stated(Span rated) {
    return switch (model) {
      case "two-point", "ratiometric", "loop", "bridge" -> rated;
      default -> new Span(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
    };
  }

  /** Loops are read in milliamperes, bridges and thermocouples in millivolts. */
  private Unit shownIn(Unit own) {
    return switch (model) {
      case "loop" -> Unit.of("mA");
      case "thermocouple", "bridge" -> Unit.of("mV");
      default -> own;
    };
  }

  private static void add(
      List<Map<String, Object>> points,
      List<List<String>> rows,
      double quantity,
      Unit unit,
      double electrical,
      Unit out,
      Span card) {
    double slack = Double.isInfinite(card.width()) ? 0 : 1e-9 * card.width();
    boolean beyond = quantity < card.low() - slack || quantity > card.high() + slack;
    points.add(
        Answer.object(
            "quantity",
            quantity,
            "quantityUnit",
            unit.symbol(),
            "electrical",
            electrical,
            "electricalUnit",
            out.symbol(),
            "extrapolated",
            beyond));
    rows.add(
        List.of(
            (Numbers.trimmed(quantity, 7) + " " + unit.symbol()).strip(),
            Numbers.trimmed(electrical, 7) + " " + out.symbol(),
            beyond
                ? "extrapolated beyond %s … %s %s"
                    .formatted(
                        Numbers.trimmed(card.low(), 6),
                        Numbers.trimmed(card.high(), 6),
                        unit.symbol())
                    .strip()
                : ""));
  }
}
