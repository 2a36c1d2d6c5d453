package nocking.channel;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import nocking.band.BandPlan;
import nocking.check.CheckSheet;
import nocking.converter.Converter;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Signal;
import nocking.points.PointSet;
import nocking.quantity.Dimension;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.Sensor;
import nocking.stage.Stage;
import nocking.table.TableSpec;
import nocking.wiring.Seen;
import nocking.wiring.WirePlan;

/**
 * One measuring channel, the whole of what the technician has said about it.
 *
 * @param id stable key in the book; never shown
 * @param sensor null until it is defined
 * @param adopted null until a model is adopted; the design equation serves meanwhile
 * @param table null until a table is asked for
 * @param locked true when settled; edits are refused until it is unlocked
 * @param card the sensor card that the sensor was taken from; null for none
 * @param surroundings what the error budget counts with
 * @param bands positions, alarms and switches
 * @param seen what was seen while a fault was looked for
 */
public record Channel(
    String id,
    Definition definition,
    Sensor sensor,
    List<Stage> stages,
    Converter converter,
    WirePlan wiring,
    PointSet points,
    Adopted adopted,
    TableSpec table,
    CheckSheet check,
    List<Note> notes,
    boolean locked,
    CardRef card,
    Surroundings surroundings,
    BandPlan bands,
    List<Seen> seen) {

  private static final double HALF_STEP = 0.5;

  public Channel {
    stages = List.copyOf(stages);
    notes = notes == null ? List.of() : List.copyOf(notes);
    surroundings = surroundings == null ? Surroundings.BENCH : surroundings;
    bands = bands == null ? BandPlan.EMPTY : bands;
    seen = seen == null ? List.of() : List.copyOf(seen);
  }

  /** A new channel with everything still to say. */
  public static Channel blank(String id, String tag) {
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
    return new Channel(
        id,
        definition,
        null,
        List.of(),
        Converter.of(12, 3.3),
        WirePlan.DEFAULT,
        PointSet.EMPTY,
        null,
        null,
        CheckSheet.EMPTY,
        List.of(),
        false,
        null,
        Surroundings.BENCH,
        BandPlan.EMPTY,
        List.of());
  }

  public String tag() {
    return definition.tag();
  }

  public Unit unit() {
    return definition.quantityUnit();
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

  /** Checks all parameters; used on documents that come from outside. */
  public void require() {
    Unit unit = unit();
    if (sensor != null) sensor.require(unit);
    stages.forEach(s -> s.require(unit));
    converter.require(unit);
    if (adopted != null) adopted.require();
  }

  public Channel withId(String v) {
    return changed(d -> d.id = v);
  }

  public Channel withDefinition(Definition v) {
    return changed(d -> d.definition = v);
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
        absolute
            ? Unit.of("kPa").convert(surroundings().atmosphere().number(), unit())
            : Double.NaN;
    boolean known =
        absolute
            && (sensor == null || sensor.known(unit()).map(k -> k.contains(ambient)).orElse(true));
    return known ? ambient : definition.low().number();
  }

  /** The same channel with its definition changed. */
  public Channel define(UnaryOperator<Definition> change) {
    return withDefinition(change.apply(definition));
  }

  public Channel withSensor(Sensor v) {
    return changed(d -> d.sensor = v);
  }

  public Channel withStages(List<Stage> v) {
    return changed(d -> d.stages = v);
  }

  /** The same channel with one stage replaced. */
  public Channel withStage(int index, Stage stage) {
    var next = new ArrayList<>(stages);
    next.set(index, stage);
    return withStages(next);
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

  /** The channel with a stage before the one that has this index. */
  public Channel insertStage(int index, Stage stage) {
    var next = new ArrayList<>(stages);
    next.add(index, stage);
    return withStages(next);
  }

  public Channel removeStage(int index) {
    var next = new ArrayList<>(stages);
    next.remove(index);
    return withStages(next);
  }

  /** The same channel with a stage moved to another place of the path. */
  public Channel moveStage(int from, int to) {
    var next = new ArrayList<>(stages);
    next.add(to, next.remove(from));
    return withStages(next);
  }

  public Channel withConverter(Converter v) {
    return changed(d -> d.converter = v);
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
   * The same channel with one constant of an element at another value.
   *
   * @param index 0 the sensor, 1 … the stages, then the converter
   */
  public Channel withParameter(int index, Field field, Value v) {
    return switch (Element.with(element(index), field, v)) {
      case Sensor s -> withSensor(s);
      case Stage s -> withStage(index - 1, s);
      case Converter k -> withConverter(k);
      default -> throw new IllegalArgumentException("no element of a path");
    };
  }

  public Channel withWiring(WirePlan v) {
    return changed(d -> d.wiring = v);
  }

  public Channel withPoints(PointSet v) {
    return changed(d -> d.points = v);
  }

  public Channel withAdopted(Adopted v) {
    return changed(d -> d.adopted = v);
  }

  public Channel withTable(TableSpec v) {
    return changed(d -> d.table = v);
  }

  public Channel withCheck(CheckSheet v) {
    return changed(d -> d.check = v);
  }

  public Channel withNotes(List<Note> v) {
    return changed(d -> d.notes = v);
  }

  public Channel withLocked(boolean v) {
    return changed(d -> d.locked = v);
  }

  /** The same channel with the card its sensor was taken from; null for none. */
  public Channel withCard(CardRef v) {
    return changed(d -> d.card = v);
  }

  public Channel withSurroundings(Surroundings v) {
    return changed(d -> d.surroundings = v);
  }

  public Channel withBands(BandPlan v) {
    return changed(d -> d.bands = v);
  }

  /** The same channel with what was seen while a fault was looked for. */
  public Channel withSeen(List<Seen> v) {
    return changed(d -> d.seen = v);
  }

  /** The components one by one, so that a change names only its own. */
  private static final class Draft {
    private String id;
    private Definition definition;
    private Sensor sensor;
    private List<Stage> stages;
    private Converter converter;
    private WirePlan wiring;
    private PointSet points;
    private Adopted adopted;
    private TableSpec table;
    private CheckSheet check;
    private List<Note> notes;
    private boolean locked;
    private CardRef card;
    private Surroundings surroundings;
    private BandPlan bands;
    private List<Seen> seen;
  }

  private Channel changed(Consumer<Draft> change) {
    var d = new Draft();
    d.id = id;
    d.definition = definition;
    d.sensor = sensor;
    d.stages = stages;
    d.converter = converter;
    d.wiring = wiring;
    d.points = points;
    d.adopted = adopted;
    d.table = table;
    d.check = check;
    d.notes = notes;
    d.locked = locked;
    d.card = card;
    d.surroundings = surroundings;
    d.bands = bands;
    d.seen = seen;
    change.accept(d);
    return new Channel(
        d.id,
        d.definition,
        d.sensor,
        d.stages,
        d.converter,
        d.wiring,
        d.points,
        d.adopted,
        d.table,
        d.check,
        d.notes,
        d.locked,
        d.card,
        d.surroundings,
        d.bands,
        d.seen);
  }
}
