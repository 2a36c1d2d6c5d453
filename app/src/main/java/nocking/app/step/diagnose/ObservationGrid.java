package nocking.app.step.diagnose;

import java.util.ArrayList;
import java.util.List;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.channel.Channel;
import nocking.diagnosis.Diagnosis;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.wiring.Observation;

/** The lines that were seen: where, at which input, and what. */
final class ObservationGrid {
  private final Desk desk;
  private final Grid grid;

  ObservationGrid(Desk desk) {
    this.desk = desk;
    grid = BlockPaste.into(make(), desk);
  }

  Grid grid() {
    return grid;
  }

  private Grid make() {
    return new Grid(
            "seen",
            "Nothing yet. Begin with what the display says at a known input.",
            List.of(
                Column.shown(
                    "where",
                    146,
                    false,
                    i -> desk.channel().orElseThrow().wiring().plan().title(list().get(i).place())),
                Column.typed("at", 80, true, i -> at(list().get(i)), this::takeAt),
                Column.typed("seen", 74, true, i -> shown(list().get(i)), this::takeValue)),
            i -> false)
        .onDelete(
            i -> {
              var next = new ArrayList<>(list());
              next.remove(i);
              desk.observe("take out what was seen", next);
              return true;
            });
  }

  List<Observation> list() {
    return desk.channel().map(c -> c.wiring().seen()).orElse(List.of());
  }

  private String at(Observation s) {
    return s.at() == null ? "?" : withUnit(s.at(), desk.channel().orElseThrow().unit());
  }

  private String shown(Observation s) {
    Unit unit = s.place().unit(desk.channel().orElseThrow().unit());
    if (!s.jumping()) return withUnit(s.value(), unit);
    return withUnit(s.value(), unit) + " … " + withUnit(s.until(), unit) + ", jumping";
  }

  /** What was typed, with its unit where only a number was. */
  private static String withUnit(Value v, Unit unit) {
    boolean bare = v.typed().matches("[-+−]?[0-9.]+");
    return bare ? (v.typed() + " " + unit.symbol()).strip() : v.typed();
  }

  private void change(int i, Observation next) {
    var all = new ArrayList<>(list());
    all.set(i, next);
    desk.observe("change what was seen", all);
  }

  private void takeAt(int i, String text) {
    Observation s = list().get(i);
    boolean unknown = text.isBlank() || text.strip().equals("?");
    Value at = unknown ? null : Value.typed(text, desk.channel().orElseThrow().unit());
    var next = new Observation(s.place(), at, s.value(), s.until());
    Diagnosis.requireInput(desk.channel().orElseThrow(), next);
    change(i, next);
  }

  private void takeValue(int i, String text) {
    Observation s = list().get(i);
    Unit unit = s.place().unit(desk.channel().orElseThrow().unit());
    change(i, Observation.typed(s.place(), s.at(), text, unit));
  }

  /** Adds a line; one at an input where nothing can have been seen is refused. */
  boolean add(Observation s) {
    Diagnosis.requireInput(desk.channel().orElseThrow(), s);
    var next = new ArrayList<>(list());
    next.add(s);
    return desk.observe("add what was seen", next);
  }

  void refresh(Channel c) {
    int lines = c.wiring().seen().size();
    grid.editable(desk.writable());
    grid.show(lines);
    double high = 30 + 25.0 * Math.clamp(lines, 2, 5);
    grid.setMinHeight(high);
    grid.setPrefHeight(high);
  }
}
