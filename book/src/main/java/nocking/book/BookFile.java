package nocking.book;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import nocking.book.BookException.Cause;
import nocking.book.internal.BookLock;
import nocking.book.internal.Hash;
import nocking.book.internal.Migrations;
import nocking.book.internal.SqliteDialect;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.PracticeResult;
import nocking.channel.SensorCard;
import nocking.parts.StockPart;
import nocking.weighing.Weighing;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.JdbiException;

/**
 * An open bench book. Every change is one transaction that is on disk when the method returns; a
 * change is the new document of a channel and a line of the chained log, together or not at all.
 * Safe for several threads.
 */
public final class BookFile implements AutoCloseable {
  /** Ending of a bench book's name. */
  public static final String ENDING = ".nocking";

  private static final byte[] SQLITE = "SQLite format 3\0".getBytes(StandardCharsets.US_ASCII);

  /** First version of the schema that has cards and stock. */
  private static final int WITH_SHELF = 2;

  /** First version of the schema that has results of practice and what a bench weighs by. */
  private static final int WITH_PRACTICE = 3;

  /** Kinds of log lines about what a book has as a whole. */
  private static final Set<String> WHOLE = Set.of("cards", "stock", "weighing");

  private static final String CHAIN_START = "bench book";

  private final Path path;
  private final List<String> setAside = new ArrayList<>();
  private final Set<String> unreadableCards = new HashSet<>();
  private final Handle handle;
  private final Optional<BookLock> lock;
  private final Clock clock;
  private final String readOnlyBecause;

  private BookFile(
      Path path, Handle handle, Optional<BookLock> lock, Clock clock, String readOnlyBecause) {
    this.path = path;
    this.handle = handle;
    this.lock = lock;
    this.clock = clock;
    this.readOnlyBecause = readOnlyBecause;
  }

  /**
   * Opens a book for writing, or makes a new one where there is no file. A book that someone else
   * has open, that a newer Nocking wrote, or that cannot be written is opened read-only, and {@link
   * #readOnlyBecause} says why.
   *
   * @throws BookException when it is no bench book, or cannot be made there
   */
  public static BookFile open(Path path, Clock clock) {
    boolean exists = Files.exists(path);
    if (exists) requireBook(path);
    Optional<BookLock> lock;
    try {
      lock = BookLock.take(path);
    } catch (IOException e) {
      if (exists) return readOnly(path, clock, "its folder cannot be written");
      throw new BookException(
          Cause.OUTSIDE,
          "%s cannot be made: its folder does not exist or cannot be written".formatted(path),
          e);
    }
    if (lock.isEmpty()) return readOnly(path, clock, "another window has it open");
    if (exists && !Files.isWritable(path)) {
      lock.get().close();
      return readOnly(path, clock, "the file cannot be written");
    }
    try {
      return openLocked(path, clock, lock, exists);
    } catch (JdbiException e) {
      lock.get().close();
      throw unreadable(path, e);
    } catch (BookException e) {
      lock.get().close();
      throw e;
    }
  }

  private static BookFile openLocked(
      Path path, Clock clock, Optional<BookLock> lock, boolean exists) {
    if (exists) {
      int version = versionOf(path);
      if (version > Migrations.CURRENT) {
        lock.get().close();
        return readOnly(path, clock, newer(version));
      }
      if (version < Migrations.CURRENT) Migrations.run(path);
    } else {
      Migrations.run(path);
    }
    Handle handle = SqliteDialect.open(path);
    SqliteDialect.stamp(handle, Migrations.CURRENT);
    return new BookFile(path, handle, lock, clock, "");
  }

  private static String newer(int version) {
    return "a newer Nocking wrote it (book version %d, this one writes %d)"
        .formatted(version, Migrations.CURRENT);
  }

  private static int versionOf(Path path) {
    try (Handle h = SqliteDialect.openReadOnly(path)) {
      if (SqliteDialect.applicationId(h) != SqliteDialect.APPLICATION_ID) {
        throw new BookException(
            Cause.BAD_INPUT, path + " is a database, but not a bench book of Nocking");
      }
      return SqliteDialect.version(h);
    }
  }

  /**
   * Opens an existing book without the right to change it.
   *
   * @throws BookException when it is no bench book
   */
  public static BookFile openToRead(Path path, Clock clock) {
    requireBook(path);
    try {
      int version = versionOf(path);
      String because = version > Migrations.CURRENT ? newer(version) : "it was opened to read";
      return readOnly(path, clock, because);
    } catch (JdbiException e) {
      throw unreadable(path, e);
    }
  }

  private static BookFile readOnly(Path path, Clock clock, String because) {
    versionOf(path);
    return new BookFile(path, SqliteDialect.openReadOnly(path), Optional.empty(), clock, because);
  }

  private static void requireBook(Path path) {
    if (!Files.exists(path)) {
      throw new BookException(Cause.BAD_INPUT, path + " does not exist");
    }
    if (Files.isDirectory(path)) {
      throw new BookException(Cause.BAD_INPUT, path + " is a folder, not a bench book");
    }
    try (var in = Files.newInputStream(path)) {
      if (!Arrays.equals(in.readNBytes(SQLITE.length), SQLITE)) {
        throw new BookException(
            Cause.BAD_INPUT, path + " is not a bench book: it does not begin like a database file");
      }
    } catch (IOException e) {
      throw new BookException(Cause.OUTSIDE, path + " cannot be read: " + e.getMessage(), e);
    }
  }

  private static BookException unreadable(Path path, Exception e) {
    return new BookException(
        Cause.BAD_INPUT, path + " is damaged or not a bench book: " + lastLine(e), e);
  }

  private static String lastLine(Throwable e) {
    Throwable t = e;
    while (t.getCause() != null) t = t.getCause();
    String message = String.valueOf(t.getMessage());
    int end = message.indexOf('\n');
    return end < 0 ? message : message.substring(0, end);
  }

  public Path path() {
    return path;
  }

  /** Why nothing can be changed; empty when the book can be written. */
  public String readOnlyBecause() {
    return readOnlyBecause;
  }

  public boolean writable() {
    return readOnlyBecause.isEmpty();
  }

  /**
   * All channels in their order. A channel or card that cannot be read does not keep the others
   * from being read: it stays in the file as it is, and {@link #setAside} says so.
   */
  public synchronized Book read() {
    setAside.clear();
    unreadableCards.clear();
    try {
      List<Channel> channels =
          handle
              .createQuery("SELECT document, tag, id FROM channel ORDER BY place, id")
              .map(
                  (r, c) ->
                      readable(
                          "channel " + r.getString(2),
                          () ->
                              ChannelJson.readCompact(
                                  r.getString(1), path.getFileName().toString())))
              .list()
              .stream()
              .flatMap(Optional::stream)
              .toList();
      return new Book(channels, cards(), stock(), weighing());
    } catch (JdbiException e) {
      throw unreadable(path, e);
    }
  }

  /** What the last reading could not read and left as it is: one sentence for each. */
  public synchronized List<String> setAside() {
    return List.copyOf(setAside);
  }

  /** Reads one document of many. */
  private interface Document<T> {
    T read() throws SQLException;
  }

  private <T> Optional<T> readable(String what, Document<T> document) throws SQLException {
    try {
      return Optional.of(document.read());
    } catch (IllegalArgumentException e) {
      setAside.add(
          "The %s cannot be read and is left in the file as it is: %s"
              .formatted(what, e.getMessage()));
      return Optional.empty();
    }
  }

  private List<SensorCard> cards() {
    if (!hasShelf()) return List.of();
    return handle
        .createQuery("SELECT document, name, id FROM card ORDER BY place")
        .map(
            (r, c) -> {
              Optional<SensorCard> card =
                  readable(
                      "sensor card " + r.getString(2),
                      () -> ChannelJson.readCard(r.getString(1), path.getFileName().toString()));
              if (card.isEmpty()) unreadableCards.add(r.getString(3));
              return card;
            })
        .list()
        .stream()
        .flatMap(Optional::stream)
        .toList();
  }

  private List<StockPart> stock() {
    if (!hasShelf()) return List.of();
    return handle
        .createQuery(
            "SELECT name, ohms, tolerance, watts, volts, quantity FROM stock ORDER BY place")
        .map(
            (r, c) ->
                new StockPart(
                    r.getString(1),
                    r.getDouble(2),
                    r.getDouble(3),
                    r.getDouble(4),
                    r.getDouble(5),
                    r.getInt(6)))
        .list();
  }

  private Weighing weighing() {
    if (!hasPractice()) return Weighing.USUAL;
    return handle
        .createQuery("SELECT document FROM weighing")
        .map(
            (r, c) ->
                readable(
                    "bench's weights",
                    () -> ChannelJson.readWeighing(r.getString(1), path.getFileName().toString())))
        .findOne()
        .flatMap(w -> w)
        .orElse(Weighing.USUAL);
  }

  private boolean hasPractice() {
    return SqliteDialect.version(handle) >= WITH_PRACTICE;
  }

  /** A book of the first version that is open read-only has neither cards nor stock. */
  private boolean hasShelf() {
    return SqliteDialect.version(handle) >= WITH_SHELF;
  }

  /** Stores all sensor cards as they are now. */
  public void saveCards(List<SensorCard> cards, String what) {
    write(
        h -> {
          for (String id : h.createQuery("SELECT id FROM card").mapTo(String.class).list()) {
            if (!unreadableCards.contains(id)) h.execute("DELETE FROM card WHERE id = ?", id);
          }
          var documents = new ArrayList<String>();
          for (SensorCard c : cards) {
            String document = ChannelJson.compact(c);
            h.execute(
                "INSERT INTO card (id, place, name, document) VALUES (?, ?, ?, ?)",
                c.id(),
                documents.size(),
                c.name(),
                document);
            documents.add(document);
          }
          log(h, "cards", "", what, Hash.of(documents.toArray(String[]::new)));
        });
  }

  /** Stores the whole drawer as it is now. */
  public void saveStock(List<StockPart> stock, String what) {
    write(
        h -> {
          h.execute("DELETE FROM stock");
          int place = 0;
          for (StockPart p : stock) {
            h.execute(
                """
                INSERT INTO stock (place, name, ohms, tolerance, watts, volts, quantity)
                VALUES (?, ?, ?, ?, ?, ?, ?)
                """,
                place++,
                p.name(),
                p.ohms(),
                p.tolerance(),
                p.watts(),
                p.volts(),
                p.quantity());
          }
          log(h, "stock", "", what, Hash.of(stock.toString()));
        });
  }

  /** Stores what the bench weighs by as it is now. */
  public void saveWeighing(Weighing weighing, String what) {
    write(
        h -> {
          String document = ChannelJson.compact(weighing);
          h.execute("DELETE FROM weighing");
          h.execute("INSERT INTO weighing (place, document) VALUES (1, ?)", document);
          log(h, "weighing", "", what, Hash.of(document));
        });
  }

  /** Results of practice, the oldest first. */
  public synchronized List<PracticeResult> practice() {
    if (!hasPractice()) return List.of();
    try {
      return handle
          .createQuery(
              """
              SELECT learner, channel, difficulty, hidden, named, correct, measurements, planned, date
              FROM practice ORDER BY place
              """)
          .map(
              (r, c) ->
                  new PracticeResult(
                      r.getString(1),
                      r.getString(2),
                      r.getString(3),
                      r.getString(4),
                      r.getString(5),
                      r.getInt(6) != 0,
                      r.getInt(7),
                      r.getInt(8),
                      r.getString(9)))
          .list();
    } catch (JdbiException e) {
      throw unreadable(path, e);
    }
  }

  /** Adds a result of practice behind the others. */
  public void addPractice(PracticeResult p) {
    write(
        h -> {
          h.execute(
              """
              INSERT INTO practice (place, learner, channel, difficulty, hidden, named, correct,
                measurements, planned, date)
              VALUES ((SELECT COALESCE(MAX(place), 0) + 1 FROM practice), ?, ?, ?, ?, ?, ?, ?, ?, ?)
              """,
              p.learner(),
              p.channel(),
              p.difficulty(),
              p.hidden(),
              p.named(),
              p.right() ? 1 : 0,
              p.measurements(),
              p.planned(),
              p.date());
          log(
              h,
              "practice",
              "",
              p.learner() + " practised on " + p.channel(),
              Hash.of(p.toString()));
        });
  }

  /** Stores a channel as it is now; a new one comes last. */
  public void save(Channel channel, String what) {
    saveAll(List.of(channel), what);
  }

  /** Stores several channels in one transaction. */
  public void saveAll(List<Channel> channels, String what) {
    write(
        h -> {
          for (Channel c : channels) {
            String document = ChannelJson.compact(c);
            h.createUpdate(SqliteDialect.upsertChannel())
                .bind("id", c.id())
                .bind("place", nextPlace(h))
                .bind("tag", c.tag())
                .bind("document", document)
                .execute();
            log(h, "edit", c.id(), what, Hash.of(document));
          }
        });
  }

  /** Takes a channel out of the book; its revisions stay. */
  public void remove(String channelId, String what) {
    write(
        h -> {
          h.execute("DELETE FROM channel WHERE id = ?", channelId);
          log(h, "remove", channelId, what, "");
        });
  }

  /** Puts the channels in the order of a document. */
  public void order(List<String> ids) {
    write(
        h -> {
          for (int i = 0; i < ids.size(); i++) {
            h.execute("UPDATE channel SET place = ? WHERE id = ?", i, ids.get(i));
          }
        });
  }

  /** Names the present state of a channel. */
  public Revision nameRevision(Channel channel, String name) {
    String document = ChannelJson.compact(channel);
    Instant now = clock.instant();
    int[] number = new int[1];
    write(
        h -> {
          number[0] =
              h.createQuery(
                      "SELECT COALESCE(MAX(number), 0) + 1 FROM revision WHERE channel_id = ?")
                  .bind(0, channel.id())
                  .mapTo(Integer.class)
                  .one();
          h.execute(
              """
              INSERT INTO revision (channel_id, number, name, made_at, document, hash)
              VALUES (?, ?, ?, ?, ?, ?)
              """,
              channel.id(),
              number[0],
              name,
              now.toString(),
              document,
              revisionHash(channel.id(), number[0], name, now.toString(), document));
          log(h, "revision", channel.id(), number[0] + " " + name, Hash.of(document));
        });
    return new Revision(channel.id(), number[0], name, now, channel);
  }

  private static String revisionHash(String id, int number, String name, String at, String doc) {
    return Hash.of(id, String.valueOf(number), name, at, doc);
  }

  /** Notes a deliberate act that is no edit, such as unlocking and its reason. */
  public void note(String kind, String channelId, String text) {
    write(h -> log(h, kind, channelId, text, ""));
  }

  /** Named states of a channel, the newest first. */
  public synchronized List<Revision> revisions(String channelId) {
    return handle
        .createQuery(
            """
            SELECT number, name, made_at, document FROM revision
            WHERE channel_id = ? ORDER BY number DESC
            """)
        .bind(0, channelId)
        .map(
            (r, c) ->
                new Revision(
                    channelId,
                    r.getInt(1),
                    r.getString(2),
                    Instant.parse(r.getString(3)),
                    ChannelJson.readCompact(r.getString(4), path.getFileName().toString())))
        .list();
  }

  /** The newest lines of the log about a channel, the newest first. */
  public synchronized List<LogEntry> log(String channelId, int most) {
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
                    Instant.parse(r.getString(2)),
                    r.getString(3),
                    r.getString(4),
                    r.getString(5)))
        .list();
  }

  @FunctionalInterface
  private interface Change {
    void apply(Handle handle);
  }

  private synchronized void write(Change change) {
    if (!writable()) {
      throw new BookException(Cause.OUTSIDE, path + " is open read-only: " + readOnlyBecause);
    }
    try {
      handle.useTransaction(change::apply);
    } catch (JdbiException e) {
      throw new BookException(
          Cause.OUTSIDE, "%s cannot be written: %s".formatted(path, lastLine(e)), e);
    }
  }

  private static int nextPlace(Handle h) {
    return h.createQuery("SELECT COALESCE(MAX(place), 0) + 1 FROM channel")
        .mapTo(Integer.class)
        .one();
  }

  private void log(Handle h, String kind, String channelId, String text, String documentHash) {
    record Last(long number, String hash) {}
    Last last =
        h.createQuery("SELECT number, hash FROM log ORDER BY number DESC LIMIT 1")
            .map((r, c) -> new Last(r.getLong(1), r.getString(2)))
            .findOne()
            .orElse(new Last(0, CHAIN_START));
    long number = last.number + 1;
    String at = clock.instant().toString();
    h.execute(
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

  /**
   * Everything that is wrong with the book: SQLite's own check, documents that cannot be read or do
   * not match the log, revisions whose hash is wrong, a log whose chain is broken. Empty when
   * sound.
   */
  public synchronized List<String> problems() {
    try {
      var problems = new ArrayList<>(SqliteDialect.integrity(handle));
      var lastHash = new HashMap<String, String>();
      chainProblems(problems, lastHash);
      documentProblems(problems, lastHash);
      revisionProblems(problems);
      shelfProblems(problems, lastHash);
      benchProblems(problems, lastHash);
      return problems;
    } catch (JdbiException e) {
      return List.of("the tables cannot be read: " + lastLine(e));
    }
  }

  private void chainProblems(List<String> problems, Map<String, String> lastHash) {
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
              String hash =
                  Hash.of(
                      before[0],
                      String.valueOf(number),
                      r.getString(2),
                      r.getString(3),
                      r.getString(4),
                      r.getString(5),
                      r.getString(6));
              if (!hash.equals(r.getString(7))) {
                problems.add("log: line %d does not follow from the line before".formatted(number));
              }
              before[0] = r.getString(7);
              expected[0] = number + 1;
              String kind = r.getString(3);
              if (kind.equals("edit")) lastHash.put(r.getString(4), r.getString(6));
              if (WHOLE.contains(kind)) lastHash.put(kind, r.getString(6));
              return number;
            })
        .list();
  }

  private void documentProblems(List<String> problems, Map<String, String> lastHash) {
    handle
        .createQuery("SELECT id, tag, document FROM channel")
        .map(
            (r, c) -> {
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
  }

  private void shelfProblems(List<String> problems, Map<String, String> lastHash) {
    if (!hasShelf()) return;
    List<String> documents =
        handle.createQuery("SELECT document FROM card ORDER BY place").mapTo(String.class).list();
    String cards = documents.isEmpty() ? null : Hash.of(documents.toArray(String[]::new));
    if (cards != null && !cards.equals(lastHash.get("cards"))) {
      problems.add("the sensor cards were changed outside the log");
    }
    List<StockPart> stock = stock();
    if (!stock.isEmpty() && !Hash.of(stock.toString()).equals(lastHash.get("stock"))) {
      problems.add("the drawer was changed outside the log");
    }
  }

  private void benchProblems(List<String> problems, Map<String, String> lastHash) {
    if (!hasPractice()) return;
    List<String> documents =
        handle.createQuery("SELECT document FROM weighing").mapTo(String.class).list();
    String known = lastHash.get("weighing");
    if (documents.size() != (known == null ? 0 : 1)
        || documents.stream().anyMatch(d -> !Hash.of(d).equals(known))) {
      problems.add("the meter or the weights of faults were changed outside the log");
    }
    List<String> kept = practice().stream().map(p -> Hash.of(p.toString())).toList();
    List<String> logged =
        handle
            .createQuery("SELECT document_hash FROM log WHERE kind = 'practice' ORDER BY number")
            .mapTo(String.class)
            .list();
    if (!kept.equals(logged)) problems.add("results of practice were changed outside the log");
  }

  private void revisionProblems(List<String> problems) {
    handle
        .createQuery("SELECT channel_id, number, name, made_at, document, hash FROM revision")
        .map(
            (r, c) -> {
              String hash =
                  revisionHash(
                      r.getString(1), r.getInt(2), r.getString(3), r.getString(4), r.getString(5));
              if (!hash.equals(r.getString(6))) {
                problems.add(
                    "revision %d \"%s\" was changed".formatted(r.getInt(2), r.getString(3)));
              }
              return hash;
            })
        .list();
  }

  /**
   * Writes a complete copy to a new file.
   *
   * @throws BookException when it exists or cannot be written
   */
  public synchronized void copyTo(Path target) {
    if (Files.exists(target)) {
      throw new BookException(Cause.OUTSIDE, target + " exists already");
    }
    try {
      SqliteDialect.copyTo(handle, target);
    } catch (JdbiException | SQLException e) {
      throw new BookException(
          Cause.OUTSIDE, "%s cannot be written: %s".formatted(target, lastLine(e)), e);
    }
  }

  @Override
  public synchronized void close() {
    handle.close();
    lock.ifPresent(BookLock::close);
  }
}
