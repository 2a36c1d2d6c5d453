package nocking.channel;

import java.util.List;
import nocking.band.BandPlan;
import nocking.wiring.Checklist;
import nocking.wiring.Observation;
import nocking.wiring.WirePlan;

/**
 * The wires of a channel, the limits of what they may carry, and what was found on them.
 *
 * @param plan pins, supply and fault limits
 * @param bands positions, alarms and switches
 * @param seen what was seen while a fault was looked for
 * @param checklist what of the wiring has been done
 */
public record Wiring(WirePlan plan, BandPlan bands, List<Observation> seen, Checklist checklist) {
  public static final Wiring EMPTY =
      new Wiring(WirePlan.DEFAULT, BandPlan.EMPTY, List.of(), Checklist.EMPTY);

  public Wiring {
    bands = bands == null ? BandPlan.EMPTY : bands;
    checklist = checklist == null ? Checklist.EMPTY : checklist;
    seen = seen == null ? List.of() : List.copyOf(seen);
  }

  public Wiring withPlan(WirePlan v) {
    return new Wiring(v, bands, seen, checklist);
  }

  public Wiring withBands(BandPlan v) {
    return new Wiring(plan, v, seen, checklist);
  }

  public Wiring withObservations(List<Observation> v) {
    return new Wiring(plan, bands, v, checklist);
  }

  public Wiring withChecklist(Checklist v) {
    return new Wiring(plan, bands, seen, v);
  }
}
