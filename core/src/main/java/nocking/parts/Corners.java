package nocking.parts;

import java.util.ArrayList;
import java.util.List;
import nocking.element.Element;
import nocking.element.Field;
import nocking.quantity.Value;
import nocking.stage.Stage;

/** Stages with every value that has a tolerance at either limit of it. */
public final class Corners {
  private record Place(int stage, Field field, double limit) {}

  private Corners() {}

  /** Every corner; the stages as they are where nothing has a tolerance. */
  public static List<List<Stage>> of(List<Stage> stages) {
    var places = new ArrayList<Place>();
    for (int i = 0; i < stages.size(); i++) {
      for (Field f : stages.get(i).fields()) {
        Value v = stages.get(i).value(f);
        if (v == null || v.spread() == null) continue;
        double limit = v.spread().limitOf(v.number());
        if (limit > 0) places.add(new Place(i, f, limit));
      }
    }
    var corners = new ArrayList<List<Stage>>();
    for (int corner = 0; corner < 1 << places.size(); corner++) {
      var moved = new ArrayList<>(stages);
      for (int p = 0; p < places.size(); p++) {
        Place place = places.get(p);
        Stage stage = moved.get(place.stage);
        double off = (corner >> p & 1) == 1 ? place.limit : -place.limit;
        double there = stage.value(place.field).number() + off;
        moved.set(place.stage, Element.with(stage, place.field, Value.of(there)));
      }
      corners.add(moved);
    }
    return corners;
  }
}
