package nocking.report.wiring;

import java.util.List;
import java.util.Locale;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.fault.PairExpectation;
import nocking.fault.PinExpectation;
import nocking.quantity.Numbers;
import nocking.report.page.Page;
import nocking.report.wiring.Sketch.Anchor;
import nocking.report.wiring.Sketch.Role;
import nocking.wiring.Checklist;
import nocking.wiring.Pin;
import nocking.wiring.WirePlan;
import nocking.wiring.WireStep;

/** The wire plan of a channel as one page that goes to the machine. */
public final class WirePlanPage {
  private WirePlanPage() {}

  /** The page as XHTML, with everything that it needs inside. */
  public static String html(Analysis a) {
    Channel c = a.channel();
    Definition d = c.definition();
    var out = new StringBuilder();
    out.append(Page.head(c.tag() + " wire plan"));
    out.append("<h1>%s %s</h1>\n".formatted(Page.text(c.tag()), Page.text(d.name())));
    out.append(
        "<div class=\"quiet\">Wire plan · %s · at rest means %s</div>\n"
            .formatted(
                Page.text(
                    d.kind().title()
                        + " "
                        + a.design().amount(d.low().number())
                        + " … "
                        + a.design().amount(d.high().number())),
                Page.text(a.design().amount(c.design().rest()))));
    out.append(Page.cautions(d));
    out.append(svg(WiringSketch.of(c, a.wiring().pins())));
    pins(out, c.wiring().plan(), a.wiring().pins());
    pairs(out, c.wiring().plan(), a.wiring().pairs());
    steps(out, c.wiring().checklist());
    if (c.wiring().plan().thresholds() != null) {
      out.append(
          "<h2>Fault thresholds at the converter</h2><div>A reading %s can only be a fault.</div>\n"
              .formatted(Page.text(c.wiring().plan().thresholds().says())));
    }
    return out.append("</body></html>\n").toString();
  }

  private static void pins(StringBuilder out, WirePlan plan, List<PinExpectation> expected) {
    out.append(
        "<h2>After power, at rest</h2><table><tr><th>pin</th><th>wire</th><th>connector</th>"
            + "<th>terminal</th><th class=\"n\">must read</th>"
            + "<th class=\"n\">over the range</th><th class=\"n\">measured</th></tr>\n");
    for (PinExpectation e : expected) {
      Pin p = e.pin() < 0 ? null : plan.pins().get(e.pin());
      out.append(
          "<tr><td>%s</td><td>%s</td><td>%s</td><td>%s</td><td class=\"n\">%s</td><td class=\"n\">%s</td><td class=\"n blank\">%s</td></tr>\n"
              .formatted(
                  Page.text(e.name()),
                  p == null ? "" : Page.text(p.wire()),
                  p == null ? "" : Page.text(p.position()),
                  p == null ? "" : Page.text(p.terminal()),
                  Page.text(e.atRestSays()),
                  Page.text(e.rangeSays()),
                  p == null || p.measured() == null ? "" : Page.text(p.measured().typed())));
    }
    out.append("</table>\n");
  }

  private static void pairs(StringBuilder out, WirePlan plan, List<PairExpectation> expected) {
    out.append(
        "<h2>Before power, receiver unplugged</h2><table><tr><th>pins</th><th class=\"n\">must"
            + " read</th><th class=\"n\">window</th><th class=\"n\">measured</th></tr>\n");
    for (int i = 0; i < plan.pins().size(); i++) {
      Pin p = plan.pins().get(i);
      out.append(
          "<tr><td>%s</td><td class=\"n\">continuity</td><td class=\"n\">at most %s</td><td class=\"n blank\">%s</td></tr>\n"
              .formatted(
                  Page.text((i + 1) + " " + p.function().title() + ", end to end"),
                  Numbers.engineering(p.mostContinuity(), "Ω", 2),
                  p.continuity() == null ? "" : Page.text(p.continuity().typed())));
    }
    for (PairExpectation e : expected) {
      String window = e.windowSays();
      String between =
          "%s %s to %s"
              .formatted(
                  e.name(),
                  plan.pins().get(e.first()).function().title(),
                  plan.pins().get(e.second()).function().title());
      out.append(
          "<tr><td>%s</td><td class=\"n\">%s</td><td class=\"n\">%s</td><td class=\"n blank\">%s</td></tr>\n"
              .formatted(
                  Page.text(between),
                  Page.text(e.says()),
                  Page.text(window),
                  plan.pair(e.first(), e.second()).map(v -> Page.text(v.typed())).orElse("")));
    }
    out.append("</table>\n");
  }

  private static void steps(StringBuilder out, Checklist list) {
    for (WireStep.Phase phase : WireStep.Phase.values()) {
      out.append("<h2>").append(phase.title()).append("</h2><ul>\n");
      for (WireStep s : list.steps(phase)) {
        out.append(
            "<li>%s%s%s</li>\n"
                .formatted(
                    Page.text(s.text()),
                    s.why().isEmpty()
                        ? ""
                        : " <span class=\"why\">" + Page.text(s.why()) + "</span>",
                    list.tick(s).map(WirePlanPage::done).orElse("")));
      }
      out.append("</ul>\n");
    }
  }

  private static String done(Checklist.Tick t) {
    String found = t.measured().isBlank() ? "" : ", found " + t.measured();
    String by = t.by().isBlank() ? "" : " by " + t.by();
    return " <b>done %s%s%s</b>"
        .formatted(Page.text(t.at().replace('T', ' ')), Page.text(by), Page.text(found));
  }

  /** The drawing as SVG. */
  static String svg(Sketch s) {
    var out = new StringBuilder();
    out.append(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"%d\" height=\"%d\" viewBox=\"0 0 %d %d\">\n"
            .formatted(
                Math.round(0.87 * s.width()),
                Math.round(0.87 * s.height()),
                Math.round(s.width()),
                Math.round(s.height())));
    for (Sketch.Shape shape : s.shapes()) {
      switch (shape) {
        case Sketch.Box b ->
            out.append(
                "<rect x=\"%s\" y=\"%s\" width=\"%s\" height=\"%s\" rx=\"3\" fill=\"%s\" stroke=\"#5C6668\" stroke-width=\"0.8\"/>\n"
                    .formatted(n(b.x()), n(b.y()), n(b.w()), n(b.h()), fill(b.role())));
        case Sketch.Wire w ->
            out.append(
                "<line x1=\"%s\" y1=\"%s\" x2=\"%s\" y2=\"%s\" stroke=\"%s\" stroke-width=\"%s\"%s/>\n"
                    .formatted(
                        n(w.x1()),
                        n(w.y1()),
                        n(w.x2()),
                        n(w.y2()),
                        colour(w.colour()),
                        n(w.width()),
                        w.dashed() ? " stroke-dasharray=\"9 9\"" : ""));
        case Sketch.Words w ->
            out.append(
                "<text x=\"%s\" y=\"%s\" text-anchor=\"%s\" font-family=\"%s\" font-size=\"%s\" fill=\"%s\"%s>%s</text>\n"
                    .formatted(
                        n(w.x()),
                        n(w.y()),
                        anchor(w.anchor()),
                        w.role() == Role.NUMBER
                            ? "JetBrains Mono, monospace"
                            : "Barlow, sans-serif",
                        w.role() == Role.TITLE ? "13" : "11.5",
                        w.role() == Role.QUIET ? "#5C6668" : "#20282B",
                        w.role() == Role.TITLE ? " font-weight=\"bold\"" : "",
                        Page.text(w.text())));
      }
    }
    return out.append("</svg>\n").toString();
  }

  private static String fill(Role role) {
    return role == Role.PIN ? "#FFFFFF" : role == Role.BODY ? "#F7F5EF" : "#EFECE4";
  }

  private static String colour(String c) {
    return c.isEmpty() ? "#DDD8CB" : c.equals("edge") ? "#8A8474" : c;
  }

  private static String anchor(Anchor a) {
    return a.name().toLowerCase(Locale.ROOT);
  }

  private static String n(double v) {
    return Numbers.plain(Math.rint(v * 10) / 10);
  }
}
