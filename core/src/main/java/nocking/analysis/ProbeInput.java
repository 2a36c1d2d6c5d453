package nocking.analysis;

import java.util.List;
import nocking.channel.Channel;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Span;

/** Inputs at which the probe of a channel can stand, in the channel's unit. */
public final class ProbeInput {
  private ProbeInput() {}

  /**
   * The input nearest to a wish: inside the working and the sensor's rated range together, where
   * the sensor has a value at all; on a station of a selector.
   */
  public static double nearest(Channel c, double wished) {
    int stations = c.design().stations().size();
    if (stations > 0) return Math.clamp(Math.rint(wished), 1, stations);
    Span working = c.definition().working();
    return (c.design().sensor() == null ? working : reach(c, working)).clamp(wished);
  }

  private static Span reach(Channel c, Span working) {
    Span rated = c.design().sensor().rated(c.unit());
    Span both =
        new Span(Math.min(working.low(), rated.low()), Math.max(working.high(), rated.high()));
    return c.design()
        .sensor()
        .known(c.unit())
        .filter(k -> k.high() > both.low() && k.low() < both.high())
        .map(k -> new Span(Math.max(k.low(), both.low()), Math.min(k.high(), both.high())))
        .orElse(both);
  }

  /**
   * A value in any unit of the quantity, or the name of a station in capitals or not.
   *
   * @throws QuantityException when it is neither, or lies between two stations
   */
  public static double typed(Channel c, String text) {
    List<String> stations = c.design().stations();
    for (int i = 0; i < stations.size(); i++) {
      if (stations.get(i).equalsIgnoreCase(text.strip())) return i + 1.0;
    }
    double x = QuantityParser.value(text, c.unit());
    if (!stations.isEmpty() && c.design().station(x).isEmpty()) {
      throw new QuantityException(
          "expected %s, or 1 to %d".formatted(String.join(", ", stations), stations.size()));
    }
    return x;
  }
}
