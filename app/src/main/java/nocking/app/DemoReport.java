package nocking.app;

import java.io.PrintWriter;
import java.util.Locale;
import nocking.analysis.Analysis;
import nocking.analysis.ChannelState;
import nocking.app.control.StateSign;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.finding.Finding;
import nocking.quantity.Numbers;

/** The demo as text, for a machine without a display. */
final class DemoReport {
  private DemoReport() {}

  static void print(Book book, PrintWriter out) {
    for (Channel c : book.channels()) {
      Analysis a = Analysis.of(c);
      out.printf(
          "%s  %s: %s%n", c.tag(), c.definition().name(), StateSign.words(ChannelState.of(a)));
      a.design()
          .path()
          .flatMap(p -> p.numbers(5))
          .ifPresentOrElse(
              e -> out.printf("    equation     %s%n", e),
              () -> out.printf("    equation     none yet%n"));
      out.printf(
          "    worst error  %s%n",
          a.acceptance()
              .worstError()
              .map(e -> Numbers.significant(e, 2) + " " + c.definition().unit())
              .orElse("not measured yet"));
      for (Finding f : a.findings()) {
        out.printf("    %-11s  %s%n", f.severity().name().toLowerCase(Locale.ROOT), f.text());
      }
    }
    out.flush();
  }
}
