package nocking.parts;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import nocking.quantity.QuantityException;

/** The resistors that a search may use, in rising order. */
public final class Assortment {
  /** Share by which two numbers of one value may differ by rounding. */
  private static final double SAME = 1e-9;

  private final StockPart[] parts;
  private final double[] ohms;
  private final boolean stock;

  private Assortment(List<StockPart> parts, boolean stock) {
    this.parts =
        parts.stream()
            .filter(p -> p.quantity() > 0)
            .sorted(Comparator.comparingDouble(StockPart::ohms))
            .toArray(StockPart[]::new);
    this.stock = stock;
    ohms = Arrays.stream(this.parts).mapToDouble(StockPart::ohms).toArray();
  }

  /**
   * Values of a preferred series, as many of each as are wanted.
   *
   * @param tolerance percent
   */
  public static Assortment of(PreferredSeries series, double low, double high, double tolerance) {
    List<StockPart> list =
        Arrays.stream(series.between(low, high))
            .mapToObj(v -> new StockPart("", v, tolerance, 0, 0, Integer.MAX_VALUE))
            .toList();
    return new Assortment(list, false);
  }

  /** A preferred series from 10 Ω to 10 MΩ with its usual tolerance. */
  public static Assortment of(PreferredSeries series) {
    return of(series, 10, 10e6, series.usualTolerance());
  }

  /**
   * The technician's own drawer.
   *
   * @throws QuantityException when nothing is in it
   */
  public static Assortment of(List<StockPart> stock) {
    var a = new Assortment(stock, true);
    if (a.size() == 0) throw new QuantityException("the drawer is empty");
    return a;
  }

  /** True where a drawer holds all of some parts, each as often as it is used. */
  public static boolean holds(List<StockPart> drawer, List<StockPart> used) {
    for (StockPart p : used) {
      long needed = used.stream().filter(o -> o.ohms() == p.ohms()).count();
      long there =
          drawer.stream().filter(o -> o.ohms() == p.ohms()).mapToLong(StockPart::quantity).sum();
      if (there < needed) return false;
    }
    return !used.isEmpty();
  }

  /** What is left when one part is taken; a series is never used up, a drawer may become empty. */
  Assortment without(int taken) {
    if (!stock) return this;
    var left = new ArrayList<>(List.of(parts));
    left.set(taken, parts[taken].withQuantity(parts[taken].quantity() - 1));
    return new Assortment(left, true);
  }

  /** True for the drawer, false for a series. */
  public boolean isStock() {
    return stock;
  }

  public int size() {
    return ohms.length;
  }

  public double ohms(int i) {
    return ohms[i];
  }

  public StockPart part(int i) {
    return parts[i];
  }

  /** Index of the first value that is at least {@code wanted}; the size when there is none. */
  int atLeast(double wanted) {
    int i = Arrays.binarySearch(ohms, wanted);
    if (i < 0) return -i - 1;
    while (i > 0 && ohms[i - 1] == wanted) i--;
    return i;
  }

  /** True where a value is among them. */
  public boolean has(double ohms) {
    int i = atLeast(ohms * (1 - SAME));
    return i < size() && this.ohms[i] <= ohms * (1 + SAME);
  }

  /** True when there are enough of two parts. */
  boolean enough(int a, int b) {
    return !stock || a != b || parts[a].quantity() > 1;
  }

  /** True when there are enough of each of the parts named by index. */
  boolean enough(int... used) {
    if (!stock) return true;
    for (int i = 0; i < used.length; i++) {
      int count = 0;
      for (int other : used) if (other == used[i]) count++;
      if (count > parts[used[i]].quantity()) return false;
    }
    return true;
  }
}
