package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import nocking.app.desk.Latest;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.testfx.api.FxToolkit;

@Timeout(value = 60, unit = TimeUnit.SECONDS, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class LatestTest {
  private final List<String> shown = new ArrayList<>();
  private final CountDownLatch gate = new CountDownLatch(1);

  @BeforeAll
  static void toolkit() throws Exception {
    FxToolkit.registerPrimaryStage();
  }

  private static void onInterface(Consumer<Latest> ask, Latest latest) {
    Hands.ask(
        () -> {
          ask.accept(latest);
          return null;
        });
  }

  private String waits(String result) {
    try {
      gate.await();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    return result;
  }

  /** While one piece is under way only the last of those that were asked for is of interest. */
  @Test
  void whatIsOutOfDateIsNeitherRunNorShown() {
    var latest = new Latest();
    onInterface(
        l -> {
          l.run(() -> waits("first"), shown::add);
          l.run(() -> "second", shown::add);
          l.run(() -> "third", shown::add);
        },
        latest);
    gate.countDown();
    Hands.settle();
    assertThat(shown).containsExactly("third");
  }

  /** Work that fails is in the program's log, and does not stop what comes after it. */
  @Test
  void failureDoesNotStopWhatComesAfter() {
    var latest = new Latest();
    onInterface(
        l -> {
          l.run(
              () -> {
                throw new IllegalStateException(waits("the work of this test fails"));
              },
              r -> shown.add("never"));
          l.run(() -> "next", shown::add);
        },
        latest);
    gate.countDown();
    Hands.settle();
    onInterface(l -> l.run(() -> "and the one after", shown::add), latest);
    Hands.settle();
    assertThat(shown).containsExactly("next", "and the one after");
  }
}
