package nocking.cli;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.SensorTable;
import nocking.element.Signal;
import nocking.element.Titled;
import nocking.quantity.Ends;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.UnitCatalogue;
import nocking.quantity.Value;
import nocking.sensor.AcVoltage;
import nocking.sensor.BipolarSensor;
import nocking.sensor.CurrentLoop;
import nocking.sensor.FormulaSensor;
import nocking.sensor.LinearSensor;
import nocking.sensor.NtcBeta;
import nocking.sensor.NtcSteinhart;
import nocking.sensor.PlatinumRtd;
import nocking.sensor.Potentiometer;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.Sensor;
import nocking.sensor.StrainBridge;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.sensor.Thermocouple;
import nocking.sensor.ThermocoupleType;
import nocking.sensor.TwoPointSensor;

/** A sensor from the {@code key=value} pairs of the command line. */
final class SensorArguments {
  private static final Pattern UNIT_AT_END = Pattern.compile("[0-9.)]\\s*([^0-9.\\s)(+*/-].*)$");
  private static final Value ZERO = Value.of(0);

  private static final Map<String, List<String>> KEYS = new LinkedHashMap<>();

  static {
    KEYS.put("linear", List.of("offset", "at", "slope"));
    KEYS.put("two-point", List.of("points"));
    KEYS.put("ratiometric", List.of("points", "supply"));
    KEYS.put("table", List.of("file", "interpolation"));
    KEYS.put("ntc-beta", List.of("r0", "t0", "beta"));
    KEYS.put("ntc-steinhart", List.of("a", "b", "c", "points"));
    KEYS.put("rtd", List.of("r0", "wires", "lead"));
    KEYS.put("thermocouple", List.of("type", "cj"));
    KEYS.put("loop", List.of("low", "high", "current"));
    KEYS.put(
        "potentiometer",
        List.of("travel", "supply", "resistance", "start", "end", "ends", "top", "bottom", "side"));
    KEYS.put("bridge", List.of("full-scale", "sensitivity", "excitation", "zero"));
    KEYS.put("bipolar", List.of("rest", "slope"));
    KEYS.put("ac", List.of("waveform", "from", "to", "ratio", "peak-factor", "form-factor"));
    KEYS.put("formula", List.of("f", "range"));
  }

  private final String model;
  private final Map<String, String> given = new LinkedHashMap<>();
  private final Unit quantity;

  /**
   * @param unit asked for; null for the one that stands with the model's own values
   * @throws QuantityException one sentence
   */
  SensorArguments(String model, List<String> pairs, String unit) {
    this.model = model;
    if (!KEYS.containsKey(model)) {
      throw new QuantityException(
          "'%s' is no sensor model; known are %s"
              .formatted(model, String.join(", ", KEYS.keySet())));
    }
    for (String pair : pairs) {
      int equals = pair.indexOf('=');
      if (equals < 1) throw new QuantityException("read '" + pair + "', expected key=value");
      String key = pair.substring(0, equals);
      if (!KEYS.get(model).contains(key)) {
        throw new QuantityException(
            "%s has no key '%s'; its keys are %s"
                .formatted(model, key, String.join(", ", KEYS.get(model))));
      }
      given.put(key, pair.substring(equals + 1));
    }
    quantity = unit != null ? Unit.of(unit) : ownUnit();
  }

  /** Unit of the quantity. */
  Unit quantity() {
    return quantity;
  }

  private Unit ownUnit() {
    return switch (model) {
      case "ntc-beta", "ntc-steinhart", "rtd", "thermocouple" -> Unit.CELSIUS;
      case "ac" -> Unit.VOLT;
      case "linear" -> of("at");
      case "two-point", "ratiometric" -> unitOf(or("points", "").split("[,:]")[0]);
      case "loop" -> of("high");
      case "bridge" -> of("full-scale");
      case "potentiometer" -> unitOf(end(or("travel", "")));
      case "formula" -> unitOf(end(or("range", "")));
      case "table" -> SensorTable.of(file(), Unit.ONE).unit().orElse(Unit.ONE);
      default -> Unit.ONE;
    };
  }

  private Unit of(String key) {
    return unitOf(or(key, ""));
  }

  private static String end(String range) {
    return range.substring(range.lastIndexOf('.') + 1);
  }

  private static Unit unitOf(String typed) {
    Matcher m = UNIT_AT_END.matcher(typed.strip());
    Optional<Unit> unit = m.find() ? UnitCatalogue.find(m.group(1).strip()) : Optional.empty();
    return unit.orElse(Unit.ONE);
  }

  private String or(String key, String otherwise) {
    return given.getOrDefault(key, otherwise);
  }

  private String required(String key) {
    String value = given.get(key);
    if (value == null) throw new QuantityException(model + " needs " + key + "=…");
    return value;
  }

  private Value value(String key, String otherwise, Unit unit) {
    return read(key, otherwise == null ? required(key) : or(key, otherwise), unit);
  }

  /** A value that may be left out. */
  private Value optional(String key, Unit unit) {
    String text = or(key, "");
    return text.isBlank() ? null : read(key, text, unit);
  }

  private static Value read(String key, String text, Unit unit) {
    try {
      return Value.typed(text, unit);
    } catch (QuantityException e) {
      throw new QuantityException(key + ": " + e.getMessage());
    }
  }

  /** The sensor with all its values. */
  Sensor sensor() {
    Sensor s = build();
    s.require(quantity);
    return s;
  }

  private Sensor build() {
    return switch (model) {
      case "linear" ->
          new LinearSensor(
              value("offset", "0V", Unit.VOLT),
              value("at", "0", quantity),
              value("slope", null, Unit.VOLT),
              ZERO,
              Value.of(100),
              ZERO);
      case "two-point" -> {
        String[][] p = points();
        yield new TwoPointSensor(
            read("points", p[0][0], quantity),
            read("points", p[0][1], Unit.VOLT),
            read("points", p[1][0], quantity),
            read("points", p[1][1], Unit.VOLT),
            ZERO);
      }
      case "ratiometric" -> {
        String[][] p = points();
        yield new RatiometricSensor(
            read("points", p[0][0], quantity),
            read("points", p[0][1], Unit.PERCENT),
            read("points", p[1][0], quantity),
            read("points", p[1][1], Unit.PERCENT),
            value("supply", null, Unit.VOLT),
            ZERO);
      }
      case "table" -> table();
      case "ntc-beta" ->
          new NtcBeta(
              value("r0", "10k", Unit.OHM),
              value("t0", "25degC", Unit.CELSIUS),
              value("beta", null, Unit.KELVIN),
              Value.of(-273),
              Value.of(1000),
              null);
      case "ntc-steinhart" -> steinhart();
      case "rtd" ->
          new PlatinumRtd(
              value("r0", "100", Unit.OHM),
              PlatinumRtd.ToleranceClass.B,
              choice(PlatinumRtd.Wires.values(), "wires", "4"),
              value("lead", "0", Unit.OHM),
              null);
      case "thermocouple" ->
          new Thermocouple(
              choice(ThermocoupleType.values(), "type", "K"),
              value("cj", "0degC", Unit.CELSIUS),
              ZERO);
      case "loop" -> {
        Ends current = ends("current", "4mA..20mA", Unit.AMPERE);
        yield new CurrentLoop(
            value("low", "0", quantity),
            value("high", null, quantity),
            current.from(),
            current.to());
      }
      case "potentiometer" -> {
        Ends travel = ends("travel", null, quantity);
        yield new Potentiometer(
            travel.from(),
            travel.to(),
            value("start", "0", Unit.ONE),
            value("end", "1", Unit.ONE),
            value("supply", "5V", Unit.VOLT),
            value("resistance", "5k", Unit.OHM),
            value("ends", "0", Unit.OHM),
            optional("top", Unit.OHM),
            optional("bottom", Unit.OHM),
            choice(Potentiometer.EndSide.values(), "side", "receiver"));
      }
      case "bridge" ->
          new StrainBridge(
              value("full-scale", null, quantity),
              value("sensitivity", "2mV/V", Unit.of("mV/V")),
              value("zero", "0", Unit.of("mV/V")),
              value("excitation", "5V", Unit.VOLT),
              ZERO);
      case "bipolar" ->
          new BipolarSensor(
              value("rest", "2.5V", Unit.VOLT),
              value("slope", null, Unit.VOLT),
              Value.of(1e6),
              ZERO);
      case "ac" ->
          new AcVoltage(
              choice(AcVoltage.Waveform.values(), "waveform", "sine"),
              choice(AcVoltage.Measure.values(), "from", "rms"),
              choice(AcVoltage.Measure.values(), "to", "peak"),
              AcVoltage.Isolation.ISOLATED,
              value("ratio", "1", Unit.ONE),
              value("peak-factor", "1.5", Unit.ONE),
              value("form-factor", "1.2", Unit.ONE),
              Value.of(1e6));
      case "formula" -> {
        Ends range = ends("range", null, quantity);
        yield new FormulaSensor(required("f"), Signal.VOLTAGE, range.from(), range.to(), ZERO);
      }
      default -> throw new IllegalStateException(model);
    };
  }

  private Sensor steinhart() {
    if (given.containsKey("points")) {
      List<TablePoint> points =
          Arrays.stream(required("points").split(","))
              .map(SensorArguments::pair)
              .map(
                  p ->
                      new TablePoint(
                          read("points", p[0], Unit.CELSIUS), read("points", p[1], Unit.OHM)))
              .toList();
      return NtcSteinhart.through(points);
    }
    return new NtcSteinhart(
        value("a", null, Unit.of("1/K")),
        value("b", null, Unit.of("1/K")),
        value("c", null, Unit.of("1/K")),
        Value.of(-273),
        Value.of(1000),
        null);
  }

  private ColumnFile file() {
    return ColumnFile.read(Path.of(required("file")));
  }

  private Sensor table() {
    SensorTable t = SensorTable.of(file(), quantity);
    return new TableSensor(
        t.points(),
        choice(TableSensor.Interpolation.values(), "interpolation", "linear"),
        t.signal(),
        ZERO);
  }

  private <E extends Enum<E> & Titled> E choice(E[] values, String key, String otherwise) {
    return Choices.read(values, key, or(key, otherwise));
  }

  private Ends ends(String key, String otherwise, Unit unit) {
    try {
      return Ends.typed(otherwise == null ? required(key) : or(key, otherwise), unit);
    } catch (QuantityException e) {
      throw new QuantityException(key + ": " + e.getMessage());
    }
  }

  private String[][] points() {
    String[] both = required("points").split(",");
    if (both.length != 2) {
      throw new QuantityException(
          "read %d points, expected two: points=X:Y,X:Y".formatted(both.length));
    }
    return new String[][] {pair(both[0]), pair(both[1])};
  }

  private static String[] pair(String point) {
    String[] split = point.split(":");
    if (split.length != 2) {
      throw new QuantityException("read '" + point + "', expected a point X:Y");
    }
    return split;
  }
}
