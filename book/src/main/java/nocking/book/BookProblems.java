package nocking.book;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import nocking.book.internal.BookSchema;
import nocking.book.internal.Hash;
import nocking.book.internal.SqliteDialect;
import nocking.book.internal.SqliteTrouble;
import nocking.channel.ChannelJson;
import nocking.channel.PracticeResult;
import nocking.parts.StockPart;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.JdbiException;

/**
 * Everything that is wrong with a book: SQLite's own check, documents that cannot be read or do not
 * match the log, revisions whose hash is wrong, runs whose readings do not match what was written
 * down of them, a log whose chain is broken.
 */
final class BookProblems {
  private final Handle handle;
  private final BookLog log;
  private final Shelf shelf;

  BookProblems(Handle handle) {
    this.handle = handle;
    log = new BookLog(handle);
    shelf = new Shelf(handle, "the book");
  }

  /** One sentence for each; empty when the book is sound. */
  List<String> list() {
    try {
      var schema = BookSchema.of(handle, SqliteDialect.version(handle));
      var problems = new ArrayList<>(schema.problems());
      if (!schema.broken().isEmpty()) return problems;
      problems.addAll(SqliteDialect.integrity(handle));
      var lastHash = new HashMap<String, String>();
      log.check(problems, lastHash);
      ofChannels(problems, lastHash);
      ofOrder(problems, lastHash);
      ofRevisions(problems);
      ofShelf(problems, lastHash);
      ofPractice(problems);
      new RunTable(handle, "the book").check(problems, log.documentHashes("run"));
      return problems;
    } catch (JdbiException e) {
      if (SqliteTrouble.ofMachine(e)) throw e;
      return List.of("the tables cannot be read: " + SqliteTrouble.words(e));
    }
  }

  private void ofChannels(List<String> problems, Map<String, String> lastHash) {
    var missing = new LinkedHashSet<>(lastHash.keySet());
    missing.removeAll(BookLog.WHOLE);
    handle
        .createQuery("SELECT id, tag, document FROM channel")
        .map(
            (r, c) -> {
              missing.remove(r.getString(1));
              String tag = r.getString(2);
              String document = r.getString(3);
              if (!Hash.of(document).equals(lastHash.get(r.getString(1)))) {
                problems.add("channel %s was changed outside the log".formatted(tag));
              }
              try {
                ChannelJson.readCompact(document, "channel " + tag);
              } catch (IllegalArgumentException e) {
                problems.add(e.getMessage());
              }
              return tag;
            })
        .list();
    for (String id : missing) {
      problems.add("the channel with the key %s was taken out outside the log".formatted(id));
    }
  }

  /** Books from before the order was logged have no such line until it changes. */
  private void ofOrder(List<String> problems, Map<String, String> lastHash) {
    String known = lastHash.get(BookLog.ORDER);
    if (known != null && !known.equals(log.hashOfOrder())) {
      problems.add("the order of the channels was changed outside the log");
    }
  }

  private void ofRevisions(List<String> problems) {
    handle
        .createQuery(
            """
            SELECT text FROM log WHERE kind = 'revision' AND NOT EXISTS (
              SELECT 1 FROM revision r WHERE r.channel_id = log.channel_id
              AND log.text LIKE r.number || ' %')
            """)
        .mapTo(String.class)
        .forEach(t -> problems.add("revision %s was taken out".formatted(t)));
    handle
        .createQuery("SELECT channel_id, number, name, made_at, document, hash FROM revision")
        .map(
            (r, c) -> {
              String hash =
                  Revision.hash(
                      r.getString(1), r.getInt(2), r.getString(3), r.getString(4), r.getString(5));
              if (!hash.equals(r.getString(6))) {
                problems.add(
                    "revision %d \"%s\" was changed".formatted(r.getInt(2), r.getString(3)));
              }
              return hash;
            })
        .list();
  }

  private void ofShelf(List<String> problems, Map<String, String> lastHash) {
    List<String> documents = shelf.cardDocuments();
    if (!documents.isEmpty()
        && !Hash.of(documents.toArray(String[]::new)).equals(lastHash.get("cards"))) {
      problems.add("the sensor cards were changed outside the log");
    }
    List<String> instruments = shelf.instrumentDocuments();
    if (!instruments.isEmpty()
        && !Hash.of(instruments.toArray(String[]::new)).equals(lastHash.get("instruments"))) {
      problems.add("the instruments were changed outside the log");
    }
    List<String> shapes = shelf.shapeDocuments();
    if (!shapes.isEmpty()
        && !Hash.of(shapes.toArray(String[]::new)).equals(lastHash.get("shapes"))) {
      problems.add("the receivers' shapes were changed outside the log");
    }
    List<StockPart> stock = shelf.stock();
    if (!stock.isEmpty() && !ShelfHash.matches(stock, lastHash.get("stock"))) {
      problems.add("the drawer was changed outside the log");
    }
    List<String> weights = shelf.weighingDocuments();
    String known = lastHash.get("weighing");
    if (weights.size() != (known == null ? 0 : 1)
        || weights.stream().anyMatch(d -> !Hash.of(d).equals(known))) {
      problems.add("the meter or the weights of faults were changed outside the log");
    }
  }

  private void ofPractice(List<String> problems) {
    List<PracticeResult> kept = shelf.practice();
    List<String> logged = log.documentHashes("practice");
    boolean same = kept.size() == logged.size();
    for (int i = 0; same && i < kept.size(); i++) {
      same = ShelfHash.matches(kept.get(i), logged.get(i));
    }
    if (!same) {
      problems.add("results of practice were changed outside the log");
    }
  }
}
