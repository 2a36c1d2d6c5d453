package nocking.channel;

import java.lang.reflect.RecordComponent;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import nocking.element.Parameter;

/**
 * Looks for what is missing in a document before anything counts with it. A parameter may be
 * missing where it says what holds while it is empty; what else may be missing is listed here as
 * the schema has it; everything else must be there.
 */
final class Completeness {
  private static final Set<String> MAY_BE_MISSING =
      Set.of(
          "ChannelForm.sensor",
          "ChannelForm.adopted",
          "ChannelForm.table",
          "ChannelForm.card",
          "ChannelForm.notes",
          "ChannelForm.surroundings",
          "ChannelForm.bands",
          "ChannelForm.seen",
          "ChannelForm.stored",
          "ChannelForm.limits",
          "ChannelForm.overload",
          "ChannelForm.checklist",
          "ChannelForm.trim",
          "ChannelForm.bench",
          "ChannelForm.typing",
          "ChannelForm.transfers",
          "TableGoal.tolerance",
          "Demands.lowEnd",
          "Demands.highEnd",
          "TypedCell.rawBack",
          "TypedCell.outBack",
          "StoredCurve.trim",
          "Trim.at",
          "Trim.atRead",
          "SwitchPoint.activeLow",
          "Overload.proof",
          "Overload.burst",
          "SensorCard.overload",
          "StoredCurve.adopted",
          "DisplayLimits.low",
          "DisplayLimits.high",
          "Definition.gauge",
          "Definition.tolerance",
          "Definition.rest",
          "Definition.pivot",
          "WirePlan.supply",
          "WirePlan.thresholds",
          "WirePlan.sharedReference",
          "Supplied.current",
          "Supplied.dead",
          "Supplied.within",
          "SensorCard.supplied",
          "Pin.measured",
          "Pin.length",
          "Pin.continuity",
          "Pin.wire",
          "Thresholds.low",
          "Thresholds.high",
          "ReferencePoint.leftOut",
          "ReferencePoint.taken",
          "Taken.doubt",
          "CheckPoint.measured",
          "Observation.at",
          "Observation.until",
          "BandPlan.dwell",
          "BandPlan.hysteresis",
          "BandPlan.lever",
          "BandPlan.turn",
          "BandPosition.half",
          "AlarmBand.from",
          "AlarmBand.to",
          "SwitchPoint.up",
          "SwitchPoint.down",
          "Surroundings.reference",
          "Value.spread");

  /** Fields of any sensor or stage that may be left open. */
  private static final Set<String> MAY_BE_OPEN = Set.of("dissipation", "spread");

  private Completeness() {}

  /** Path of the first thing that is missing; empty when the record is whole. */
  static Optional<String> missing(Record record) {
    return missing(record, "");
  }

  private static Optional<String> missing(Object value, String path) {
    if (value instanceof List<?> list) {
      for (int i = 0; i < list.size(); i++) {
        if (list.get(i) == null) return Optional.of(path + "[" + i + "]");
        Optional<String> m = missing(list.get(i), path + "[" + i + "]");
        if (m.isPresent()) return m;
      }
      return Optional.empty();
    }
    if (!(value instanceof Record r)) return Optional.empty();
    for (RecordComponent c : r.getClass().getRecordComponents()) {
      String at = path.isEmpty() ? c.getName() : path + "." + c.getName();
      Object part = read(r, c);
      if (part == null) {
        String name = r.getClass().getSimpleName() + "." + c.getName();
        Parameter p = c.getAnnotation(Parameter.class);
        if (p != null && !p.whenEmpty().isEmpty()) continue;
        if (MAY_BE_MISSING.contains(name) || MAY_BE_OPEN.contains(c.getName())) continue;
        return Optional.of(at);
      }
      Optional<String> m = missing(part, at);
      if (m.isPresent()) return m;
    }
    return Optional.empty();
  }

  private static Object read(Record r, RecordComponent c) {
    try {
      return c.getAccessor().invoke(r);
    } catch (ReflectiveOperationException e) {
      throw new IllegalStateException(c + " cannot be read", e);
    }
  }
}
