package nocking.app.desk;

import java.util.function.Consumer;
import java.util.function.Supplier;

/**
 * Work off the interface thread of which only the latest counts: one piece runs at a time, and of
 * those that were asked for meanwhile only the last is run. All methods belong to the interface
 * thread.
 */
public final class Latest {
  private record Piece<T>(Supplier<T> work, Consumer<T> then) {
    void run(Latest owner) {
      Background.run(
          work,
          result -> {
            if (owner.waiting == null) then.accept(result);
          },
          owner::done);
    }
  }

  private Piece<?> waiting;
  private boolean running;

  /** Runs the work when nothing else of this owner runs, unless newer work comes before. */
  public <T> void run(Supplier<T> work, Consumer<T> then) {
    var piece = new Piece<>(work, then);
    if (running) {
      waiting = piece;
      return;
    }
    running = true;
    piece.run(this);
  }

  private void done() {
    Piece<?> next = waiting;
    waiting = null;
    if (next == null) running = false;
    else next.run(this);
  }
}
