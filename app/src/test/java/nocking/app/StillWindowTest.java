package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.IndexedCell;
import nocking.channel.WorkStep;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** A window in which nothing happens is not laid out and drawn again and again. */
@Tag("campaign")
@Timeout(value = 120, unit = TimeUnit.SECONDS, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class StillWindowTest extends WindowTest {
  private static final int PULSES = 6;

  @Test
  void everyStageComesToRest() {
    openDemo("BL-P1", WorkStep.DEFINE);
    var restless = new ArrayList<String>();
    for (String tag : List.of("BL-P1", "IN-T2", "FD-S1", "AE-V1")) {
      hands.run(() -> desk.select(desk.book().byTag(tag).orElseThrow().id()));
      for (WorkStep step : WorkStep.values()) {
        hands.run(() -> desk.step(step));
        settled();
        for (String n : laidOutAgain()) restless.add(tag + " " + step + ": " + n);
      }
      for (String tab : List.of("tab-diagnose", "tab-practice")) {
        hands.click(tab);
        settled();
        for (String n : laidOutAgain()) restless.add(tag + " " + tab + ": " + n);
      }
    }
    assertThat(restless).isEmpty();
  }

  /** What asks for a new layout in the last of some pulses in which nothing happens. */
  private List<String> laidOutAgain() {
    var asked = new ArrayList<String>();
    Runnable look =
        () -> {
          asked.clear();
          collect(shell.scene().getRoot(), asked);
        };
    hands.run(() -> shell.scene().addPreLayoutPulseListener(look));
    for (int i = 0; i < PULSES; i++) Quiet.await();
    hands.run(() -> shell.scene().removePreLayoutPulseListener(look));
    return asked;
  }

  private static void collect(Node node, List<String> asked) {
    if (!(node instanceof Parent p)) return;
    // Cells that the table keeps for later belong to no row and are not drawn.
    if (p.isNeedsLayout() && !(p instanceof IndexedCell))
      asked.add(p.getTypeSelector() + "#" + p.getId() + p.getStyleClass());
    p.getChildrenUnmodifiable().forEach(n -> collect(n, asked));
  }
}
