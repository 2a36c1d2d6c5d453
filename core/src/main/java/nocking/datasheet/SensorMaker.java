package nocking.datasheet;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import nocking.channel.Overload;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.path.SensorCurve;
import nocking.quantity.Dimension;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Spread;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.CurrentLoop;
import nocking.sensor.LinearSensor;
import nocking.sensor.NtcBeta;
import nocking.sensor.PlatinumRtd;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.Sensor;
import nocking.sensor.StrainBridge;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.sensor.TwoPointSensor;

/** Makes sensors of what the lines say; what is missing for one is a sentence. */
final class SensorMaker {
  private static final int DIGITS = 9;

  private final Map<String, Map<Fact, Said>> facts;
  private final SheetTable table;
  private final Optional<Double> platinum;

  SensorMaker(Map<String, Map<Fact, Said>> facts, SheetTable table, Optional<Double> platinum) {
    this.facts = facts;
    this.table = table;
    this.platinum = platinum;
  }

  /**
   * @throws QuantityException saying what is missing
   */
  List<SheetSensor> sensors() {
    if (!table.isEmpty()) {
      var both = new ArrayList<>(ofTable());
      Map<Fact, Said> all = facts.getOrDefault("", Map.of());
      // A beta value beside the table is another model of the same part.
      if (all.containsKey(Fact.RESISTANCE) && all.containsKey(Fact.BETA)) {
        both.add(thermistor("by its beta value", all));
      }
      return both;
    }
    Map<Fact, Said> shared = facts.getOrDefault("", Map.of());
    var list = new ArrayList<SheetSensor>();
    for (Map.Entry<String, Map<Fact, Said>> type : facts.entrySet()) {
      if (type.getKey().isEmpty() && facts.size() > 1) continue;
      var all = new EnumMap<Fact, Said>(Fact.class);
      all.putAll(shared);
      all.putAll(type.getValue());
      list.add(made(type.getKey(), all));
    }
    if (list.isEmpty() && platinum.isPresent()) list.add(made("", Map.of()));
    if (list.isEmpty()) {
      throw new QuantityException("no line says anything of a sensor that is understood");
    }
    return list;
  }

  private SheetSensor made(String type, Map<Fact, Said> f) {
    if (platinum.isPresent()) {
      return of(type, PlatinumRtd.of(platinum.get()), Unit.CELSIUS, f, "platinum resistor");
    }
    if (f.containsKey(Fact.RESISTANCE) || f.containsKey(Fact.BETA)) return thermistor(type, f);
    Said range = need(f, Fact.RANGE, "the range of the quantity");
    if (!range.amount().isRange()
        && !(f.containsKey(Fact.SENSITIVITY) && isRatio(f.get(Fact.SENSITIVITY).unit()))) {
      throw new QuantityException("the range has one end only: " + range.amount().says());
    }
    Unit unit =
        range.amount().unit().orElseThrow(() -> new QuantityException("the range has no unit"));
    if (f.containsKey(Fact.OUTPUT)) return byOutput(type, f, range.amount(), unit);
    if (f.containsKey(Fact.SENSITIVITY)) return bySensitivity(type, f, range.amount(), unit);
    throw new QuantityException("no line says what comes out: an output or a sensitivity");
  }

  private static boolean isRatio(Unit u) {
    return u.dimension().isNone();
  }

  private static Said need(Map<Fact, Said> f, Fact fact, String what) {
    Said said = f.get(fact);
    if (said == null) throw new QuantityException("no line says " + what);
    return said;
  }

  private SheetSensor byOutput(String type, Map<Fact, Said> f, Amount range, Unit unit) {
    Said output = f.get(Fact.OUTPUT);
    Amount o = output.amount();
    if (!o.isRange()) throw new QuantityException("the output has one end only: " + o.says());
    Unit ou = o.unit().orElseThrow(() -> new QuantityException("the output has no unit"));
    Value xa = value(range.low(), 1);
    Value xb = value(range.high(), 1);
    if (ou.dimension().equals(Dimension.CURRENT)) {
      Sensor loop =
          new CurrentLoop(xa, xb, value(o.low(), ou.factor()), value(o.high(), ou.factor()));
      return of(type, loop, unit, f, "current over the range");
    }
    Optional<Spread> spread = accuracy(f, o, ou);
    Value source = f.containsKey(Fact.SOURCE) ? ohms(f.get(Fact.SOURCE)) : Value.of(0);
    if (ou.dimension().isNone() || output.ofSupply()) {
      double supply = supply(f);
      double share = ou.dimension().isNone() ? 100 * ou.factor() : 100 * ou.factor() / supply;
      Sensor ratio =
          new RatiometricSensor(
              xa,
              spread(value(o.low(), share), spread, 100 / supply),
              xb,
              spread(value(o.high(), share), spread, 100 / supply),
              Value.of(supply),
              source);
      return of(type, ratio, unit, f, "share of the supply over the range");
    }
    Sensor points =
        new TwoPointSensor(
            xa,
            spread(value(o.low(), ou.factor()), spread, 1),
            xb,
            spread(value(o.high(), ou.factor()), spread, 1),
            source);
    return of(type, points, unit, f, "volts over the range");
  }

  /** An accuracy in percent of full scale holds at either end; volts for a voltage. */
  private static Optional<Spread> accuracy(Map<Fact, Said> f, Amount o, Unit ou) {
    Said said = f.get(Fact.CLASS);
    if (said == null || !said.amount().of().equals("FS")) return Optional.empty();
    double share =
        (Double.isNaN(said.amount().tolerance()) ? said.amount().low() : said.amount().tolerance())
            / 100;
    return Double.isNaN(share) || ou.dimension().isNone()
        ? Optional.empty()
        : Optional.of(Spread.absolute(rounded(share * (o.high() - o.low()) * ou.factor())));
  }

  private static Value spread(Value v, Optional<Spread> s, double scale) {
    return s.map(t -> v.withSpread(Spread.absolute(rounded(t.limit() * scale)))).orElse(v);
  }

  private static double supply(Map<Fact, Said> f) {
    Said s = need(f, Fact.SUPPLY, "the supply that the output is a share of");
    if (s.amount().isRange()) {
      throw new QuantityException(
          "the supply is a range, %s: leave the one that is used".formatted(s.amount().says()));
    }
    return rounded(s.amount().low() * s.unit().factor());
  }

  private SheetSensor bySensitivity(String type, Map<Fact, Said> f, Amount range, Unit unit) {
    Said s = f.get(Fact.SENSITIVITY);
    if (isRatio(s.unit())) {
      Value source = f.containsKey(Fact.SOURCE) ? ohms(f.get(Fact.SOURCE)) : Value.of(0);
      Sensor bridge =
          new StrainBridge(
              value(range.high(), 1),
              tolerated(s.amount(), s.unit().factor() / 1e-3),
              Value.of(0),
              Value.of(supply(f)),
              source);
      return of(type, bridge, unit, f, "strain bridge, zero balance taken as 0");
    }
    Unit per = Unit.VOLT.over(unit.difference());
    if (!s.unit().dimension().equals(per.dimension())) {
      throw new QuantityException(
          "the sensitivity %s does not go with a range in %s"
              .formatted(s.amount().says(), unit.symbol()));
    }
    Said zero = need(f, Fact.ZERO, "the output at a known quantity");
    Amount at =
        zero.at()
            .orElseThrow(
                () -> new QuantityException("no line says at which quantity the zero holds"));
    Unit atUnit = at.unit().orElse(unit);
    Sensor line =
        new LinearSensor(
            tolerated(zero.amount(), zero.unit().factor()),
            value(atUnit.equals(unit) ? at.low() : atUnit.convert(at.low(), unit), 1),
            tolerated(s.amount(), s.unit().factor() / per.factor()),
            value(range.low(), 1),
            value(range.high(), 1),
            Value.of(0));
    return of(type, line, unit, f, "slope from a known point");
  }

  private SheetSensor thermistor(String type, Map<Fact, Said> f) {
    Said r = need(f, Fact.RESISTANCE, "the resistance at a temperature");
    Said b = need(f, Fact.BETA, "the beta value");
    Amount at =
        r.at()
            .orElseThrow(
                () -> new QuantityException("no line says at which temperature the resistance is"));
    double celsius = at.unit().orElse(Unit.CELSIUS).convert(at.low(), Unit.CELSIUS);
    NtcBeta usual = NtcBeta.of(1, celsius, 1);
    Said range = f.get(Fact.RANGE);
    boolean rated =
        range != null
            && range.amount().isRange()
            && range.unit().dimension().equals(Dimension.TEMPERATURE);
    Said warms = f.get(Fact.DISSIPATION);
    Sensor ntc =
        new NtcBeta(
            tolerated(r.amount(), r.unit().factor()),
            Value.of(celsius),
            tolerated(b.amount(), 1),
            rated ? celsius(range.amount().low(), range.unit()) : usual.from(),
            rated ? celsius(range.amount().high(), range.unit()) : usual.to(),
            warms == null ? null : value(warms.amount().low(), warms.unit().factor() / 1e-3));
    return of(type, ntc, Unit.CELSIUS, f, "thermistor by its beta value");
  }

  private static Value celsius(double t, Unit unit) {
    return value(unit.equals(Unit.CELSIUS) ? t : unit.convert(t, Unit.CELSIUS), 1);
  }

  private static Value ohms(Said s) {
    return value(s.amount().low(), s.unit().factor());
  }

  private List<SheetSensor> ofTable() {
    List<SheetTable.Head> heads = table.columns();
    int quantity = -1;
    for (int i = 0; i < heads.size() && quantity < 0; i++) {
      if (heads.get(i).quantity()) quantity = i;
    }
    if (quantity < 0) {
      throw new QuantityException(
          "no column of the table has the unit of a quantity in its head, for example °C");
    }
    var list = new ArrayList<SheetSensor>();
    for (int i = 0; i < heads.size(); i++) {
      SheetTable.Head h = heads.get(i);
      if (i == quantity || !h.electrical() || h.limit()) continue;
      list.add(column(quantity, i, h));
    }
    if (list.isEmpty()) {
      throw new QuantityException(
          "no column of the table has V, Ω or A in its head, for example kΩ");
    }
    return list;
  }

  private SheetSensor column(int quantity, int output, SheetTable.Head head) {
    Unit x = table.columns().get(quantity).unit().orElseThrow();
    Unit y = head.unit().orElseThrow();
    Signal signal =
        y.dimension().equals(Dimension.RESISTANCE)
            ? Signal.RESISTANCE
            : y.dimension().equals(Dimension.CURRENT) ? Signal.CURRENT : Signal.VOLTAGE;
    var points = new ArrayList<TablePoint>();
    for (SheetTable.Row r : table.rows()) {
      if (Double.isNaN(r.values()[output]) || Double.isNaN(r.values()[quantity])) continue;
      points.add(
          new TablePoint(value(r.values()[quantity], 1), value(r.values()[output], y.factor())));
    }
    var sensor =
        new TableSensor(points, TableSensor.Interpolation.MONOTONE_CUBIC, signal, Value.of(0));
    String limits =
        table.columns().stream().anyMatch(SheetTable.Head::limit)
            ? "; the limits beside it are not used"
            : "";
    return of(
        head.title(),
        sensor,
        x,
        facts.getOrDefault("", Map.of()),
        "%s over %s%s".formatted(y.symbol(), x.symbol(), limits));
  }

  private static SheetSensor of(
      String type, Sensor sensor, Unit unit, Map<Fact, Said> f, String says) {
    // What no path could use is refused before it is offered.
    sensor.require(unit);
    SensorCurve.of(new Measurand("x", unit), sensor);
    Value proof = limit(f.get(Fact.PROOF), unit);
    Value burst = limit(f.get(Fact.BURST), unit);
    return new SheetSensor(
        type,
        sensor,
        unit,
        proof == null && burst == null ? Optional.empty() : Optional.of(new Overload(proof, burst)),
        "%s, %s … %s %s"
            .formatted(
                says,
                Numbers.trimmed(sensor.rated(unit).low(), 6),
                Numbers.trimmed(sensor.rated(unit).high(), 6),
                unit.symbol()));
  }

  private static Value limit(Said said, Unit unit) {
    if (said == null || Double.isNaN(said.amount().high())) return null;
    Unit own = said.amount().unit().orElse(unit);
    if (!own.dimension().equals(unit.dimension())) return null;
    double v = said.amount().high();
    return value(own.equals(unit) ? v : own.convert(v, unit), 1);
  }

  private static Value tolerated(Amount a, double factor) {
    Value v = value(a.low(), factor);
    if (Double.isNaN(a.tolerance())) return v;
    boolean percent = a.toleranceUnit().map(Unit.PERCENT::equals).orElse(false);
    double scale =
        percent
            ? 1
            : a.toleranceUnit().map(Unit::factor).orElse(1.0)
                / a.unit().map(Unit::factor).orElse(1.0)
                * factor;
    double limit = rounded(Math.abs(a.tolerance()) * scale);
    return v.withSpread(percent ? Spread.percent(limit) : Spread.absolute(limit));
  }

  /** What a factor adds in the last binary digits is no digit of the datasheet. */
  private static Value value(double number, double factor) {
    return Value.of(rounded(number * factor));
  }

  private static double rounded(double v) {
    return Double.parseDouble(Numbers.significant(v, DIGITS));
  }
}
