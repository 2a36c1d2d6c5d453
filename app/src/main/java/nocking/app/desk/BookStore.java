package nocking.app.desk;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import nocking.book.BookException;
import nocking.book.BookFile;
import nocking.book.LogEntry;
import nocking.book.Revision;
import nocking.book.exchange.Output;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.PracticeResult;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A bench book file behind one writing thread. When the disk refuses, the work stays in memory, a
 * rescue copy is written to the state folder, and the next edit tries again with everything that is
 * missing.
 */
public final class BookStore implements Store {
  private static final Logger LOG = LoggerFactory.getLogger(BookStore.class);
  private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm");
  private static final int LOG_LINES = 50;

  private final BookFile file;
  private final Book opened;
  private final Path rescueFolder;
  private final Clock clock;
  private final Runnable news;
  private final List<String> setAside;
  private final ExecutorService writer =
      Executors.newSingleThreadExecutor(r -> Thread.ofPlatform().name("book-writer").unstarted(r));
  private Book onDisk;
  private volatile String state;
  private volatile boolean failed;

  /**
   * @param rescueFolder where a copy goes when the book cannot be written
   * @param news called from the writing thread when the state has changed
   */
  public BookStore(BookFile file, Path rescueFolder, Clock clock, Runnable news) {
    this.file = file;
    this.rescueFolder = rescueFolder;
    this.clock = clock;
    this.news = news;
    opened = file.read();
    setAside = file.setAside();
    onDisk = opened;
    state = file.writable() ? "open" : "read-only";
  }

  @Override
  public Book book() {
    return opened;
  }

  @Override
  public List<String> setAside() {
    return setAside;
  }

  @Override
  public String name() {
    return file.path().getFileName().toString();
  }

  public Path path() {
    return file.path();
  }

  @Override
  public String readOnlyBecause() {
    return file.readOnlyBecause();
  }

  @Override
  public void save(Book before, Book after, String what) {
    writer.execute(() -> write(after, what));
  }

  private void write(Book after, String what) {
    try {
      var changed = new ArrayList<Channel>();
      for (Channel c : after.channels()) {
        // Records share what did not change: the same object needs no look inside.
        if (onDisk.byId(c.id()).filter(o -> o == c || o.equals(c)).isEmpty()) changed.add(c);
      }
      if (!changed.isEmpty()) file.saveAll(changed, what);
      for (Channel c : onDisk.channels()) {
        if (after.byId(c.id()).isEmpty()) file.remove(c.id(), what);
      }
      List<String> order = after.channels().stream().map(Channel::id).toList();
      boolean sameOrder = onDisk.channels().stream().map(Channel::id).toList().equals(order);
      if (!sameOrder) file.order(order);
      if (!onDisk.cards().equals(after.cards())) file.saveCards(after.cards(), what);
      if (!onDisk.stock().equals(after.stock())) file.saveStock(after.stock(), what);
      if (!onDisk.weighing().equals(after.weighing())) file.saveWeighing(after.weighing(), what);
      onDisk = after;
      failed = false;
      state = "saved " + TIME.format(LocalTime.now(clock));
    } catch (BookException e) {
      LOG.error("saving {} failed", file.path(), e);
      failed = true;
      state = e.getMessage() + "; " + rescue(after);
    }
    news.run();
  }

  private String rescue(Book after) {
    Path copy = rescueFolder.resolve(name().replaceFirst("\\.nocking$", "") + "-rescue.json");
    try {
      Files.createDirectories(rescueFolder);
      Output.write(copy, ChannelJson.write(after), true);
      return "the work is kept in memory and in " + copy;
    } catch (BookException | IOException e) {
      LOG.error("the rescue copy failed", e);
      return "the work is kept in memory only: export it to another disk";
    }
  }

  @Override
  public String state() {
    return state;
  }

  @Override
  public boolean failed() {
    return failed;
  }

  @Override
  public Revision nameRevision(Channel channel, String name) {
    return onWriter(() -> file.nameRevision(channel, name));
  }

  @Override
  public void note(String kind, String channelId, String text) {
    if (file.writable()) append(() -> file.note(kind, channelId, text));
  }

  @Override
  public List<PracticeResult> practice() {
    return onWriter(file::practice);
  }

  @Override
  public void addPractice(PracticeResult result) {
    if (file.writable()) append(() -> file.addPractice(result));
  }

  /** Writes a line that is no part of the document. */
  private void append(Runnable line) {
    writer.execute(
        () -> {
          try {
            line.run();
          } catch (BookException e) {
            LOG.error("a line was not written", e);
            failed = true;
            state = e.getMessage();
            news.run();
          }
        });
  }

  @Override
  public List<Revision> revisions(String channelId) {
    return file.revisions(channelId);
  }

  @Override
  public List<LogEntry> log(String channelId) {
    return file.log(channelId, LOG_LINES);
  }

  @Override
  public void copyTo(Path target) {
    onWriter(() -> run(() -> file.copyTo(target)));
  }

  private static Void run(Runnable work) {
    work.run();
    return null;
  }

  @Override
  public void flush() {
    onWriter(() -> null);
  }

  private <T> T onWriter(Supplier<T> work) {
    try {
      return CompletableFuture.supplyAsync(work, writer).join();
    } catch (CompletionException e) {
      if (e.getCause() instanceof BookException cause) throw cause;
      throw e;
    }
  }

  @Override
  public void close() {
    writer.shutdown();
    try {
      if (!writer.awaitTermination(30, TimeUnit.SECONDS)) {
        LOG.error("{} was closed with unsaved edits", file.path());
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    file.close();
  }
}
