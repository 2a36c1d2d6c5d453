package nocking.table;

import java.util.Arrays;

/**
 * What a table leaves.
 *
 * @param worst largest |error| in the quantity
 * @param worstAt raw value where it stands
 * @param rms over all places looked at
 * @param raw where the error was looked at, rising
 * @param errors table − truth there
 */
public record TableError(double worst, double worstAt, double rms, double[] raw, double[] errors) {

  /** Gathers errors one by one. */
  static final class Collector {
    private double[] raw = new double[256];
    private double[] errors = new double[256];
    private int n;

    void add(double at, double error) {
      if (n == raw.length) {
        raw = Arrays.copyOf(raw, 2 * n);
        errors = Arrays.copyOf(errors, 2 * n);
      }
      raw[n] = at;
      errors[n++] = error;
    }

    TableError result() {
      int worst = 0;
      double squares = 0;
      for (int i = 0; i < n; i++) {
        squares += errors[i] * errors[i];
        if (Math.abs(errors[i]) > Math.abs(errors[worst])) worst = i;
      }
      return new TableError(
          Math.abs(errors[worst]),
          raw[worst],
          Math.sqrt(squares / n),
          Arrays.copyOf(raw, n),
          Arrays.copyOf(errors, n));
    }
  }
}
