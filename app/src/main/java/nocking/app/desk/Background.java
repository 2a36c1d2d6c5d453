package nocking.app.desk;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.application.Platform;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Work off the interface thread whose result comes back to it. */
public final class Background {
  private static final Logger LOG = LoggerFactory.getLogger(Background.class);
  private static final AtomicInteger PENDING = new AtomicInteger();
  private static final ExecutorService WORKERS =
      Executors.newFixedThreadPool(
          2, r -> Thread.ofPlatform().daemon().name("background").unstarted(r));

  private Background() {}

  /** Runs {@code work} elsewhere, then {@code then} on the interface thread. */
  public static <T> void run(Supplier<T> work, Consumer<T> then) {
    run(work, then, () -> {});
  }

  /**
   * The same, and then {@code after} on the interface thread, whether the work went well or not.
   */
  public static <T> void run(Supplier<T> work, Consumer<T> then, Runnable after) {
    PENDING.incrementAndGet();
    WORKERS.execute(
        () -> {
          Runnable end = () -> {};
          try {
            T result = work.get();
            end = () -> then.accept(result);
          } catch (RuntimeException e) {
            LOG.error("background work failed", e);
            // Whoever listens to the interface thread hears of it: the window says it, a test
            // fails.
            end =
                () -> {
                  throw e;
                };
          } finally {
            finish(end, after);
          }
        });
  }

  private static void finish(Runnable end, Runnable after) {
    Platform.runLater(
        () -> {
          PENDING.decrementAndGet();
          try {
            end.run();
          } finally {
            after.run();
          }
        });
  }

  /** True when nothing is under way; pictures and tests wait for it. */
  public static boolean idle() {
    return PENDING.get() == 0;
  }
}
