package nocking.book;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;
import nocking.book.BookException.Cause;
import nocking.book.internal.BookLock;
import nocking.book.internal.Hash;
import nocking.book.internal.OpenedFile;
import nocking.book.internal.SqliteDialect;
import nocking.book.internal.SqliteTrouble;
import nocking.book.internal.WholeFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.PracticeResult;
import nocking.channel.SensorCard;
import nocking.parts.StockPart;
import nocking.prior.PriorWeights;
import nocking.run.Instrument;
import nocking.run.PlanCorrection;
import nocking.run.RunChannel;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.StoredRun;
import nocking.table.ReceiverShape;
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

  private final Path path;
  private final Handle handle;
  private final Optional<BookLock> lock;
  private final Optional<OpenedFile> opened;
  private final Clock clock;
  private final String readOnlyBecause;
  private final Shelf shelf;
  private final BookLog log;
  private final List<Runnable> ending = new CopyOnWriteArrayList<>();
  private SetAside aside = new SetAside();
  private boolean closed;

  BookFile(
      Path path,
      Handle handle,
      Optional<BookLock> lock,
      Optional<OpenedFile> opened,
      Clock clock,
      String readOnlyBecause) {
    this.path = path;
    this.handle = handle;
    this.lock = lock;
    this.opened = opened;
    this.clock = clock;
    this.readOnlyBecause = readOnlyBecause;
    shelf = new Shelf(handle, fileName());
    log = new BookLog(handle);
    if (writable()) OpenBooks.opened(this);
  }

  private String fileName() {
    return path.getFileName().toString();
  }

  /**
   * Opens a book for writing, or makes a new one where there is no file. A book that someone else
   * has open, that a newer Nocking wrote, or that cannot be written is opened read-only, and {@link
   * #readOnlyBecause} says why.
   *
   * @throws BookException when it is no bench book, or cannot be made there
   */
  public static BookFile open(Path path, Clock clock) {
    return new BookOpening(path, clock).toWrite();
  }

  /**
   * Opens an existing book without the right to change it.
   *
   * @throws BookException when it is no bench book
   */
  public static BookFile openToRead(Path path, Clock clock) {
    return new BookOpening(path, clock).toRead();
  }

  /** True while some window or command has the book open for writing. */
  public static boolean inUse(Path path) {
    try {
      Optional<BookLock> free = BookLock.take(path);
      free.ifPresent(BookLock::close);
      return free.isEmpty();
    } catch (IOException e) {
      return false;
    }
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
    var unread = new SetAside();
    try {
      List<Channel> channels =
          handle
              .createQuery("SELECT document, tag, id FROM channel ORDER BY place, id")
              .map(
                  (r, c) ->
                      unread.read(
                          "channel " + r.getString(2),
                          () -> ChannelJson.readCompact(r.getString(1), fileName())))
              .list()
              .stream()
              .flatMap(Optional::stream)
              .toList();
      return new Book(
          channels,
          shelf.cards(unread),
          shelf.stock(),
          shelf.priorWeights(unread),
          shelf.instruments(unread),
          shelf.shapes(unread));
    } catch (JdbiException e) {
      throw SqliteTrouble.reading(path, e);
    } finally {
      aside = unread;
    }
  }

  /** What the last reading could not read and left as it is: one sentence for each. */
  public synchronized List<String> setAside() {
    return aside.sentences();
  }

  /** Stores all sensor cards as they are now. */
  public void saveCards(List<SensorCard> cards, String what) {
    write(() -> note("cards", "", what, shelf.putCards(cards)));
  }

  /** Stores the whole drawer as it is now. */
  public void saveStock(List<StockPart> stock, String what) {
    write(() -> note("stock", "", what, shelf.putStock(stock)));
  }

  /** Stores what the bench weighs by as it is now. */
  public void saveWeighing(PriorWeights priorWeights, String what) {
    write(() -> note("weighing", "", what, shelf.putPriorWeights(priorWeights)));
  }

  /** Stores all instruments as they are now. */
  public void saveInstruments(List<Instrument> instruments, String what) {
    write(() -> note("instruments", "", what, shelf.putInstruments(instruments)));
  }

  /** Stores all receivers' shapes as they are now. */
  public void saveShapes(List<ReceiverShape> shapes, String what) {
    write(() -> note("shapes", "", what, shelf.putShapes(shapes)));
  }

  /** Results of practice, the oldest first. */
  public synchronized List<PracticeResult> practice() {
    try {
      return shelf.practice();
    } catch (JdbiException e) {
      throw SqliteTrouble.reading(path, e);
    }
  }

  /** Adds a result of practice behind the others. */
  public void addPractice(PracticeResult p) {
    write(
        () ->
            note(
                "practice",
                "",
                p.learner() + " practised on " + p.channel(),
                shelf.addPractice(p)));
  }

  /** Stores a channel as it is now; a new one comes last. */
  public void save(Channel channel, String what) {
    saveAll(List.of(channel), what);
  }

  /**
   * Stores what differs between two states of the book: all of it, or nothing where one part of it
   * cannot be stored.
   *
   * @param before what the file holds, as it was read or stored last
   * @param what was done, for the log
   */
  public void save(Book before, Book after, String what) {
    // Records share what did not change: the same object needs no look inside.
    List<Channel> changed =
        after.channels().stream()
            .filter(c -> before.byId(c.id()).filter(o -> o == c || o.equals(c)).isEmpty())
            .toList();
    write(
        () -> {
          List<String> order = ids(after);
          List<String> gone = ids(before).stream().filter(id -> !order.contains(id)).toList();
          notingOrder(
              what,
              () -> {
                changed.forEach(c -> put(c, what));
                gone.forEach(id -> take(id, what));
                if (!order.equals(ids(before))) order(order);
              });
          if (!before.cards().equals(after.cards())) saveCards(after.cards(), what);
          if (!before.stock().equals(after.stock())) saveStock(after.stock(), what);
          if (!before.instruments().equals(after.instruments())) {
            saveInstruments(after.instruments(), what);
          }
          if (!before.shapes().equals(after.shapes())) saveShapes(after.shapes(), what);
          if (!before.priorWeights().equals(after.priorWeights())) {
            saveWeighing(after.priorWeights(), what);
          }
        });
  }

  private static List<String> ids(Book b) {
    return b.channels().stream().map(Channel::id).toList();
  }

  /** Stores several channels in one transaction. */
  public void saveAll(List<Channel> channels, String what) {
    write(() -> notingOrder(what, () -> channels.forEach(c -> put(c, what))));
  }

  private void put(Channel c, String what) {
    String document = ChannelJson.compact(c);
    handle
        .createUpdate(SqliteDialect.upsertChannel())
        .bind("id", c.id())
        .bind("place", nextPlace())
        .bind("tag", c.tag())
        .bind("document", document)
        .execute();
    note("edit", c.id(), what, Hash.of(document));
  }

  /** Which channels there are, and in which order, has a line of its own in the log. */
  private void notingOrder(String what, Runnable change) {
    String before = log.hashOfOrder();
    change.run();
    String after = log.hashOfOrder();
    if (!after.equals(before)) note(BookLog.ORDER, "", what, after);
  }

  private int nextPlace() {
    return handle
        .createQuery("SELECT COALESCE(MAX(place), 0) + 1 FROM channel")
        .mapTo(Integer.class)
        .one();
  }

  /** Takes a channel out of the book; its revisions stay. */
  public void remove(String channelId, String what) {
    write(() -> notingOrder(what, () -> take(channelId, what)));
  }

  private void take(String channelId, String what) {
    handle.execute("DELETE FROM channel WHERE id = ?", channelId);
    note("remove", channelId, what, "");
  }

  /**
   * Puts the channels in the order of a document; those that it does not know, since they could not
   * be read, come behind.
   */
  private void order(List<String> ids) {
    for (int i = 0; i < ids.size(); i++) {
      handle.execute("UPDATE channel SET place = ? WHERE id = ?", i + 1, ids.get(i));
    }
    List<String> unread =
        handle
            .createQuery("SELECT id FROM channel ORDER BY place, id")
            .mapTo(String.class)
            .filter(id -> !ids.contains(id))
            .list();
    int place = ids.size();
    for (String id : unread) {
      handle.execute("UPDATE channel SET place = ? WHERE id = ?", ++place, id);
    }
  }

  /** Names the present state of a channel. */
  public Revision nameRevision(Channel channel, String name) {
    String document = ChannelJson.compact(channel);
    Instant now = clock.instant();
    int[] number = new int[1];
    write(
        () -> {
          number[0] =
              handle
                  .createQuery(
                      "SELECT COALESCE(MAX(number), 0) + 1 FROM revision WHERE channel_id = ?")
                  .bind(0, channel.id())
                  .mapTo(Integer.class)
                  .one();
          handle.execute(
              """
              INSERT INTO revision (channel_id, number, name, made_at, document, hash)
              VALUES (?, ?, ?, ?, ?, ?)
              """,
              channel.id(),
              number[0],
              name,
              now.toString(),
              document,
              Revision.hash(channel.id(), number[0], name, now.toString(), document));
          note("revision", channel.id(), number[0] + " " + name, Hash.of(document));
        });
    return new Revision(channel.id(), number[0], name, now, Optional.of(channel), "");
  }

  /** Notes a deliberate act that is no edit, such as unlocking and its reason. */
  public void note(String kind, String channelId, String text) {
    write(() -> note(kind, channelId, text, ""));
  }

  /** Runs of the book, the newest first; one that cannot be read is set aside. */
  public synchronized List<StoredRun> runs() {
    try {
      return new RunTable(handle, fileName()).list(new SetAside());
    } catch (JdbiException e) {
      throw SqliteTrouble.reading(path, e);
    }
  }

  /** Several changes as one transaction. */
  public void together(Runnable changes) {
    write(changes);
  }

  /** Adds a run; what is appended to its journal is on the disk when the call returns. */
  public RunJournal begin(String runId, RunPlan plan) {
    var table = new RunTable(handle, fileName());
    write(
        () -> {
          String hash = table.add(runId, clock.instant().toString(), plan);
          noteRun(plan, "run %s begins".formatted(plan.title()), hash);
        });
    return journal(runId, plan);
  }

  /**
   * Writes down that a run goes on by a plan that was put right.
   *
   * @param plan that it was gone by
   */
  public void putRight(String runId, RunPlan plan, PlanCorrection correction) {
    open(runId, plan).append(correction);
  }

  /** The journal of a run that goes on. */
  public RunJournal journal(String runId, RunPlan plan) {
    return open(runId, plan);
  }

  private synchronized BookJournal open(String runId, RunPlan plan) {
    try {
      return new BookJournal(
          runId, plan, new RunTable(handle, fileName()), this::write, this::noteRun);
    } catch (JdbiException e) {
      throw SqliteTrouble.reading(path, e);
    }
  }

  private void noteRun(RunPlan plan, String text, String hash) {
    for (RunChannel c : plan.channels()) note("run", c.channel(), text, hash);
  }

  private void note(String kind, String channelId, String text, String documentHash) {
    log.append(clock.instant(), kind, channelId, text, documentHash);
  }

  /** Named states of a channel, the newest first; one that cannot be read says why. */
  public synchronized List<Revision> revisions(String channelId) {
    try {
      return handle
          .createQuery(
              """
              SELECT number, name, made_at, document FROM revision
              WHERE channel_id = ? ORDER BY number DESC
              """)
          .bind(0, channelId)
          .map((r, c) -> revision(channelId, r))
          .list();
    } catch (JdbiException e) {
      throw SqliteTrouble.reading(path, e);
    }
  }

  private Revision revision(String channelId, ResultSet r) throws SQLException {
    var unread = new SetAside();
    int number = r.getInt(1);
    String name = r.getString(2);
    Optional<Channel> channel =
        unread.read(
            "revision %d \"%s\"".formatted(number, name),
            () -> ChannelJson.readCompact(r.getString(4), fileName()));
    return new Revision(
        channelId,
        number,
        name,
        BookLog.time(r.getString(3)),
        channel,
        String.join(" ", unread.sentences()));
  }

  /** The newest lines of the log about a channel, the newest first. */
  public synchronized List<LogEntry> log(String channelId, int most) {
    try {
      return log.entries(channelId, most);
    } catch (JdbiException e) {
      throw SqliteTrouble.reading(path, e);
    }
  }

  private synchronized void write(Runnable change) {
    if (!writable()) {
      throw new BookException(Cause.OUTSIDE, path + " is open read-only: " + readOnlyBecause);
    }
    if (closed) {
      throw new BookException(Cause.OUTSIDE, path + " is closed already");
    }
    Happening happened = happened();
    if (happened != Happening.NOTHING) {
      throw new BookException(
          Cause.OUTSIDE, "%s %s while it was open".formatted(path, happened.words()));
    }
    try {
      handle.useTransaction(h -> change.run());
      opened.orElseThrow().written();
    } catch (JdbiException e) {
      throw SqliteTrouble.writing(path, e);
    } catch (IOException e) {
      // The edit is on disk; what became of the file meanwhile is noticed before the next.
    }
  }

  /**
   * What was done to the file by others since it was opened. Nothing more is written to a file that
   * is no longer the one that was opened.
   */
  public synchronized Happening happened() {
    return opened.map(OpenedFile::happened).orElse(Happening.NOTHING);
  }

  /**
   * Puts everything into the main file, so that a copy of that file alone is complete. Does nothing
   * for a book that is read-only or that others have changed.
   */
  public synchronized void checkpoint() {
    if (closed || !writable() || happened() != Happening.NOTHING) return;
    try {
      SqliteDialect.checkpoint(handle);
      opened.orElseThrow().written();
      opened.orElseThrow().remember();
    } catch (JdbiException e) {
      throw SqliteTrouble.writing(path, e);
    } catch (IOException e) {
      // Noticed before the next edit.
    }
  }

  /**
   * Everything that is wrong with the book: SQLite's own check, documents that cannot be read or do
   * not match the log, revisions whose hash is wrong, a log whose chain is broken. Empty when
   * sound.
   */
  public synchronized List<String> problems() {
    return new BookProblems(handle).list();
  }

  /**
   * Writes a complete copy to a new file, which no more people may read than this one.
   *
   * @throws BookException when it exists or cannot be written
   */
  public synchronized void copyTo(Path target) {
    // One that was deleted while it was open is still read, and has no mode any more.
    try (WholeFile copy =
        Files.exists(path)
            ? WholeFile.anewAs(target.toAbsolutePath(), path)
            : WholeFile.anewForOwner(target.toAbsolutePath())) {
      SqliteDialect.copyTo(handle, copy.part());
      copy.put();
    } catch (JdbiException | SQLException e) {
      throw SqliteTrouble.writing(target, e);
    } catch (FileAlreadyExistsException e) {
      throw new BookException(Cause.OUTSIDE, target + " exists already", e);
    } catch (IOException e) {
      throw new BookException(
          Cause.OUTSIDE,
          "%s cannot be written: %s".formatted(target, FileTrouble.why(target, e)),
          e);
    }
  }

  /**
   * What is to be done first when the process is told to end while the book is open; the book is
   * closed behind it like at any other end.
   */
  public void whenEnding(Runnable work) {
    ending.add(work);
  }

  /** The process ends: what is under way comes to its end, and the book is closed. */
  void end() {
    try {
      ending.forEach(Runnable::run);
    } finally {
      close();
    }
  }

  /**
   * A file that others have written over is left to them: the connection is not closed, for that
   * would put what the log still holds among their pages.
   */
  @Override
  public synchronized void close() {
    if (closed) return;
    if (happened() == Happening.NOTHING || !Files.exists(path)) {
      try {
        checkpoint();
      } catch (BookException e) {
        // The log holds what the main file lacks, and the next opening finds it.
      }
      handle.close();
    }
    closed = true;
    lock.ifPresent(BookLock::close);
    OpenBooks.closed(this);
  }
}
