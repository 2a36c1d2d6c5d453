package nocking.report.wiring;

import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.fault.PairExpectation;
import nocking.fault.PinExpectation;
import nocking.quantity.Numbers;
import nocking.report.wiring.Sketch.Anchor;
import nocking.report.wiring.Sketch.Role;
import nocking.wiring.Pin;
import nocking.wiring.WirePlan;
import nocking.wiring.WireStep;

/** The wire plan of a channel as one page that goes to the machine. */
public final class WirePlanPage {
  private static final String STYLE =
      """
      @page { size: A4; margin: 10mm 13mm; }
      body { font-family: Barlow, sans-serif; font-size: 8.4pt; color: #20282B; margin: 0; }
      h1 { font-size: 14pt; margin: 0 0 1mm 0; }
      h2 { font-size: 9.6pt; margin: 2.2mm 0 0.6mm 0; }
      table { border-collapse: collapse; width: 100%; }
      th { text-align: left; color: #5C6668; font-weight: bold; font-size: 7.6pt; }
      td, th { border-bottom: 0.3pt solid #B9B3A2; padding: 0.45mm 1.5mm; }
      .n { font-family: "JetBrains Mono", monospace; font-size: 7.6pt; text-align: right; }
      .blank { width: 26mm; }
      ul, ol { margin: 0; padding-left: 5mm; }
      li { margin: 0.1mm 0; }
      .why { color: #5C6668; }
      .caution { background: #FFF6DC; border-left: 1mm solid #20282B; padding: 0.8mm 2.5mm;
        margin: 0.8mm 0; }
      .quiet { color: #5C6668; }
      """;

  private WirePlanPage() {}

  /** The page as XHTML, with everything that it needs inside. */
  public static String html(Analysis a) {
    Channel c = a.channel();
    Definition d = c.definition();
    var out = new StringBuilder();
    out.append("<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"UTF-8\"/><title>")
        .append(text(c.tag() + " wire plan"))
        .append("</title><style>\n")
        .append(STYLE)
        .append("</style></head><body>\n");
    out.append("<h1>%s %s</h1>\n".formatted(text(c.tag()), text(d.name())));
    out.append(
        "<div class=\"quiet\">Wire plan · %s · at rest means %s</div>\n"
            .formatted(
                text(
                    d.kind().title()
                        + " "
                        + a.design().amount(d.low().number())
                        + " … "
                        + a.design().amount(d.high().number())),
                text(a.design().amount(c.design().rest()))));
    d.hazards()
        .forEach(
            h ->
                out.append(
                    "<div class=\"caution\"><b>Caution: %s.</b> %s</div>\n"
                        .formatted(text(h.title()), text(h.caution()))));
    out.append(
        "<div class=\"caution\"><b>Live measurement.</b> One probe at a time, use the ground post."
            + " Local codes, the maker's instructions and licensed practice come first.</div>\n");
    out.append(svg(WiringSketch.of(c, a.wiring().pins())));
    pins(out, c.wiring().plan(), a.wiring().pins());
    pairs(out, c.wiring().plan(), a.wiring().pairs());
    steps(out);
    if (c.wiring().plan().thresholds() != null) {
      out.append(
          "<h2>Fault thresholds at the converter</h2><div>A reading %s can only be a fault.</div>\n"
              .formatted(text(c.wiring().plan().thresholds().says())));
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
                  text(e.name()),
                  p == null ? "" : text(p.wire()),
                  p == null ? "" : text(p.position()),
                  p == null ? "" : text(p.terminal()),
                  text(e.atRestSays()),
                  text(e.rangeSays()),
                  p == null || p.measured() == null ? "" : text(p.measured().typed())));
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
                  text((i + 1) + " " + p.function().title() + ", end to end"),
                  Numbers.engineering(p.mostContinuity(), "Ω", 2),
                  p.continuity() == null ? "" : text(p.continuity().typed())));
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
                  text(between),
                  text(e.says()),
                  text(window),
                  plan.pair(e.first(), e.second()).map(v -> text(v.typed())).orElse("")));
    }
    out.append("</table>\n");
  }

  private static void steps(StringBuilder out) {
    for (WireStep.Phase phase : WireStep.Phase.values()) {
      out.append("<h2>").append(phase.title()).append("</h2><ul>\n");
      for (WireStep s : WireStep.ALL) {
        if (s.phase() != phase) continue;
        out.append(
            "<li>%s%s</li>\n"
                .formatted(
                    text(s.text()),
                    s.why().isEmpty() ? "" : " <span class=\"why\">" + text(s.why()) + "</span>"));
      }
      out.append("</ul>\n");
    }
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
                        text(w.text())));
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

  /** What XML 1.0 does not allow in a page (section 2.2, production 2). */
  private static final Pattern NO_CHARACTER =
      Pattern.compile("[^\\x09\\x0A\\x0D\\x20-\\x{D7FF}\\x{E000}-\\x{FFFD}\\x{10000}-\\x{10FFFF}]");

  /** Text from the document is text: no markup in it is ever read, and no control character. */
  private static String text(String s) {
    return NO_CHARACTER
        .matcher(s)
        .replaceAll("\uFFFD")
        .replace("&", "&amp;")
        .replace("<", "&lt;")
        .replace(">", "&gt;")
        .replace("\"", "&quot;");
  }
}
