package nocking.channel;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import nocking.converter.Converter;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.quantity.Dimension;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.Sensor;
import nocking.stage.Stage;

/**
 * What a channel measures and how: from the quantity to the code.
 *
 * @param sensor null until it is defined
 * @param card the sensor card that the sensor was taken from; null for none
 * @param stages what stands between sensor and converter, in the order of the signal
 * @param surroundings what the error budget counts with
 * @param overload what the sensor bears beyond its range; null where nothing is known
 */
public record Design(
    Definition definition,
    Sensor sensor,
    CardRef card,
    List<Stage> stages,
    Converter converter,
    Surroundings surroundings,
    Overload overload) {

  private static final double HALF_STEP = 0.5;

  public Design {
    stages = List.copyOf(stages);
    surroundings = surroundings == null ? Surroundings.BENCH : surroundings;
  }

  /** The usual range of a temperature, a converter, and no sensor. */
  static Design blank(String tag) {
    var definition =
        new Definition(
            tag,
            "",
            QuantityKind.TEMPERATURE,
            QuantityKind.TEMPERATURE.usualUnit(),
            null,
            Value.of(0),
            Value.of(100),
            null,
            null,
            null,
            List.of());
    return new Design(
        definition, null, null, List.of(), Converter.of(12, 3.3), Surroundings.BENCH, null);
  }

  public Unit unit() {
    return definition.quantityUnit();
  }

  /** The quantity with its symbol and unit, as the elements of the path ask for it. */
  public Measurand measurand() {
    return new Measurand(definition.kind().symbol(), unit());
  }

  /** Checks all parameters; used on documents that come from outside. */
  void require() {
    Unit unit = unit();
    if (sensor != null) sensor.require(unit);
    stages.forEach(s -> s.require(unit));
    converter.require(unit);
  }

  /** Names of a selector's stations, at 1, 2, 3 …; empty for a quantity that moves evenly. */
  public List<String> stations() {
    return sensor == null ? List.of() : sensor.stations();
  }

  /**
   * The station that a quantity stands for: the nearest, where it lies nearer than half a step and
   * than the tolerance; empty for no station and for a quantity that moves evenly.
   */
  public Optional<String> station(double quantity) {
    List<String> names = stations();
    double nearest = Math.rint(quantity);
    double within = definition.tolerance() == null ? HALF_STEP : definition.tolerance().number();
    boolean there =
        nearest >= 1
            && nearest <= names.size()
            && Math.abs(quantity - nearest) <= Math.min(HALF_STEP, within);
    return there ? Optional.of(names.get((int) nearest - 1)) : Optional.empty();
  }

  /**
   * The quantity at rest: what the definition says, for an absolute pressure the ambient one, else
   * the low end of the working range.
   */
  public double rest() {
    if (definition.rest() != null) return definition.rest().number();
    boolean absolute =
        Boolean.FALSE.equals(definition.gauge()) && unit().dimension().equals(Dimension.PRESSURE);
    double ambient =
        absolute ? Unit.of("kPa").convert(surroundings.atmosphere().number(), unit()) : Double.NaN;
    boolean known =
        absolute
            && (sensor == null || sensor.known(unit()).map(k -> k.contains(ambient)).orElse(true));
    return known ? ambient : definition.low().number();
  }

  /** Sensor, stages and converter in their order; only while there is a sensor. */
  public List<Element> elements() {
    var list = new ArrayList<Element>();
    list.add(sensor);
    list.addAll(stages);
    list.add(converter);
    return list;
  }

  /**
   * An element of the path.
   *
   * @param index 0 the sensor, 1 … the stages, then the converter
   */
  public Element element(int index) {
    if (index == 0) return sensor;
    return index <= stages.size() ? stages.get(index - 1) : converter;
  }

  /**
   * The stages that can stand before the one that has this index, in the groups of a menu; none
   * while there is no sensor.
   */
  public List<List<Stage>> stagesThatFit(int index) {
    if (sensor == null) return List.of();
    Signal input = sensor.signal();
    for (Stage s : stages.subList(0, index)) input = s.gives(input);
    Signal comesIn = input;
    Optional<Stage> next = stages.stream().skip(index).findFirst();
    return Stage.groups().stream()
        .map(group -> group.stream().filter(s -> s.fits(comesIn, next)).toList())
        .filter(group -> !group.isEmpty())
        .toList();
  }

  /** The same design with its definition changed. */
  public Design define(UnaryOperator<Definition> change) {
    return withDefinition(change.apply(definition));
  }

  public Design withDefinition(Definition v) {
    return new Design(v, sensor, card, stages, converter, surroundings, overload);
  }

  public Design withSensor(Sensor v) {
    return new Design(definition, v, card, stages, converter, surroundings, overload);
  }

  /** The same design with the card its sensor was taken from; null for none. */
  public Design withCard(CardRef v) {
    return new Design(definition, sensor, v, stages, converter, surroundings, overload);
  }

  public Design withStages(List<Stage> v) {
    return new Design(definition, sensor, card, v, converter, surroundings, overload);
  }

  /** The same design with one stage replaced. */
  public Design withStage(int index, Stage stage) {
    var next = new ArrayList<>(stages);
    next.set(index, stage);
    return withStages(next);
  }

  /** The design with a stage before the one that has this index. */
  public Design insertStage(int index, Stage stage) {
    var next = new ArrayList<>(stages);
    next.add(index, stage);
    return withStages(next);
  }

  public Design removeStage(int index) {
    var next = new ArrayList<>(stages);
    next.remove(index);
    return withStages(next);
  }

  /** The same design with a stage moved to another place of the path. */
  public Design moveStage(int from, int to) {
    var next = new ArrayList<>(stages);
    next.add(to, next.remove(from));
    return withStages(next);
  }

  public Design withConverter(Converter v) {
    return new Design(definition, sensor, card, stages, v, surroundings, overload);
  }

  /**
   * The same design with one constant of an element at another value.
   *
   * @param index 0 the sensor, 1 … the stages, then the converter
   */
  public Design withParameter(int index, Field field, Value v) {
    return switch (Element.with(element(index), field, v)) {
      case Sensor s -> withSensor(s);
      case Stage s -> withStage(index - 1, s);
      case Converter k -> withConverter(k);
      default -> throw new IllegalArgumentException("no element of a path");
    };
  }

  public Design withSurroundings(Surroundings v) {
    return new Design(definition, sensor, card, stages, converter, v, overload);
  }

  /** The same design with what the sensor bears beyond its range; null for unknown. */
  public Design withOverload(Overload v) {
    return new Design(definition, sensor, card, stages, converter, surroundings, v);
  }
}
