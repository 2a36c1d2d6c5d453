package nocking.analysis;

import java.util.Optional;
import nocking.channel.Channel;
import nocking.parts.Assortment;
import nocking.parts.EndResistorDesign;
import nocking.parts.Solution;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.ResistorCode;
import nocking.quantity.Span;
import nocking.quantity.Spread;
import nocking.quantity.Value;
import nocking.sensor.Potentiometer;

/**
 * Resistors above and below a channel's potentiometer that keep its band between two voltages, so
 * that a broken wire can be told from a true end.
 *
 * @param solution the pair that keeps the most of the swing; empty parts where none is needed
 * @param channel the channel with it
 */
public record EndResistors(Solution solution, Channel channel) {

  /**
   * @param inside volts at the wiper that the working range may use
   * @throws QuantityException where there is no potentiometer, or no pair does it
   */
  public static EndResistors choose(Channel c, Span inside, Assortment assortment) {
    if (!(c.design().sensor() instanceof Potentiometer p)) {
      throw new QuantityException("end resistors belong to a potentiometer");
    }
    Span working = c.definition().working();
    double track = p.trackBelow(working.low()) + p.trackAbove(working.low());
    var wiper =
        Span.between(p.trackBelow(working.low()) / track, p.trackBelow(working.high()) / track);
    double tolerance =
        p.track().spread() == null
            ? 0
            : p.track().spread().limitOf(p.track().number()) / p.track().number();
    var goal = new EndResistorDesign.Goal(p.supply().number(), track, tolerance, wiper, inside);
    return EndResistorDesign.search(assortment, goal).solutions().stream()
        .findFirst()
        .map(s -> new EndResistors(s, with(c, p, s)))
        .orElseThrow(
            () ->
                new QuantityException(
                    "no pair of resistors keeps the band between %s V and %s V"
                        .formatted(
                            Numbers.trimmed(inside.low(), 4), Numbers.trimmed(inside.high(), 4))));
  }

  private static Channel with(Channel c, Potentiometer p, Solution s) {
    return c.design(
        d ->
            d.withSensor(
                new Potentiometer(
                    p.from(),
                    p.to(),
                    p.start(),
                    p.end(),
                    p.supply(),
                    p.track(),
                    p.ends(),
                    part(s, "Rt").orElse(null),
                    part(s, "Rb").orElse(null),
                    p.resistors())));
  }

  private static Optional<Value> part(Solution s, String name) {
    return s.parts().stream()
        .filter(n -> n.name().equals(name))
        .map(n -> n.network().parts().getFirst())
        .map(
            r -> {
              var v = new Value(r.ohms(), ResistorCode.of(r.ohms()));
              return r.tolerance() > 0 ? v.withSpread(Spread.percent(r.tolerance())) : v;
            })
        .findFirst();
  }
}
