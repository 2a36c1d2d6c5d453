package nocking.book;

import java.time.DateTimeException;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import nocking.book.internal.Hash;
import org.jdbi.v3.core.Handle;

/**
 * The chained log: each line carries a hash of itself and of the line before, so that a line that
 * is changed or taken out later shows.
 */
final class BookLog {
  /** Kind of a line that holds the order of the channels. */
  static final String ORDER = "order";

  /** Kinds of lines about what a book has as a whole. */
  static final Set<String> WHOLE =
      Set.of("cards", "stock", "weighing", "instruments", "shapes", ORDER);

  private static final String CHAIN_START = "bench book";

  /** A line by which two states of a book are compared. */
  record Line(long number, String hash) {}

  private final Handle handle;

  BookLog(Handle handle) {
    this.handle = handle;
  }

  /** The line that was written last. */
  Optional<Line> last() {
    return handle
        .createQuery("SELECT number, hash FROM log ORDER BY number DESC LIMIT 1")
        .map((r, c) -> new Line(r.getLong(1), r.getString(2)))
        .findOne();
  }

  /** True when the log has this very line. */
  boolean has(Line line) {
    return handle
            .createQuery("SELECT COUNT(*) FROM log WHERE number = ? AND hash = ?")
            .bind(0, line.number())
            .bind(1, line.hash())
            .mapTo(Integer.class)
            .one()
        == 1;
  }

  void append(Instant now, String kind, String channelId, String text, String documentHash) {
    Line last = last().orElse(new Line(0, CHAIN_START));
    long number = last.number + 1;
    String at = now.toString();
    handle.execute(
        """
        INSERT INTO log (number, made_at, kind, channel_id, text, document_hash, hash)
        VALUES (?, ?, ?, ?, ?, ?, ?)
        """,
        number,
        at,
        kind,
        channelId,
        text,
        documentHash,
        Hash.of(last.hash, String.valueOf(number), at, kind, channelId, text, documentHash));
  }

  /** The newest lines about a channel, the newest first. */
  List<LogEntry> entries(String channelId, int most) {
    return handle
        .createQuery(
            """
            SELECT number, made_at, kind, channel_id, text FROM log
            WHERE channel_id = ? ORDER BY number DESC LIMIT ?
            """)
        .bind(0, channelId)
        .bind(1, most)
        .map(
            (r, c) ->
                new LogEntry(
                    r.getLong(1),
                    time(r.getString(2)),
                    r.getString(3),
                    r.getString(4),
                    r.getString(5)))
        .list();
  }

  /** A time as it was written; the epoch where someone else wrote what is none. */
  static Instant time(String written) {
    try {
      return Instant.parse(written);
    } catch (DateTimeException e) {
      return Instant.EPOCH;
    }
  }

  /** Hash of the channels' keys in their order. */
  String hashOfOrder() {
    return Hash.of(
        handle
            .createQuery("SELECT id FROM channel ORDER BY place, id")
            .mapTo(String.class)
            .list()
            .toArray(String[]::new));
  }

  /** Hashes of all lines of one kind, in their order. */
  List<String> documentHashes(String kind) {
    return handle
        .createQuery("SELECT document_hash FROM log WHERE kind = ? ORDER BY number")
        .bind(0, kind)
        .mapTo(String.class)
        .list();
  }

  /**
   * Adds what is wrong with the chain.
   *
   * @param lastHash takes the newest hash of each channel that is still there by its id, and of the
   *     cards, the drawer, the instruments, the weights and the order by their kind
   */
  void check(List<String> problems, Map<String, String> lastHash) {
    String[] before = {CHAIN_START};
    long[] expected = {1};
    handle
        .createQuery(
            "SELECT number, made_at, kind, channel_id, text, document_hash, hash FROM log ORDER BY number")
        .map(
            (r, c) -> {
              long number = r.getLong(1);
              if (number != expected[0]) {
                problems.add("log: line %d is missing".formatted(expected[0]));
              }
              String kind = r.getString(3);
              String hash =
                  Hash.of(
                      before[0],
                      String.valueOf(number),
                      r.getString(2),
                      kind,
                      r.getString(4),
                      r.getString(5),
                      r.getString(6));
              if (!hash.equals(r.getString(7))) {
                problems.add("log: line %d does not follow from the line before".formatted(number));
              }
              before[0] = r.getString(7);
              expected[0] = number + 1;
              if (kind.equals("edit")) lastHash.put(r.getString(4), r.getString(6));
              if (kind.equals("remove")) lastHash.remove(r.getString(4));
              if (WHOLE.contains(kind)) lastHash.put(kind, r.getString(6));
              return number;
            })
        .list();
  }
}
