package nocking.app.step.collect;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.function.Function;
import javafx.scene.layout.VBox;
import nocking.app.control.EntryField;
import nocking.procedure.LearntEnds;
import nocking.procedure.MechanicalTrim;
import nocking.procedure.Procedure;
import nocking.procedure.Stations;
import nocking.procedure.TaughtEnds;
import nocking.procedure.ZeroAndSpan;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** What a procedure has to be told. */
final class ProcedureFields extends VBox {
  private static final Unit SECOND = Unit.of("s");
  private static final Unit DEGREE = Unit.of("°");
  private static final Unit SHARE = Unit.of("%");

  private final Consumer<Procedure> changed;
  private final List<Runnable> shows = new ArrayList<>();
  private Class<?> built;
  private Unit builtFor;
  private Procedure procedure;

  /**
   * @param changed is handed the procedure with what was typed
   */
  ProcedureFields(Consumer<Procedure> changed) {
    super(5);
    this.changed = changed;
  }

  /** Shows a procedure; null for none. */
  void show(Procedure p, Unit quantity) {
    setVisible(p != null);
    setManaged(p != null);
    if (p == null) return;
    procedure = p;
    if (built != p.getClass() || !quantity.equals(builtFor)) build(p, quantity);
    shows.forEach(Runnable::run);
  }

  private void build(Procedure p, Unit q) {
    built = p.getClass();
    builtFor = q;
    getChildren().clear();
    shows.clear();
    switch (p) {
      case MechanicalTrim _ -> trim();
      case TaughtEnds _ -> taught(q);
      case LearntEnds _ -> ends(q);
      case Stations _ ->
          value(
              "stations-slack",
              "Slack allowed",
              Unit.of("mV"),
              Stations.class,
              Stations::slack,
              (s, v) -> new Stations(s.names(), v));
      case ZeroAndSpan _ -> zero(q);
    }
  }

  private void trim() {
    Class<MechanicalTrim> c = MechanicalTrim.class;
    value(
        "trim-target",
        "Target",
        Unit.VOLT,
        c,
        MechanicalTrim::target,
        (t, v) -> new MechanicalTrim(v, t.window(), t.where(), t.most()));
    value(
        "trim-window",
        "Within ±",
        Unit.of("mV"),
        c,
        MechanicalTrim::window,
        (t, v) -> new MechanicalTrim(t.target(), v, t.where(), t.most()));
    words(
        "trim-where",
        "Measured at",
        c,
        MechanicalTrim::where,
        (t, w) -> new MechanicalTrim(t.target(), t.window(), w, t.most()));
    value(
        "trim-most",
        "It turns by ±",
        DEGREE,
        c,
        MechanicalTrim::most,
        (t, v) -> new MechanicalTrim(t.target(), t.window(), t.where(), v));
  }

  private interface Part {
    TaughtEnds with(TaughtEnds t, Value v);
  }

  private void teach(String id, String title, Unit u, Function<TaughtEnds, Value> of, Part part) {
    value("teach-" + id, title, u, TaughtEnds.class, of, part::with);
  }

  private void taught(Unit q) {
    teach(
        "travel-low",
        "Travel from",
        q,
        TaughtEnds::travelLow,
        (t, v) -> t.withTravel(v, t.travelHigh()));
    teach("travel-high", "to", q, TaughtEnds::travelHigh, (t, v) -> t.withTravel(t.travelLow(), v));
    teach("low", "Low end to", q, TaughtEnds::low, (t, v) -> t.withEnds(v, t.high()));
    teach(
        "low-most",
        "inwards at most",
        SHARE,
        TaughtEnds::lowMost,
        (t, v) -> t.withMost(v, t.highMost()));
    teach("high", "High end to", q, TaughtEnds::high, (t, v) -> t.withEnds(t.low(), v));
    teach(
        "high-most",
        "inwards at most",
        SHARE,
        TaughtEnds::highMost,
        (t, v) -> t.withMost(t.lowMost(), v));
    teach(
        "hold",
        "Hold for",
        SECOND,
        TaughtEnds::hold,
        (t, v) -> t.withTimes(v, t.timeOut(), t.reset()));
    teach(
        "time-out",
        "Both within",
        SECOND,
        TaughtEnds::timeOut,
        (t, v) -> t.withTimes(t.hold(), v, t.reset()));
    teach(
        "reset",
        "Factory: hold",
        SECOND,
        TaughtEnds::reset,
        (t, v) -> t.withTimes(t.hold(), t.timeOut(), v));
    teach(
        "meanwhile",
        "Meanwhile it gives",
        Unit.VOLT,
        TaughtEnds::meanwhile,
        TaughtEnds::withMeanwhile);
  }

  private void ends(Unit q) {
    value(
        "ends-closed",
        "Closed is",
        q,
        LearntEnds.class,
        LearntEnds::closed,
        (e, v) -> new LearntEnds(v, e.open()));
    value(
        "ends-open",
        "Open is",
        q,
        LearntEnds.class,
        LearntEnds::open,
        (e, v) -> new LearntEnds(e.closed(), v));
  }

  private void zero(Unit q) {
    Class<ZeroAndSpan> c = ZeroAndSpan.class;
    value(
        "zero-rest",
        "At rest it is",
        q,
        c,
        ZeroAndSpan::rest,
        (z, v) -> new ZeroAndSpan(v, z.at(), z.how()));
    value(
        "zero-at",
        "Second point",
        q,
        c,
        ZeroAndSpan::at,
        (z, v) -> new ZeroAndSpan(z.rest(), v, z.how()));
    words(
        "zero-how",
        "Rest is reached",
        c,
        ZeroAndSpan::how,
        (z, w) -> new ZeroAndSpan(z.rest(), z.at(), w));
  }

  private <P extends Procedure> void value(
      String id,
      String title,
      Unit unit,
      Class<P> of,
      Function<P, Value> get,
      BiFunction<P, Value, Procedure> with) {
    Unit si = unit.dimension().equals(Unit.VOLT.dimension()) ? Unit.VOLT : unit;
    boolean milli = !si.equals(unit);
    var field =
        new EntryField(
                id,
                title,
                true,
                t -> {
                  Value v = t.isBlank() ? null : Value.typed(t, unit);
                  if (v != null && (milli || unit.equals(SHARE))) {
                    v = Value.of(unit.convert(v.number(), milli ? si : Unit.ONE));
                  }
                  changed.accept(with.apply(of.cast(procedure), v));
                },
                () -> {})
            .whenDone();
    getChildren().add(field);
    shows.add(
        () -> {
          Value v = get.apply(of.cast(procedure));
          if (v == null) field.show("", unit.symbol());
          else if (milli || unit.equals(SHARE)) {
            double shown = (milli ? si : Unit.ONE).convert(v.number(), unit);
            field.show(Numbers.trimmed(shown, 6), unit.symbol());
          } else field.show(v, unit);
        });
  }

  private <P extends Procedure> void words(
      String id,
      String title,
      Class<P> of,
      Function<P, String> get,
      BiFunction<P, String, Procedure> with) {
    var field =
        new EntryField(
                id, title, false, t -> changed.accept(with.apply(of.cast(procedure), t)), () -> {})
            .whenDone();
    field.getStyleClass().add("short");
    getChildren().add(field);
    shows.add(() -> field.show(get.apply(of.cast(procedure)), ""));
  }
}
