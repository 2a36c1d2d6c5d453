package nocking.app.desk;

import nocking.run.Sweep;

/**
 * The newest readings of a run, for the picture of how they settle. Written by the thread of the
 * run, read by the interface thread.
 */
public final class RunTrace {
  /** As many as a picture has columns, and some. */
  private static final int MOST = 1200;

  private final double[] times = new double[MOST];
  private final double[][] values;
  private int first;
  private int size;

  /** Readings of one channel in their order: seconds before the newest, and what was read. */
  public record Course(double[] seconds, double[] values) {}

  RunTrace(int channels) {
    values = new double[channels][MOST];
  }

  synchronized void take(Sweep s) {
    int at = (first + size) % MOST;
    if (size > 0 && times[(first + size - 1) % MOST] >= s.at() * 1e-3) return;
    times[at] = s.at() * 1e-3;
    for (int i = 0; i < values.length; i++) values[i][at] = s.raw().get(i);
    if (size < MOST) size++;
    else first = (first + 1) % MOST;
  }

  /**
   * @param window seconds before the newest that are asked for
   */
  public synchronized Course of(int channel, double window) {
    int from = 0;
    double last = size == 0 ? 0 : times[(first + size - 1) % MOST];
    while (from < size && last - times[(first + from) % MOST] > window) from++;
    double[] t = new double[size - from];
    double[] y = new double[size - from];
    for (int i = 0; i < t.length; i++) {
      int k = (first + from + i) % MOST;
      t[i] = times[k] - last;
      y[i] = values[channel][k];
    }
    return new Course(t, y);
  }
}
