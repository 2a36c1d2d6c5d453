package nocking.book;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import nocking.book.internal.Hash;
import nocking.channel.PracticeResult;
import nocking.parts.StockPart;

/**
 * Hashes of the drawer and of results of practice, over the columns as they are stored and in their
 * order, each as a text that is closed by a zero byte: words as they are, whole numbers in decimal,
 * other numbers as the shortest decimal that gives the same double (what {@code Double.toString}
 * writes).
 *
 * <p>Up to version 3 of the tables the hash was over another form, which is kept here word for word
 * so that older books verify.
 */
final class ShelfHash {
  private ShelfHash() {}

  static String of(List<StockPart> stock) {
    var columns = new ArrayList<String>();
    for (StockPart p : stock) {
      columns.add(p.name());
      columns.add(Double.toString(p.ohms()));
      columns.add(Double.toString(p.tolerance()));
      columns.add(Double.toString(p.watts()));
      columns.add(Double.toString(p.volts()));
      columns.add(Integer.toString(p.quantity()));
    }
    return Hash.of(columns.toArray(String[]::new));
  }

  /** Rounds from before their effort was counted have the hash that they had. */
  static String of(PracticeResult p) {
    var columns = new ArrayList<String>();
    columns.add(p.learner());
    columns.add(p.channel());
    columns.add(p.difficulty());
    columns.add(p.hidden());
    columns.add(p.named());
    columns.add(p.right() ? "1" : "0");
    columns.add(Integer.toString(p.measurements()));
    columns.add(Integer.toString(p.planned()));
    columns.add(p.date());
    p.effort()
        .ifPresent(
            e -> {
              columns.add(Integer.toString(e.seconds()));
              columns.add(Integer.toString(e.live()));
              columns.add(Integer.toString(e.livePlanned()));
            });
    return Hash.of(columns.toArray(String[]::new));
  }

  /** True where a drawer is what a line of the log says, in the present form or the former one. */
  static boolean matches(List<StockPart> stock, String hash) {
    return of(stock).equals(hash) || former(stock).equals(hash);
  }

  static boolean matches(PracticeResult p, String hash) {
    return of(p).equals(hash) || former(p).equals(hash);
  }

  static String former(List<StockPart> stock) {
    return Hash.of(
        stock.stream()
            .map(
                p ->
                    "StockPart[name=%s, ohms=%s, tolerance=%s, watts=%s, volts=%s, quantity=%s]"
                        .formatted(
                            p.name(), p.ohms(), p.tolerance(), p.watts(), p.volts(), p.quantity()))
            .collect(Collectors.joining(", ", "[", "]")));
  }

  static String former(PracticeResult p) {
    return Hash.of(
        ("PracticeResult[learner=%s, channel=%s, difficulty=%s, hidden=%s, named=%s, right=%s,"
                + " measurements=%s, planned=%s, date=%s]")
            .formatted(
                p.learner(),
                p.channel(),
                p.difficulty(),
                p.hidden(),
                p.named(),
                p.right(),
                p.measurements(),
                p.planned(),
                p.date()));
  }
}
