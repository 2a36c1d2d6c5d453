package nocking.channel;

import java.util.ArrayList;
import java.util.List;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.band.SwitchPoint;
import nocking.check.CheckPoint;
import nocking.check.CheckTable;
import nocking.points.PointSet;
import nocking.table.TableSpec;
import nocking.wiring.Checklist;
import nocking.wiring.Pin;
import nocking.wiring.WirePlan;

/**
 * A channel for another device of the same design: what was thought out goes along, and nothing
 * that was measured, typed in, transferred, checked or signed at the one that was there before.
 */
final class AnotherDevice {
  private AnotherDevice() {}

  static Channel of(Channel c, String id, String tag) {
    return new Channel(
        id,
        c.design().define(d -> d.withTag(tag)),
        wiring(c.wiring()),
        new Calibration(new PointSet(c.calibration().points().raw(), List.of()), null, null),
        receiver(c.receiver()),
        new Acceptance(planned(c.acceptance().check())),
        new Journal(List.of(new Note("duplicate of", c.tag())), false));
  }

  private static Wiring wiring(Wiring w) {
    var pins = new ArrayList<Pin>();
    for (Pin p : w.plan().pins()) pins.add(p.withMeasured(null).withContinuity(null));
    // What was measured between the wires goes with them.
    WirePlan plan = w.plan().withPins(pins);
    return new Wiring(plan, unseen(w.bands()), List.of(), Checklist.EMPTY);
  }

  private static BandPlan unseen(BandPlan b) {
    List<BandPosition> positions =
        b.positions().stream().map(p -> p.withSettles(List.of(), List.of())).toList();
    List<SwitchPoint> switches = b.switches().stream().map(s -> s.withSeen(null, null)).toList();
    return b.withPositions(positions).withSwitches(switches);
  }

  /** What a receiver of the kind goes by; a curve that was measured belongs to the other sensor. */
  private static Receiver receiver(Receiver r) {
    StoredCurve s = r.stored();
    boolean measured = s != null && (s.adopted() != null || s.trim() != null);
    TableSpec t = r.table();
    TableSpec table = t == null ? null : t.with(t.goal().withBench(false)).withByHand(List.of());
    return new Receiver(table, measured ? null : s, r.limits(), null, List.of(), List.of());
  }

  private static CheckTable planned(CheckTable t) {
    return new CheckTable(
        t.measured(), t.points().stream().map(p -> new CheckPoint(p.applied(), null)).toList());
  }
}
