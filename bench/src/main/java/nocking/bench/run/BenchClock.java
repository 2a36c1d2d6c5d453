package nocking.bench.run;

import java.time.Clock;

/** Time on the bench: the wall clock's, or that of a simulated one. */
public interface BenchClock {
  /** Milliseconds since 1970. */
  long now();

  /** Lets time go by. */
  void pause(long milliseconds) throws InterruptedException;

  /** True where a pause takes no real time: hands are not that fast. */
  default boolean atOnce() {
    return false;
  }

  /**
   * The wall clock, or one that runs faster.
   *
   * @param speed bench seconds in a second, above 0
   */
  static BenchClock of(Clock clock, double speed) {
    long start = clock.millis();
    long zero = System.nanoTime();
    return new BenchClock() {
      @Override
      public long now() {
        return start + (long) ((System.nanoTime() - zero) * 1e-6 * speed);
      }

      @Override
      public void pause(long milliseconds) throws InterruptedException {
        // A bench that runs faster still waits a little for each answer.
        Thread.sleep((long) Math.ceil(milliseconds / speed));
      }
    };
  }
}
