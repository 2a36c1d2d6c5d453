package nocking.app.step.collect;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javafx.geometry.Pos;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Jobs;
import nocking.analysis.RunDraft;
import nocking.app.control.DropDown;
import nocking.app.control.Paper;
import nocking.app.control.Segments;
import nocking.app.desk.BenchRuns;
import nocking.app.desk.Desk;
import nocking.app.desk.StandIn;
import nocking.bench.simulated.Fault;
import nocking.bench.simulated.Scene;
import nocking.channel.Channel;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.procedure.Procedure;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.run.Instrument;
import nocking.run.RunChannel;
import nocking.run.RunPlan;

/**
 * What a run is read with: instruments of the book, an eye, or the bench that stands in; and the
 * channels that are read together.
 */
final class InstrumentChoice {
  private static final String BY_EYE = "read by eye";
  private static final String NO_OTHER = "no other";
  private static final String TYPED = "typed by hand";
  private static final double TITLE = 76;
  private static final double GAP = 5;

  private final Desk desk;
  private final Runnable changed;
  private final Map<String, Set<String>> with = new HashMap<>();
  private final Map<String, String> reference = new HashMap<>();
  private final Map<String, String> beside = new HashMap<>();
  private final Map<String, String> meter = new HashMap<>();
  private final DropDown<String> referenceChoice = new DropDown<>();
  private final DropDown<String> besideChoice = new DropDown<>();
  private final DropDown<String> meterChoice = new DropDown<>();
  private final DropDown<Fault> fault = new DropDown<>();
  private final Segments<StandIn.Pace> pace;
  private final HBox besideRow = row("Beside it", besideChoice);
  private final HBox paceRow;
  private final HBox faultRow;
  private final FlowPane others = new FlowPane(10, 4);
  private final Label othersTitle = Paper.subtitle("Read with it");
  private final Label certificate = Paper.caption("");
  private final VBox instruments;
  private final VBox fellows;
  private StandIn.Pace chosenPace = StandIn.Pace.TEN;
  private boolean showing;

  /**
   * @param changed called when another instrument was chosen
   */
  InstrumentChoice(Desk desk, Runnable changed) {
    this.desk = desk;
    this.changed = changed;
    choice(referenceChoice, "run-reference", v -> chosen(reference, v));
    choice(besideChoice, "run-beside", v -> chosen(beside, v));
    choice(meterChoice, "run-meter", this::chooseMeter);
    fault.titled(f -> f.name().toLowerCase(Locale.ROOT).replace('_', ' '));
    fault.getItems().setAll(Fault.values());
    choice(fault, "run-fault", v -> desk.runs().standIn().ifPresent(b -> b.fault(tag(), v)));
    pace =
        new Segments<>(
            "run-pace",
            List.of(StandIn.Pace.values()),
            StandIn.Pace::title,
            v -> {
              chosenPace = v;
              changed.run();
            });
    paceRow = new HBox(8, new Label("Its time"), pace);
    paceRow.setAlignment(Pos.CENTER_LEFT);
    certificate.setId("run-certificate");
    faultRow = row("Trouble", fault);
    instruments =
        new VBox(
            GAP,
            Paper.subtitle("Instruments"),
            row("Reference", referenceChoice),
            besideRow,
            certificate,
            row("Meter", meterChoice),
            paceRow);
    fellows = new VBox(GAP, othersTitle, others);
  }

  private <T> void choice(DropDown<T> box, String id, Consumer<T> taken) {
    box.setId(id);
    box.setMaxWidth(Double.MAX_VALUE);
    box.valueProperty()
        .addListener(
            (o, before, now) -> {
              if (!showing && now != null) taken.accept(now);
            });
  }

  /** A drop-down with its title in front. */
  static HBox row(String title, DropDown<?> box) {
    var label = new Label(title);
    label.getStyleClass().add("entry-label");
    label.setLabelFor(box);
    label.setMinWidth(TITLE);
    box.setAccessibleText(title);
    HBox.setHgrow(box, Priority.ALWAYS);
    var row = new HBox(6, label, box);
    row.setAlignment(Pos.CENTER_LEFT);
    return row;
  }

  /** Reference, meter and pace. */
  VBox instruments() {
    return instruments;
  }

  /** The other channels that are read. */
  VBox fellows() {
    return fellows;
  }

  /** What goes wrong on the simulated bench. */
  HBox trouble() {
    return faultRow;
  }

  private Channel channel() {
    return desk.channel().orElseThrow();
  }

  private String tag() {
    return channel().tag();
  }

  private void chosen(Map<String, String> of, String name) {
    of.put(channel().id(), name);
    changed.run();
  }

  /** Nobody types a reading ten times: what is typed is averaged only where that is asked for. */
  private void chooseMeter(String name) {
    String id = channel().id();
    boolean typed = isTyped(name);
    desk.runs()
        .draft(id)
        .filter(p -> p.typed() != typed)
        .ifPresent(p -> desk.runs().draft(id, p.withAverage(typed ? 1 : RunDraft.AVERAGE)));
    chosen(meter, name);
  }

  private Optional<Procedure> procedure() {
    return desk.runs().draft(channel().id()).map(RunPlan::procedure);
  }

  /** The bench that can stand in for what is planned. */
  Optional<Scene> scene() {
    return procedure().map(p -> Scene.of(tag(), p)).orElseGet(() -> Scene.of(tag()));
  }

  private static String simulated(Scene s) {
    return "simulated " + s.name();
  }

  private boolean isSimulated(String name) {
    return scene().map(s -> name.equals(simulated(s))).orElse(false);
  }

  /** The unit of what is applied. */
  private Unit unit() {
    return procedure().map(p -> Jobs.unit(p, channel())).orElse(channel().unit());
  }

  /** What can be the reference: what the book has for the quantity, the stand-in, an eye. */
  private List<String> references() {
    var list = new ArrayList<String>();
    scene().map(InstrumentChoice::simulated).ifPresent(list::add);
    for (Instrument i : desk.book().instruments()) {
      if (i.reads(unit())) list.add(i.name());
    }
    list.add(BY_EYE);
    return list;
  }

  private List<String> meters() {
    var list = new ArrayList<String>();
    scene().map(InstrumentChoice::simulated).ifPresent(list::add);
    for (Instrument i : desk.book().instruments()) {
      if (!i.byHand() && readable().stream().anyMatch(u -> i.reads(u.unit()))) list.add(i.name());
    }
    readable().forEach(u -> list.add(typed(u)));
    return list;
  }

  /** In what the channel can be read: volts, and what its sensor gives by itself. */
  private List<RawUnit> readable() {
    var list = new ArrayList<>(List.of(RawUnit.VOLTS));
    if (procedure().isEmpty()) RawScale.own(channel().design().sensor()).ifPresent(list::add);
    return list;
  }

  private static String typed(RawUnit unit) {
    return unit == RawUnit.VOLTS ? TYPED : "typed in " + unit.brief();
  }

  private static boolean isTyped(String name) {
    return name.equals(TYPED)
        || Arrays.stream(RawUnit.values()).anyMatch(u -> name.equals(typed(u)));
  }

  /** What can be read beside the reference, to see whether they agree. */
  private List<String> besides() {
    return desk.book().instruments().stream()
        .filter(i -> !i.byHand() && i.reads(unit()) && !i.name().equals(referenceName()))
        .filter(i -> i.channel().isEmpty())
        .map(Instrument::name)
        .toList();
  }

  private String besideName() {
    String name = beside.get(channel().id());
    return besides().contains(name) ? name : NO_OTHER;
  }

  private String referenceName() {
    List<String> all = references();
    String name = reference.get(channel().id());
    return all.contains(name) ? name : all.getFirst();
  }

  private String meterName() {
    List<String> all = meters();
    String name = meter.get(channel().id());
    if (all.contains(name)) return name;
    // A meter that stands at this channel comes before one that could be put there.
    return scene().isPresent()
        ? all.getFirst()
        : standing(channel()).map(Instrument::name).orElse(all.getFirst());
  }

  /** The plan as it stands, at the instruments as they are chosen; empty without a path. */
  Optional<RunPlan> plan() {
    if (desk.analysis().design().path().isEmpty()) return Optional.empty();
    String meterName = meterName();
    Optional<Scene> scene = scene();
    String refName = referenceName();
    boolean stand = isSimulated(refName) || isSimulated(meterName);
    Optional<StandIn> bench = stand ? desk.runs().setUp(scene.get(), chosenPace) : Optional.empty();
    if (stand && bench.isEmpty()) return Optional.empty();
    Instrument ref =
        refName.equals(BY_EYE)
            ? Instrument.byHand(BY_EYE, unit())
            : desk.book().instrument(refName).orElseGet(() -> bench.orElseThrow().reference());
    Instrument own = meter(channel(), meterName, bench);
    RunPlan draft =
        desk.runs()
            .draft(
                channel().id(), () -> RunDraft.plan(List.of(desk.analysis()), ref, List.of(own)));
    var read = new ArrayList<RunChannel>();
    for (Channel c : together(draft)) {
      Instrument m = meter(c, meterName, bench);
      int at = BenchRuns.place(draft, c.id());
      RunChannel fresh = RunDraft.channel(desk.analysis(c), m, Unit.of(draft.unit()));
      Optional<RunChannel> before =
          at < 0 ? Optional.empty() : Optional.of(draft.channels().get(at));
      // What is allowed in volts says nothing of ohms.
      RunChannel now =
          before
              .filter(b -> b.raw().ofSensor() == fresh.raw().ofSensor())
              .orElseGet(() -> before.map(b -> fresh.withPlace(b.place())).orElse(fresh));
      read.add(new RunChannel(c.id(), c.tag(), now.raw(), m, now.settle(), now.place()));
    }
    return Optional.of(
        draft
            .withReference(ref)
            .withChannels(read)
            .withSupply(supply())
            .withBeside(desk.book().instrument(besideName()).orElse(null)));
  }

  /** What the book has at the supply of the channel; null for nothing. */
  private Instrument supply() {
    return desk.book().instruments().stream()
        .filter(i -> i.standsAt(tag()) && i.atSupply() && i.reads(Unit.VOLT))
        .findFirst()
        .orElse(null);
  }

  /** The meter of the book that stands at the output of a channel. */
  private Optional<Instrument> standing(Channel c) {
    return desk.book().instruments().stream()
        .filter(i -> i.standsAt(c.tag()) && i.atReceiver() && i.reads(Unit.VOLT))
        .findFirst();
  }

  private Instrument meter(Channel c, String name, Optional<StandIn> bench) {
    Optional<RawUnit> typed = readable().stream().filter(u -> typed(u).equals(name)).findFirst();
    if (typed.isPresent()) return Instrument.byHand(TYPED, typed.get().unit());
    Optional<Instrument> chosen =
        isSimulated(name)
            ? Optional.empty()
            : c == channel() ? desk.book().instrument(name) : standing(c);
    return chosen
        .or(() -> bench.flatMap(b -> b.meter(c.tag())))
        .orElseThrow(() -> new QuantityException("no meter reads " + c.tag()));
  }

  /** Channels that the same stimulus reaches: at the same bench, or with a meter of their own. */
  private List<Channel> beside() {
    if (procedure().isPresent() || isTyped(meterName())) return List.of();
    Predicate<Channel> read = c -> standing(c).isPresent();
    if (isSimulated(meterName())) {
      Set<String> tags =
          scene().orElseThrow().sensors().stream().map(s -> s.tag()).collect(Collectors.toSet());
      read = c -> tags.contains(c.tag());
    }
    return desk.book().channels().stream()
        .filter(c -> c != channel() && !c.journal().locked())
        .filter(read)
        .filter(c -> c.unit().dimension().equals(channel().unit().dimension()))
        .filter(c -> desk.analysis(c).design().path().isPresent())
        .limit(RunPlan.MOST_CHANNELS - 1L)
        .toList();
  }

  private List<Channel> together(RunPlan draft) {
    var list = new ArrayList<Channel>();
    list.add(channel());
    if (draft.procedure() != null) return list;
    Set<String> chosen = with.getOrDefault(channel().id(), Set.of());
    for (Channel c : beside()) if (chosen.contains(c.id())) list.add(c);
    return list;
  }

  void refresh() {
    showing = true;
    referenceChoice.getItems().setAll(references());
    referenceChoice.setValue(referenceName());
    var others = new ArrayList<>(besides());
    besideRow.setVisible(!others.isEmpty());
    besideRow.setManaged(!others.isEmpty());
    others.addFirst(NO_OTHER);
    besideChoice.getItems().setAll(others);
    besideChoice.setValue(besideName());
    meterChoice.getItems().setAll(meters());
    meterChoice.setValue(meterName());
    showing = false;
    String corrected = corrected();
    certificate.setText(corrected);
    certificate.setVisible(!corrected.isEmpty());
    certificate.setManaged(!corrected.isEmpty());
    pace.show(chosenPace);
    boolean stand = isSimulated(referenceName()) || isSimulated(meterName());
    for (HBox h : List.of(paceRow, faultRow)) {
      h.setVisible(stand);
      h.setManaged(stand);
    }
    showFellows();
  }

  /** What the certificates of the chosen ones do to what they show; empty without any. */
  private String corrected() {
    return Stream.of(referenceName(), besideName(), meterName())
        .distinct()
        .flatMap(n -> desk.book().instrument(n).stream())
        .filter(i -> i.corrections() != null)
        .map(i -> "%s: %s.".formatted(i.name(), i.corrections().says(i.unit())))
        .collect(Collectors.joining(" "));
  }

  private void showFellows() {
    List<Channel> beside = beside();
    others.getChildren().clear();
    for (Channel c : beside) {
      var box = new CheckBox(c.tag());
      box.setId("run-with-" + c.tag());
      box.setSelected(with.getOrDefault(channel().id(), Set.of()).contains(c.id()));
      box.setOnAction(
          e -> {
            Set<String> chosen = with.computeIfAbsent(channel().id(), k -> new LinkedHashSet<>());
            if (box.isSelected()) chosen.add(c.id());
            else chosen.remove(c.id());
          });
      others.getChildren().add(box);
    }
    fellows.setVisible(!beside.isEmpty());
    fellows.setManaged(!beside.isEmpty());
  }

  /** The run has begun or ended. */
  void news() {
    showing = true;
    fault.setValue(desk.runs().standIn().map(b -> b.fault(tag())).orElse(Fault.NONE));
    showing = false;
    instruments.setDisable(desk.runs().running());
  }
}
