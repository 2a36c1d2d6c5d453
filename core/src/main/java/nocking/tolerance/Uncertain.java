package nocking.tolerance;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import nocking.element.Element;
import nocking.path.ParameterRef;
import nocking.path.SignalPath;
import nocking.quantity.Distribution;
import nocking.quantity.Spread;
import nocking.quantity.Value;

/**
 * A parameter of the path that is not exactly what it should be.
 *
 * @param symbol in the path's equation
 * @param owner element and field
 * @param nominal in the field's unit
 * @param limit largest departure at the reference temperature, field's unit
 * @param drift largest departure for 1 K, field's unit
 */
public record Uncertain(
    String symbol,
    ParameterRef owner,
    double nominal,
    double limit,
    double drift,
    Distribution distribution) {

  /**
   * The parameters of a path that have a tolerance or a temperature coefficient, in its order.
   *
   * @param elements sensor, stages, converter
   */
  public static List<Uncertain> of(SignalPath path, List<Element> elements) {
    var list = new ArrayList<Uncertain>();
    path.owners().entrySet().stream()
        .filter(e -> path.forward().contains(e.getKey()))
        .sorted(
            Map.Entry.<String, ParameterRef>comparingByValue(
                    Comparator.comparingInt(ParameterRef::element))
                .thenComparing(Map.Entry.comparingByKey()))
        .forEach(
            e -> {
              Value v = elements.get(e.getValue().element()).value(e.getValue().field());
              Spread s = v.spread();
              if (s == null) return;
              double limit = s.limitOf(v.number());
              double drift = Math.abs(v.number()) * s.temperatureCoefficient() * 1e-6;
              if (limit == 0 && drift == 0) return;
              list.add(
                  new Uncertain(
                      e.getKey(), e.getValue(), v.number(), limit, drift, s.distribution()));
            });
    return list;
  }
}
