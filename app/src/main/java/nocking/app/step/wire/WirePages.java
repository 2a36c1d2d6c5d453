package nocking.app.step.wire;

import java.nio.charset.StandardCharsets;
import java.util.function.Supplier;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import nocking.analysis.Analysis;
import nocking.app.desk.Desk;
import nocking.app.step.Exports;
import nocking.report.PdfPages;
import nocking.report.wiring.FaultCardPage;
import nocking.report.wiring.WirePlanPage;

/** The pages that go from the wire plan to the machine, and the menu that writes them. */
final class WirePages {
  private final Desk desk;
  private final Exports exports;

  WirePages(Desk desk, Exports exports) {
    this.desk = desk;
    this.exports = exports;
  }

  /** What can be written. */
  MenuButton menu() {
    var menu = new MenuButton("Sheet");
    menu.setId("wire-sheet");
    menu.getStyleClass().add("tiny");
    menu.getItems()
        .setAll(
            item("Wire sheet as HTML…", "wire-html", () -> wires(false)),
            item("Wire sheet as PDF…", "wire-pdf", () -> wires(true)),
            new SeparatorMenuItem(),
            item("Fault card as HTML…", "wire-card-html", () -> faults(false)),
            item("Fault card as PDF…", "wire-card-pdf", () -> faults(true)));
    return menu;
  }

  private static MenuItem item(String title, String id, Runnable action) {
    var item = new MenuItem(title);
    item.setId(id);
    item.setOnAction(e -> action.run());
    return item;
  }

  private void wires(boolean pdf) {
    Analysis a = desk.analysis();
    write("Wire sheet", a, "wires", pdf, () -> WirePlanPage.html(a));
  }

  private void faults(boolean pdf) {
    Analysis a = desk.analysis();
    if (a.design().path().isEmpty()) {
      desk.say("Define the sensor first: every fault is worked out from the path.", true);
      return;
    }
    write("Fault card", a, "faults", pdf, () -> FaultCardPage.html(a).orElseThrow());
  }

  /** Some hundreds of circuits are solved for a page: off the interface thread. */
  private void write(String kind, Analysis a, String what, boolean pdf, Supplier<String> page) {
    String ending = pdf ? ".pdf" : ".html";
    String name = a.channel().tag().replaceAll("[^A-Za-z0-9-]", "_") + "-" + what + ending;
    exports.writeBytes(
        kind,
        name,
        ending,
        () -> pdf ? PdfPages.of(page.get()) : page.get().getBytes(StandardCharsets.UTF_8));
  }
}
