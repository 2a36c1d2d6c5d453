package nocking.app;

import java.util.concurrent.CountDownLatch;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import nocking.app.desk.Background;

/** Waits until the window has nothing more to do; pictures and tests begin only then. */
final class Quiet {
  private static final int PULSES = 3;

  private Quiet() {}

  /** Returns after three pulses in a row without background work. Not for the interface thread. */
  static void await() {
    for (int quiet = 0; quiet < PULSES; ) {
      pulse();
      quiet = Background.idle() ? quiet + 1 : 0;
    }
  }

  private static void pulse() {
    var done = new CountDownLatch(1);
    Platform.runLater(
        () ->
            new AnimationTimer() {
              @Override
              public void handle(long now) {
                stop();
                done.countDown();
              }
            }.start());
    await(done);
  }

  static void await(CountDownLatch latch) {
    try {
      latch.await();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException("interrupted while waiting for the window", e);
    }
  }
}
