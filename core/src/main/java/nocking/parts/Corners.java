package nocking.parts;

import java.util.ArrayList;
import java.util.List;
import java.util.function.ToDoubleFunction;
import nocking.element.Element;
import nocking.element.Field;
import nocking.quantity.Value;
import nocking.stage.Stage;

/** Stages with every value that has a tolerance at either limit of it. */
public final class Corners {
  /** Values of which every corner is looked at. */
  private static final int EVERY = 10;

  private record Place(int stage, Field field, double limit) {}

  private final List<Stage> stages;
  private final List<Place> places = new ArrayList<>();

  private Corners(List<Stage> stages) {
    this.stages = stages;
    for (int i = 0; i < stages.size(); i++) {
      for (Field f : stages.get(i).fields()) {
        Value v = stages.get(i).value(f);
        if (v == null || v.spread() == null) continue;
        double limit = v.spread().limitOf(v.number());
        if (limit > 0) places.add(new Place(i, f, limit));
      }
    }
  }

  /**
   * Every corner; the stages as they are where nothing has a tolerance. For circuits that are
   * proposed: their number doubles with each value.
   */
  public static List<List<Stage>> of(List<Stage> stages) {
    var c = new Corners(stages);
    var corners = new ArrayList<List<Stage>>();
    for (boolean[] up : c.every()) corners.add(c.corner(up));
    return corners;
  }

  /**
   * The largest value in any corner: of every one up to ten values with a tolerance, beyond that by
   * turning one value after another to its other limit until none raises it any more. That is the
   * largest one as long as no value changes the sign of what another one does, which holds for the
   * resistances of a chain of dividers and amplifiers.
   */
  public static double largest(List<Stage> stages, ToDoubleFunction<List<Stage>> of) {
    var c = new Corners(stages);
    return c.places.size() <= EVERY
        ? c.every().stream().mapToDouble(up -> of.applyAsDouble(c.corner(up))).max().orElseThrow()
        : c.climbed(of);
  }

  private List<boolean[]> every() {
    var list = new ArrayList<boolean[]>();
    list.add(new boolean[places.size()]);
    for (int p = 0; p < places.size(); p++) {
      for (boolean[] low : List.copyOf(list)) {
        boolean[] high = low.clone();
        high[p] = true;
        list.add(high);
      }
    }
    return list;
  }

  private double climbed(ToDoubleFunction<List<Stage>> of) {
    boolean[] up = new boolean[places.size()];
    double best = of.applyAsDouble(corner(up));
    boolean raised = true;
    while (raised) {
      raised = false;
      for (int p = 0; p < up.length; p++) {
        up[p] = !up[p];
        double turned = of.applyAsDouble(corner(up));
        if (turned > best) {
          best = turned;
          raised = true;
        } else {
          up[p] = !up[p];
        }
      }
    }
    return best;
  }

  private List<Stage> corner(boolean[] up) {
    var moved = new ArrayList<>(stages);
    for (int p = 0; p < up.length; p++) {
      Place place = places.get(p);
      Stage stage = moved.get(place.stage);
      double there = stage.value(place.field).number() + (up[p] ? place.limit : -place.limit);
      moved.set(place.stage, Element.with(stage, place.field, Value.of(there)));
    }
    return moved;
  }
}
