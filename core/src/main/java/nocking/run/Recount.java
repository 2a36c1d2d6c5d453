package nocking.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.DoubleUnaryOperator;
import nocking.quantity.Unit;

/**
 * What the readings of a run come to when the unit or the certificate of an instrument was wrong in
 * its plan: what the instrument said is worked out by the plan that it was taken by, and counted
 * anew by the other. Set points and what nobody read stay as they are.
 */
final class Recount {
  private final List<DoubleUnaryOperator> meters = new ArrayList<>();
  private final DoubleUnaryOperator reference;
  private final DoubleUnaryOperator beside;
  private final DoubleUnaryOperator supply;

  /**
   * @param was the plan that was gone by
   * @param is another of the same work
   */
  Recount(RunPlan was, RunPlan is) {
    for (int i = 0; i < was.channels().size(); i++) {
      RunChannel before = was.channels().get(i);
      String kept = before.raw().unit().symbol();
      meters.add(of(before.meter(), is.channels().get(i).meter(), kept));
    }
    reference =
        was.reference().byHand() && is.reference().byHand()
            ? typed(was.reference(), is.reference(), was.unit())
            : of(was.reference(), is.reference(), was.unit());
    beside = of(was.beside(), is.beside(), was.unit());
    supply = of(was.supply(), is.supply(), Unit.VOLT.symbol());
  }

  /** From what a reading counted to what it counts, both in the unit that it is kept in. */
  private static DoubleUnaryOperator of(Instrument was, Instrument is, String kept) {
    if (was == null || is == null || same(was, is)) return v -> v;
    return v -> is.counts(was.says(v, kept), kept);
  }

  /** What is read by eye is typed in the unit of the plan. */
  private static DoubleUnaryOperator typed(Instrument was, Instrument is, String kept) {
    if (same(was, is)) return v -> v;
    return v -> is.countsTyped(was.saysTyped(v, kept), kept);
  }

  private static boolean same(Instrument was, Instrument is) {
    return was.unit().equals(is.unit()) && Objects.equals(was.corrections(), is.corrections());
  }

  RunPoint of(RunPoint p) {
    boolean read = p.readings().stream().anyMatch(r -> !r.isEmpty());
    double applied =
        read && !Boolean.TRUE.equals(p.placeUnknown())
            ? reference.applyAsDouble(p.applied())
            : p.applied();
    var readings = new ArrayList<List<Double>>();
    for (int i = 0; i < p.readings().size(); i++) {
      DoubleUnaryOperator meter = meters.get(i);
      readings.add(p.readings().get(i).stream().map(meter::applyAsDouble).toList());
    }
    Double apart =
        p.apart() == null ? null : beside.applyAsDouble(p.applied() + p.apart()) - applied;
    return new RunPoint(
        p.at(),
        p.target(),
        applied,
        readings,
        p.how(),
        p.why(),
        p.placeUnknown(),
        p.arrivals() == null ? null : arrivals(p),
        p.supply() == null ? null : (Double) supply.applyAsDouble(p.supply()),
        p.doubt(),
        apart);
  }

  private List<RunPoint.Arrival> arrivals(RunPoint p) {
    var list = new ArrayList<RunPoint.Arrival>();
    for (int i = 0; i < p.arrivals().size(); i++) {
      RunPoint.Arrival a = p.arrivals().get(i);
      list.add(a == null ? null : arrival(a, p.mean(i), meters.get(i)));
    }
    return list;
  }

  /** What is small about a reading goes by the slope there. */
  private static RunPoint.Arrival arrival(RunPoint.Arrival a, double mean, DoubleUnaryOperator f) {
    double at = f.applyAsDouble(mean);
    return new RunPoint.Arrival(
        f.applyAsDouble(mean + a.toCome()) - at,
        Math.abs(f.applyAsDouble(mean + a.uncertainty()) - at),
        a.lag());
  }
}
