package nocking.report.page;

import java.util.List;
import nocking.analysis.Analysis;
import nocking.analysis.ReceiverSettings;
import nocking.analysis.ReceiverSettings.Setting;
import nocking.channel.Channel;

/** What is typed into a receiver, as a list with room for its pages and a box to tick. */
public final class SettingsSheet {
  private SettingsSheet() {}

  /** The sheet as XHTML; says so where nothing is to be typed in. */
  public static String html(Analysis a) {
    Channel c = a.channel();
    List<Setting> all = ReceiverSettings.of(a);
    var out = new StringBuilder(Page.head(c.tag() + " settings"));
    out.append("<h1>%s %s</h1>\n".formatted(Page.text(c.tag()), Page.text(c.definition().name())));
    out.append(
        "<div class=\"quiet\">Settings of the receiver · %s%s</div>\n"
            .formatted(
                Page.text(a.calibration().curve().map(k -> k.title()).orElse("no curve yet")),
                c.journal().locked() ? " · locked" : ""));
    out.append(Page.hazards(c.definition()));
    if (all.isEmpty()) {
      out.append("<div>There is nothing to type in yet: define the sensor first.</div>\n");
      return out.append("</body></html>\n").toString();
    }
    String group = "";
    for (Setting s : all) {
      if (!s.group().equals(group)) {
        if (!group.isEmpty()) out.append("</table>\n");
        group = s.group();
        out.append(
            "<h2>%s</h2><table class=\"card\"><tr><th>name</th><th class=\"n\">value</th><th>unit</th><th class=\"n\">rounding costs</th><th class=\"blank\">page, place</th><th>set</th></tr>\n"
                .formatted(Page.text(group)));
      }
      out.append(
          "<tr><td>%s</td><td class=\"n\">%s</td><td>%s</td><td class=\"n\">%s</td><td class=\"blank\"></td><td><span class=\"box\">&#160;</span></td></tr>\n"
              .formatted(
                  Page.text(s.name()),
                  Page.text(s.value().replace('-', '−')),
                  Page.text(s.unit()),
                  Page.text(s.cost())));
    }
    return out.append(
            "</table>\n<div class=\"quiet\">Set by: ____________________  date: ______________  read back by: ____________________</div>\n</body></html>\n")
        .toString();
  }
}
