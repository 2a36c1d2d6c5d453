package nocking.view;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Supplier;

/** Works parts out; one that nobody can work out is noted and does not take the others with it. */
public final class Workings {
  private final List<Trouble> troubles = new CopyOnWriteArrayList<>();

  /** A part that is worked out when it is first asked for. */
  <T> Lazy<T> once(String part, Supplier<T> work, T otherwise) {
    return new Lazy<>(() -> guarded(part, work, otherwise));
  }

  /** What the work gives, or something else where it fails in a way that nobody foresaw. */
  public <T> T guarded(String part, Supplier<T> work, T otherwise) {
    try {
      return work.get();
    } catch (RuntimeException e) {
      note(new Trouble(part, e));
      return otherwise;
    }
  }

  /** The probe asks for the same part again and again: it is noted once. */
  void note(Trouble trouble) {
    if (troubles.stream().noneMatch(t -> t.part().equals(trouble.part()))) troubles.add(trouble);
  }

  /** What could not be worked out although it should have been, as far as it was asked for. */
  public List<Trouble> troubles() {
    return List.copyOf(troubles);
  }
}
