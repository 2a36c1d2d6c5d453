package nocking.view;

import java.util.Optional;
import java.util.function.Supplier;

/** A part that is worked out when it is first asked for, and kept. Safe for several threads. */
final class Lazy<T> {
  private final Supplier<T> make;
  private volatile T value;

  Lazy(Supplier<T> make) {
    this.make = make;
  }

  /** The part where it is worked out already. */
  Optional<T> ifKnown() {
    return Optional.ofNullable(value);
  }

  T get() {
    T v = value;
    if (v == null) {
      synchronized (this) {
        v = value;
        if (v == null) value = v = make.get();
      }
    }
    return v;
  }
}
