package nocking.report.page;

import nocking.channel.Definition;
import nocking.quantity.PlainText;

/** What the pages of a channel have in common. */
public final class Page {
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
      .card { margin: 2mm 0; }
      .card td, .card th { font-size: 9pt; padding: 0.9mm 1.5mm; }
      .card .n { white-space: nowrap; }
      .box { border: 0.6pt solid #20282B; padding: 0 1.4mm; }
      """;

  private Page() {}

  /** Everything before the first line of a page. */
  public static String head(String title) {
    return "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"UTF-8\"/><title>%s</title><style>\n%s</style></head><body>\n"
        .formatted(text(title), STYLE);
  }

  /** What can hurt someone at the channel. */
  public static String hazards(Definition d) {
    var out = new StringBuilder();
    d.hazards()
        .forEach(
            h ->
                out.append(
                    "<div class=\"caution\"><b>Caution: %s.</b> %s</div>\n"
                        .formatted(text(h.title()), text(h.caution()))));
    return out.toString();
  }

  /** The same, and that the channel is measured live. */
  public static String cautions(Definition d) {
    return hazards(d)
        + "<div class=\"caution\"><b>Live measurement.</b> One probe at a time, use the ground post."
        + " Local codes, the maker's instructions and licensed practice come first.</div>\n";
  }

  /** Text from the document is text: no markup in it is ever read, and no control character. */
  public static String text(String s) {
    return PlainText.of(s)
        .replaceAll("[\uFFFE\uFFFF]", "\uFFFD")
        .replace("&", "&amp;")
        .replace("<", "&lt;")
        .replace(">", "&gt;")
        .replace("\"", "&quot;");
  }
}
