package nocking.run;

/**
 * The readings since an approach began, as means of blocks of equally many. When there are too many
 * blocks, each two become one: memory does not grow with the readings, and none is left out.
 */
final class Trace {
  private static final int MOST = 96;

  private final double[] first = new double[MOST];
  private final double[] last = new double[MOST];
  private final double[] sum = new double[MOST];
  private final int[] count = new int[MOST];
  private int size;
  private int each = 1;
  private double origin;

  void take(double t, double y) {
    if (size == 0) origin = y;
    if (size == 0 || count[size - 1] >= each) {
      if (size == MOST) halve();
      if (size == 0 || count[size - 1] >= each) {
        first[size] = t;
        sum[size] = 0;
        count[size] = 0;
        size++;
      }
    }
    int k = size - 1;
    last[k] = t;
    sum[k] += y - origin;
    count[k]++;
  }

  private void halve() {
    for (int i = 0; i < MOST / 2; i++) {
      first[i] = first[2 * i];
      last[i] = last[2 * i + 1];
      sum[i] = sum[2 * i] + sum[2 * i + 1];
      count[i] = count[2 * i] + count[2 * i + 1];
    }
    size = MOST / 2;
    each *= 2;
  }

  void forget() {
    size = 0;
    each = 1;
  }

  int size() {
    return size;
  }

  /** Readings in a block and all behind it. */
  int readings(int from) {
    int n = 0;
    for (int i = from; i < size; i++) n += count[i];
    return n;
  }

  double from(int block) {
    return first[block];
  }

  double to(int block) {
    return last[block];
  }

  double middle(int block) {
    return (first[block] + last[block]) / 2;
  }

  int count(int block) {
    return count[block];
  }

  double mean(int block) {
    return origin + sum[block] / count[block];
  }

  /** Block at or behind a time; the last one for a time behind all. */
  int at(double t) {
    int i = 0;
    while (i < size - 1 && first[i] < t) i++;
    return i;
  }

  /**
   * The newest seconds of a trace.
   *
   * @param slope movement in a second by the least-squares line
   * @param deviation standard deviation about the mean
   */
  record Recent(double seconds, double slope, double deviation) {}

  /** What the newest blocks do, over some seconds at most; of two blocks or more. */
  Recent recent(double seconds) {
    int begin = Math.min(at(last[size - 1] - seconds), size - 2);
    double n = readings(begin);
    double meanT = 0;
    double meanY = 0;
    for (int i = begin; i < size; i++) {
      meanT += count[i] * middle(i) / n;
      meanY += sum[i] / n;
    }
    double tt = 0;
    double ty = 0;
    double yy = 0;
    for (int i = begin; i < size; i++) {
      double t = middle(i) - meanT;
      double y = sum[i] / count[i] - meanY;
      tt += count[i] * t * t;
      ty += count[i] * t * y;
      yy += count[i] * y * y;
    }
    return new Recent(last[size - 1] - first[begin], ty / tt, Math.sqrt(yy / (n - 1)));
  }

  /**
   * Mean over a block of what falls by e in each time constant, from 1 at a time.
   *
   * @param zero when it was 1
   */
  double decay(int block, double zero, double lag) {
    double begin = Math.exp(-(first[block] - zero) / lag);
    int n = count[block];
    if (n == 1) return begin;
    double gap = (last[block] - first[block]) / (n - 1) / lag;
    return begin * Math.expm1(-n * gap) / (n * Math.expm1(-gap));
  }

  /** Mean over a block of a swing. */
  double swing(int block, double zero, double period, boolean sine) {
    int n = count[block];
    double phase = 2 * Math.PI * (middle(block) - zero) / period;
    double value = sine ? Math.sin(phase) : Math.cos(phase);
    if (n == 1) return value;
    double half = Math.PI * (last[block] - first[block]) / (n - 1) / period;
    double s = Math.sin(half);
    return Math.abs(s) < 1e-9 ? value : value * Math.sin(n * half) / (n * s);
  }
}
