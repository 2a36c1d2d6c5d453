package nocking.app.desk;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;
import nocking.channel.Book;

/** Former documents, for undo and redo. Documents share what did not change, so this is cheap. */
final class History {
  private static final int MOST = 500;

  /** A document with the channel that was selected in it. */
  record State(Book book, String selected) {}

  /** A way back or forth. */
  record Step(State state, String what) {}

  private final Deque<Step> past = new ArrayDeque<>();
  private final Deque<Step> future = new ArrayDeque<>();
  private String openKey = "";

  void push(State before, String what, String key) {
    future.clear();
    boolean continues = !key.isEmpty() && key.equals(openKey) && !past.isEmpty();
    openKey = key;
    if (continues) return;
    past.push(new Step(before, what));
    if (past.size() > MOST) past.removeLast();
  }

  void seal() {
    openKey = "";
  }

  void clear() {
    past.clear();
    future.clear();
    seal();
  }

  Optional<Step> undo(State now) {
    return move(past, future, now);
  }

  Optional<Step> redo(State now) {
    return move(future, past, now);
  }

  private Optional<Step> move(Deque<Step> from, Deque<Step> to, State now) {
    seal();
    if (from.isEmpty()) return Optional.empty();
    Step step = from.pop();
    to.push(new Step(now, step.what));
    return Optional.of(step);
  }

  Optional<String> undoable() {
    return Optional.ofNullable(past.peek()).map(Step::what);
  }

  Optional<String> redoable() {
    return Optional.ofNullable(future.peek()).map(Step::what);
  }
}
