package nocking.report.wiring;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.diagnosis.Diagnosis;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultRow;
import nocking.fault.FaultyPath;
import nocking.prior.FaultKind;
import nocking.quantity.Numbers;
import nocking.report.page.Page;
import nocking.wiring.Place;
import nocking.wiring.Thresholds;

/**
 * A channel's faults on one page for the lid of the cabinet: what the display shows, what may be
 * wrong, and what a meter then reads at rest. Faults of a degree, such as a leak, are not on it:
 * they read anything between.
 */
public final class FaultCardPage {
  /** Rows that a page holds. */
  private static final int MOST_ROWS = 34;

  /** Wires, supply and parts that are wholly broken, one way each. */
  private static final Set<FaultKind> SHOWN =
      EnumSet.of(
          FaultKind.NONE,
          FaultKind.SUPPLY_DEAD,
          FaultKind.SUPPLY_OPEN,
          FaultKind.GROUND_OPEN,
          FaultKind.SIGNAL_OPEN,
          FaultKind.SIGNAL_TO_SUPPLY,
          FaultKind.SIGNAL_TO_GROUND,
          FaultKind.SWAPPED,
          FaultKind.PART_OPEN,
          FaultKind.PART_SHORT,
          FaultKind.DIODE_OPEN,
          FaultKind.CAPACITOR_OPEN);

  /** What is read at rest where several faults are alike. */
  private record Line(String display, String volts, List<String> readings) {}

  private static final int MOST_HARMS = 3;

  private FaultCardPage() {}

  /** The page as XHTML; empty while there is no path. */
  public static Optional<String> html(Analysis a) {
    return a.wiring().faults().map(m -> html(a, m));
  }

  private static String html(Analysis a, FaultMatrix m) {
    Channel c = a.channel();
    Definition d = c.definition();
    List<Place> places =
        m.places().stream().filter(onCard()).sorted(Comparator.comparing(Place::kind)).toList();
    var out = new StringBuilder(Page.head(c.tag() + " fault card"));
    out.append("<h1>%s %s</h1>\n".formatted(Page.text(c.tag()), Page.text(d.name())));
    out.append(
        "<div class=\"quiet\">Fault card · %s … %s · a meter reads these at rest, %s</div>\n"
            .formatted(
                Page.text(a.design().amount(d.low().number())),
                Page.text(a.design().amount(d.high().number())),
                Page.text(a.design().amount(c.design().rest()))));
    out.append(Page.cautions(d));
    Thresholds t = c.wiring().plan().thresholds();
    out.append(
        "<div>Good readings lie between %s and %s V at the converter.%s</div>\n"
            .formatted(
                Numbers.fixed(m.band().volts().low(), 3),
                Numbers.fixed(m.band().volts().high(), 3),
                t == null ? "" : " A reading " + Page.text(t.says()) + " can only be a fault."));
    m.rows().stream()
        .filter(r -> r.harm().certain())
        .limit(MOST_HARMS)
        .forEach(
            r ->
                out.append(
                    "<div class=\"caution\">%s: %s.</div>\n"
                        .formatted(Page.text(r.fault().line()), Page.text(r.harm().says()))));
    Map<Line, List<String>> lines = lines(a, m, places);
    int left = Math.max(0, lines.size() - MOST_ROWS);
    out.append(
        "<table class=\"card\"><tr><th class=\"n\">shows, %s</th><th class=\"n\">converter</th><th>may be</th>"
            .formatted(Page.text(d.unit())));
    for (Place p : places) {
      out.append("<th class=\"n\">%s</th>".formatted(heading(p)));
    }
    out.append("</tr>\n");
    lines.entrySet().stream()
        .limit(MOST_ROWS)
        .forEach(
            e -> {
              out.append(
                  "<tr><td class=\"n\">%s</td><td class=\"n\">%s</td><td>%s</td>"
                      .formatted(
                          Page.text(e.getKey().display()),
                          Page.text(e.getKey().volts()),
                          Page.text(String.join("; ", e.getValue()))));
              for (String r : e.getKey().readings()) {
                out.append("<td class=\"n\">%s</td>".formatted(Page.text(r)));
              }
              out.append("</tr>\n");
            });
    out.append("</table>\n");
    out.append(
        "<div class=\"quiet\">%sLeaks, drifts, slipped numbers and contacts that come and go are not on this card; Diagnose weighs them.</div>\n"
            .formatted(left == 0 ? "" : left + " more kinds of reading are left out. "));
    return out.append("</body></html>\n").toString();
  }

  /**
   * Places that are measured with everything connected and live; the display has its own column.
   */
  private static Predicate<Place> onCard() {
    return p ->
        switch (p.kind()) {
          case SUPPLY_AT_RECEIVER, SUPPLY_AT_SENSOR, GROUND_AT_SENSOR -> true;
          case SIGNAL_AT_SENSOR, SIGNAL_AT_RECEIVER, LOOP_CURRENT -> true;
          case DISPLAY, TEST_POINT, OHMS_AT_SENSOR, OHMS_AT_RECEIVER -> false;
          // What lies between the ends tells where it broke, which the card does not ask.
          case SIGNAL_AT_JOINT, SUPPLY_AT_JOINT, GROUND_AT_JOINT, REFERENCE_WIPER -> false;
        };
  }

  /** Which wire, and under it at which end. */
  private static String heading(Place p) {
    return switch (p.kind()) {
      case SUPPLY_AT_RECEIVER -> "supply<br/>receiver";
      case SUPPLY_AT_SENSOR -> "supply<br/>sensor";
      case GROUND_AT_SENSOR -> "ground<br/>sensor";
      case SIGNAL_AT_SENSOR -> "signal<br/>sensor";
      case SIGNAL_AT_RECEIVER -> "signal<br/>receiver";
      default -> Page.text(p.title());
    };
  }

  /** Faults that show the same everywhere stand on one line; the sound channel is the first. */
  private static Map<Line, List<String>> lines(Analysis a, FaultMatrix m, List<Place> places) {
    var rows =
        new ArrayList<>(m.rows().stream().filter(r -> SHOWN.contains(r.fault().kind())).toList());
    rows.sort(Comparator.comparingDouble(FaultCardPage::order));
    var lines = new LinkedHashMap<Line, List<String>>();
    for (FaultRow r : rows) {
      var readings = new ArrayList<String>();
      for (Place p : places) {
        FaultyPath.Reading at = r.atRest().get(m.places().indexOf(p));
        readings.add(
            at.floats()
                ? "floats"
                : Double.isNaN(at.value())
                    ? "–"
                    : Diagnosis.reading(p, at.value(), a.channel().unit()));
      }
      var line = new Line(display(a, r), volts(r), List.copyOf(readings));
      lines.computeIfAbsent(line, k -> new ArrayList<>()).add(r.fault().name());
    }
    return lines;
  }

  private static double order(FaultRow r) {
    if (r.fault().kind() == FaultKind.NONE) return Double.NEGATIVE_INFINITY;
    return r.floating() ? Double.MAX_VALUE : r.volts().middle();
  }

  private static String display(Analysis a, FaultRow r) {
    if (r.floating()) return "anything";
    if (Double.isNaN(r.shownLow()) || Double.isNaN(r.shownHigh())) return "nothing";
    String low = a.design().reading(r.shownLow());
    String high = a.design().reading(r.shownHigh());
    return low.equals(high) ? low : low + " … " + high;
  }

  private static String volts(FaultRow r) {
    if (r.floating()) return "floats";
    String low = Numbers.fixed(r.volts().low(), 2);
    String high = Numbers.fixed(r.volts().high(), 2);
    return (low.equals(high) ? low : low + " … " + high) + " V";
  }
}
