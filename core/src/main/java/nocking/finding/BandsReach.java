package nocking.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.path.SignalPath;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.view.ChannelView;

/**
 * Bands that the channel can never come to, that are finer than its converter, a hysteresis that
 * its own noise steps over, a station that the converter does not see.
 */
final class BandsReach implements Rule {
  private static final double LEAST_COUNTS = 2;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    BandPlan plan = e.channel().wiring().bands();
    if (plan.isEmpty()) return Stream.empty();
    var list = new ArrayList<Finding>();
    stations(e, plan, list);
    e.design().path().ifPresent(p -> alarms(e, p, plan, list));
    return list.stream();
  }

  private static void stations(ChannelView e, BandPlan plan, List<Finding> list) {
    double reference = e.channel().design().converter().reference().number();
    for (int i = 0; i < plan.positions().size(); i++) {
      BandPosition p = plan.positions().get(i);
      double centre = p.centre().number();
      if (centre >= 0 && centre <= reference) continue;
      list.add(
          finding(
              "station-outside",
              "%s lies outside the converter's range".formatted(p.name()),
              "It is taken for %s; the converter tells 0 … %s apart. Divide the signal, or the station is never seen."
                  .formatted(
                      Numbers.engineering(centre, "V", 3), Numbers.engineering(reference, "V", 3)),
              i));
    }
  }

  private static void alarms(ChannelView e, SignalPath path, BandPlan plan, List<Finding> list) {
    Optional<Span> reach = reach(e, path);
    double count = path.countsWorth(e.channel().definition().working().middle());
    for (int i = 0; i < plan.alarms().size(); i++) {
      AlarmBand b = plan.alarms().get(i);
      double low = b.from() == null ? Double.NEGATIVE_INFINITY : b.from().number();
      double high = b.to() == null ? Double.POSITIVE_INFINITY : b.to().number();
      if (reach.isPresent() && (low >= reach.get().high() || high <= reach.get().low())) {
        list.add(
            finding(
                "alarm-never",
                "%s can never be reached".formatted(b.name()),
                "It begins %s; this path shows %s to %s and no more."
                    .formatted(
                        low >= reach.get().high()
                            ? "above " + e.design().amount(low)
                            : "below " + e.design().amount(high),
                        e.design().amount(reach.get().low()),
                        e.design().amount(reach.get().high())),
                i));
      } else if (high - low < LEAST_COUNTS * count) {
        list.add(
            finding(
                "band-below-count",
                "%s is narrower than two counts".formatted(b.name()),
                "It is %s wide and the resolution is %s, one count: the reading may step over it."
                    .formatted(e.design().error(high - low), e.design().error(count)),
                i));
      }
    }
    double noise = noise(e.channel(), e, path);
    double hysteresis = plan.hysteresis() == null ? 0 : plan.hysteresis().number();
    double least = Math.max(2 * noise, count);
    if (plan.alarms().size() > 1 && hysteresis > 0 && hysteresis < least) {
      list.add(
          finding(
              "hysteresis-below-noise",
              "The hysteresis of %s is less than the noise".formatted(e.design().error(hysteresis)),
              "%s: at a limit the alarm comes and goes by itself."
                  .formatted(
                      2 * noise > count
                          ? "Repeated readings spread by " + e.design().error(2 * noise)
                          : "The resolution is " + e.design().error(count)),
              -1));
    }
  }

  /** Quantities that the display can show at all, from the converter's and the path's ends. */
  private static Optional<Span> reach(ChannelView e, SignalPath path) {
    double a = path.quantity(path.converter().volts(0));
    double b = path.quantity(path.converter().volts(path.converter().codes() - 1.0));
    Span w = e.channel().definition().working();
    // Where an end of the converter has no reading, how far the display goes is not known.
    if (!Double.isFinite(a) || !Double.isFinite(b)) return Optional.empty();
    return Optional.of(
        new Span(Math.min(w.low(), Math.min(a, b)), Math.max(w.high(), Math.max(a, b))));
  }

  /** Standard deviation of repeated readings in the quantity; 0 without any. */
  private static double noise(Channel c, ChannelView e, SignalPath path) {
    double worst = 0;
    for (ReferencePoint p : c.calibration().points().counting()) {
      double sd = p.standardDeviation();
      if (Double.isNaN(sd)) continue;
      double volts =
          e.calibration().scale().map(k -> k.volts(p.mean() + sd) - k.volts(p.mean())).orElse(0.0);
      double slope = Math.abs(path.at(p.applied().number()).sensitivity());
      if (slope > 0) worst = Math.max(worst, Math.abs(volts) / slope);
    }
    return worst;
  }

  private static Finding finding(String rule, String headline, String detail, int index) {
    return Finding.of(rule, Severity.WARNING, WorkStep.WIRE, headline, detail).at(index);
  }
}
