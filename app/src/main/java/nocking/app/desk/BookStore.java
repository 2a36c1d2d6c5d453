package nocking.app.desk;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import nocking.book.BookException;
import nocking.book.BookFile;
import nocking.book.Happening;
import nocking.book.LogEntry;
import nocking.book.Revision;
import nocking.book.exchange.Output;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.PracticeResult;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.StoredRun;
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
  private static final long WATCH_SECONDS = 2;

  private final BookFile file;
  private final Book opened;
  private final Path rescueFolder;
  private final Clock clock;
  private final Runnable news;
  private final List<String> setAside;
  private final ScheduledExecutorService writer =
      Executors.newSingleThreadScheduledExecutor(
          r -> Thread.ofPlatform().name("book-writer").unstarted(r));
  private Book latest;
  private Book onDisk;
  private final Deque<Runnable> missing = new ArrayDeque<>();
  private boolean resting;
  private Happening happened = Happening.NOTHING;
  private volatile String state;
  private String rescueStem = "";
  private boolean recordsKept;
  private volatile boolean failed;
  private volatile boolean closed;
  private final List<Runnable> closing = new CopyOnWriteArrayList<>();

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
    latest = opened;
    onDisk = opened;
    state = file.writable() ? "open" : "read-only";
    if (file.writable()) {
      file.whenEnding(this::finish);
      writer.scheduleWithFixedDelay(this::watch, WATCH_SECONDS, WATCH_SECONDS, TimeUnit.SECONDS);
    }
  }

  /** Whatever goes wrong, the file is looked at again. */
  private void watch() {
    try {
      look();
    } catch (RuntimeException | Error e) {
      LOG.error("looking at {} failed", file.path(), e);
    }
  }

  /**
   * Notices what others did to the file, tries once more to write what could not be written, and
   * puts the log into the main file once nothing was written for a while, so that whoever copies
   * that file copies everything.
   */
  private void look() {
    Happening now = file.happened();
    boolean back = now == Happening.NOTHING && happened != Happening.NOTHING;
    if (now != happened && !back) {
      happened = now;
      failed = true;
      state = "%s %s while it was open; %s".formatted(file.path(), now.words(), rescue(latest));
      news.run();
    }
    happened = now;
    if (now != Happening.NOTHING) return;
    if (back || failed) again(back ? "the file is back" : "written later");
    if (!resting && !failed) checkpoint();
  }

  /** Tries once more, and says something only where that helped. */
  private void again(String what) {
    try {
      store(latest, what);
      news.run();
    } catch (RuntimeException | Error e) {
      LOG.warn("writing {} once more failed: {}", file.path(), String.valueOf(e.getMessage()));
    }
  }

  /** What is done after a while without edits, at once. */
  void rest() {
    onWriter(() -> run(this::watch));
  }

  private void checkpoint() {
    try {
      file.checkpoint();
      resting = true;
    } catch (BookException e) {
      LOG.warn("the log of {} was not put into it", file.path(), e);
    }
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
    latest = after;
    try {
      store(after, what);
    } catch (RuntimeException | Error e) {
      LOG.error("saving {} failed", file.path(), e);
      happened = file.happened();
      failed = true;
      state = why(e) + "; " + rescue(after) + sound(after, what, e);
    }
    news.run();
  }

  private void store(Book after, String what) {
    writeMissing();
    file.save(onDisk, after, what);
    onDisk = after;
    resting = false;
    failed = false;
    state = "saved " + TIME.format(LocalTime.now(clock));
  }

  private static String why(Throwable e) {
    return e instanceof BookException
        ? e.getMessage()
        : "Something went wrong while saving (%s), details are in the log"
            .formatted(e.getClass().getSimpleName());
  }

  /**
   * Where the disk is in order and the work cannot be written, some channel of it cannot: the
   * others are written without it. Says which ones are not.
   */
  private String sound(Book after, String what, Throwable e) {
    if (e instanceof BookException) return "";
    List<Channel> odd = after.channels().stream().filter(c -> !writable(c)).toList();
    Book rest = onDisk;
    for (Channel c : after.channels()) if (!odd.contains(c)) rest = rest.with(c);
    if (odd.isEmpty() || rest.equals(onDisk)) return "";
    try {
      file.save(onDisk, rest, what);
      onDisk = rest;
    } catch (RuntimeException | Error again) {
      LOG.error("saving the sound channels of {} failed", file.path(), again);
      return "";
    }
    return "; all but %s is saved"
        .formatted(String.join(", ", odd.stream().map(Channel::tag).toList()));
  }

  private static boolean writable(Channel c) {
    try {
      ChannelJson.compact(c);
      return true;
    } catch (RuntimeException | Error e) {
      return false;
    }
  }

  /** Keeps the work beside the file that cannot take it; says where. */
  private String rescue(Book work) {
    Path copy;
    try {
      Files.createDirectories(rescueFolder);
      if (rescueStem.isEmpty()) rescueStem = freeStem();
      copy = rescueFolder.resolve(rescueStem + ".json");
      Output.writeForOwner(copy, ChannelJson.write(rescued(work)));
    } catch (RuntimeException | Error | IOException e) {
      LOG.error("the rescue copy failed", e);
      return "the work is kept in memory only: export it to another disk";
    }
    return "the work is kept in memory and in " + copy + rescueRecords();
  }

  /** What can be written of the work; the whole of it but for a fault of the program. */
  private static Book rescued(Book work) {
    Book rescued = work;
    for (Channel c : work.channels()) if (!writable(c)) rescued = rescued.without(c.id());
    return rescued;
  }

  /** A name that no rescue copy of an earlier day has: that one may hold work too. */
  private String freeStem() {
    String stem = name().replaceFirst("\\.nocking$", "") + "-rescue";
    for (int i = 1; ; i++) {
      String free = i == 1 ? stem : stem + "-" + i;
      if (!Files.exists(rescueFolder.resolve(free + ".json"))
          && !Files.exists(rescueFolder.resolve(free + BookFile.ENDING))) {
        return free;
      }
    }
  }

  /**
   * What is only in the file, its revisions and its log, can still be read from one that was
   * deleted or replaced, as long as it is open.
   */
  private String rescueRecords() {
    if (happened == Happening.NOTHING || !happened.readable()) return "";
    Path records = rescueFolder.resolve(rescueStem + BookFile.ENDING);
    try {
      if (!recordsKept) file.copyTo(records);
      recordsKept = true;
      return ", the revisions and the log in " + records.getFileName();
    } catch (BookException e) {
      LOG.error("the revisions were not rescued", e);
      return "";
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

  /** Writes a line that is no part of the document; one that cannot be written waits. */
  private void append(Runnable line) {
    writer.execute(
        () -> {
          missing.add(line);
          try {
            writeMissing();
          } catch (RuntimeException | Error e) {
            LOG.error("a line was not written", e);
            failed = true;
            state = why(e);
            news.run();
          }
        });
  }

  private void writeMissing() {
    while (!missing.isEmpty()) {
      missing.getFirst().run();
      missing.removeFirst();
      resting = false;
    }
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
  public List<StoredRun> runs() {
    // Whoever asked in the background when the window was closed gets no answer any more.
    return closed ? List.of() : file.runs();
  }

  @Override
  public RunJournal begin(String runId, RunPlan plan) {
    return file.begin(runId, plan);
  }

  @Override
  public RunJournal journal(String runId, RunPlan plan) {
    return file.journal(runId, plan);
  }

  @Override
  public void whenClosing(Runnable work) {
    closing.add(work);
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
    finish();
    file.close();
  }

  /** What is under way comes to its end, and what was done is written. */
  private synchronized void finish() {
    closing.forEach(Runnable::run);
    closing.clear();
    closed = true;
    writer.shutdown();
    try {
      if (!writer.awaitTermination(30, TimeUnit.SECONDS)) {
        LOG.error("{} was closed with unsaved edits", file.path());
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
