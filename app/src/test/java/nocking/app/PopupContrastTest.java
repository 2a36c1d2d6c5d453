package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.MenuButton;
import javafx.scene.control.Tooltip;
import javafx.stage.PopupWindow;
import javafx.stage.Window;
import nocking.channel.WorkStep;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * Every menu and list that opens over the window can be read: contrast as in WCAG 2.2, success
 * criterion 1.4.3, level AA.
 */
@Tag("campaign")
@Timeout(value = 180, unit = TimeUnit.SECONDS, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class PopupContrastTest extends WindowTest {
  private static final double LEAST = 4.5;

  private final Set<String> pale = new LinkedHashSet<>();
  private final Set<String> opened = new LinkedHashSet<>();
  private int texts;

  @ParameterizedTest
  @ValueSource(booleans = {false, true})
  void everyMenuAndListCanBeRead(boolean dark) {
    openDemo("RW-T1", WorkStep.DEFINE);
    hands.run(() -> desk.dark(dark));
    for (WorkStep step : WorkStep.values()) {
      hands.run(() -> desk.step(step));
      settled();
      openAll(step.name());
    }
    hands.click("tab-diagnose");
    settled();
    openAll("Diagnose");
    assertThat(opened).as("what was opened").hasSizeGreaterThan(12);
    assertThat(texts).as("texts that were measured").isGreaterThan(100);
    assertThat(pale).isEmpty();
  }

  private void openAll(String where) {
    var owners = new ArrayList<Node>();
    hands.run(() -> collect(shell.scene().getRoot(), owners));
    for (Node n : owners) {
      String name =
          n instanceof MenuButton m ? m.getText() + n.getId() : n.getTypeSelector() + n.getId();
      if (!opened.add(name)) continue;
      // A list that hangs on a box out of sight would lie beside the screen.
      hands.reach(n);
      hands.run(() -> show(n));
      hands.run(() -> measureAll(where + " " + name));
      hands.run(() -> hide(n));
    }
  }

  /** What opens something over the window: lists, menus, the plus between two stages. */
  private static void collect(Node n, List<Node> owners) {
    if (!n.isVisible()) return;
    boolean insert = n instanceof Button b && b.getStyleClass().contains("insert");
    boolean owner = n instanceof ComboBoxBase<?> || n instanceof MenuButton || insert;
    if (owner && !n.isDisabled()) owners.add(n);
    if (n instanceof Parent p) p.getChildrenUnmodifiable().forEach(c -> collect(c, owners));
  }

  private static void show(Node n) {
    if (n instanceof ComboBoxBase<?> c) c.show();
    else if (n instanceof MenuButton m) m.show();
    else ((Button) n).fire();
    Object tip = n.getProperties().get("javafx.scene.control.Tooltip");
    if (tip instanceof Tooltip t) t.show(n, 0, 0);
  }

  private static void hide(Node n) {
    if (n instanceof ComboBoxBase<?> c) c.hide();
    else if (n instanceof MenuButton m) m.hide();
    for (Window w : List.copyOf(Window.getWindows())) if (w instanceof PopupWindow p) p.hide();
  }

  private void measureAll(String where) {
    for (Window w : List.copyOf(Window.getWindows())) {
      if (w instanceof PopupWindow) measure(w.getScene().getRoot(), where);
    }
  }

  private void measure(Node root, String where) {
    for (Contrast.Measured m : Contrast.of(root)) {
      texts++;
      if (m.contrast() < LEAST) pale.add("%s: '%s' %.2f".formatted(where, m.text(), m.contrast()));
    }
  }
}
