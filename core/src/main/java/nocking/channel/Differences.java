package nocking.channel;

import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import nocking.element.Element;
import nocking.element.Field;
import nocking.quantity.Value;

/** What is different between two states of a channel, in words and numbers. */
public final class Differences {
  private static final int MOST = 5;

  private Differences() {}

  /** One sentence: what is different now, and what it was then; the first few things of it. */
  public static String between(Channel then, Channel now) {
    var list = new ArrayList<String>();
    records(then.definition(), now.definition(), list);
    design(then.design(), now.design(), list);
    calibration(then.calibration(), now.calibration(), list);
    part("wiring", then.wiring().plan(), now.wiring().plan(), list);
    part("table", then.receiver().table(), now.receiver().table(), list);
    part("receiver's own curve", then.receiver().stored(), now.receiver().stored(), list);
    part("bench pairs", then.receiver().bench(), now.receiver().bench(), list);
    part("list typed in", then.receiver().typing(), now.receiver().typing(), list);
    part("transfers", then.receiver().transfers(), now.receiver().transfers(), list);
    part("display limits", then.receiver().limits(), now.receiver().limits(), list);
    part("check", then.acceptance().check(), now.acceptance().check(), list);
    part("bands", then.wiring().bands(), now.wiring().bands(), list);
    part("what was seen", then.wiring().seen(), now.wiring().seen(), list);
    part("overload limits", then.design().overload(), now.design().overload(), list);
    part("wiring steps", then.wiring().checklist(), now.wiring().checklist(), list);
    part("surroundings", then.design().surroundings(), now.design().surroundings(), list);
    part("sensor card", then.design().card(), now.design().card(), list);
    part("notes", then.journal().notes(), now.journal().notes(), list);
    if (list.isEmpty()) return "The channel is as in this revision.";
    int more = list.size() - MOST;
    String tail = more > 0 ? " and %d more".formatted(more) : "";
    return "Since then: "
        + String.join("; ", list.subList(0, Math.min(MOST, list.size())))
        + tail
        + ".";
  }

  private static void design(Design then, Design now, List<String> list) {
    element(then.sensor(), now.sensor(), "sensor", list);
    int stages = now.stages().size();
    if (then.stages().size() != stages) {
      list.add("%d stages, then %d".formatted(stages, then.stages().size()));
    } else {
      for (int i = 0; i < stages; i++) {
        element(then.stages().get(i), now.stages().get(i), now.stages().get(i).title(), list);
      }
    }
    element(then.converter(), now.converter(), "converter", list);
  }

  private static void calibration(Calibration then, Calibration now, List<String> list) {
    if (!then.points().equals(now.points())) {
      list.add(
          "points: %d, then %d"
              .formatted(now.points().points().size(), then.points().points().size()));
    }
    part("adopted model", then.adopted(), now.adopted(), list);
    part("trim", then.trim(), now.trim(), list);
  }

  private static void part(String what, Object then, Object now, List<String> list) {
    if (!Objects.equals(then, now)) list.add(what + " changed");
  }

  private static void element(Element then, Element now, String what, List<String> list) {
    if (Objects.equals(then, now)) return;
    if (then == null || now == null || then.getClass() != now.getClass()) {
      list.add(what + " is another");
      return;
    }
    for (Field f : now.fields()) {
      Value a = then.value(f);
      Value b = now.value(f);
      if (!Objects.equals(a, b)) {
        list.add("%s %s, then %s".formatted(f.symbol(), typed(b), typed(a)));
      }
    }
  }

  private static String typed(Value v) {
    return v == null ? "none" : v.typed();
  }

  private static void records(Record then, Record now, List<String> list) {
    for (RecordComponent c : now.getClass().getRecordComponents()) {
      try {
        Object a = c.getAccessor().invoke(then);
        Object b = c.getAccessor().invoke(now);
        if (!Objects.equals(a, b)) {
          list.add("%s %s, then %s".formatted(c.getName(), words(b), words(a)));
        }
      } catch (ReflectiveOperationException e) {
        throw new IllegalStateException("a document is made of public records", e);
      }
    }
  }

  private static String words(Object o) {
    return o instanceof Value v ? v.typed() : o == null ? "none" : o.toString();
  }
}
