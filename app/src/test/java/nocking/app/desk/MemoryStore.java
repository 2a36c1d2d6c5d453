package nocking.app.desk;

import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.book.BookException;
import nocking.book.LogEntry;
import nocking.book.Revision;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.PracticeResult;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.StoredRun;

/** A store without a disk that remembers what it was given. */
public class MemoryStore implements Store {
  private final Book book;
  private final String readOnlyBecause;
  private final List<String> saved = new ArrayList<>();
  private final List<PracticeResult> practice = new ArrayList<>();

  public MemoryStore(Book book, String readOnlyBecause) {
    this.book = book;
    this.readOnlyBecause = readOnlyBecause;
  }

  /** What every edit was called, in order. */
  public List<String> saved() {
    return saved;
  }

  @Override
  public Book book() {
    return book;
  }

  @Override
  public String name() {
    return "memory.nocking";
  }

  @Override
  public String readOnlyBecause() {
    return readOnlyBecause;
  }

  @Override
  public List<String> setAside() {
    return List.of();
  }

  @Override
  public void save(Book before, Book after, String what) {
    saved.add(what);
  }

  @Override
  public String state() {
    return "saved";
  }

  @Override
  public boolean failed() {
    return false;
  }

  @Override
  public Revision nameRevision(Channel channel, String name) {
    return new Revision(channel.id(), 1, name, Instant.EPOCH, Optional.of(channel), "");
  }

  @Override
  public List<Revision> revisions(String channelId) {
    return List.of();
  }

  @Override
  public List<LogEntry> log(String channelId) {
    return List.of();
  }

  @Override
  public void note(String kind, String channelId, String text) {
    saved.add(kind + ": " + text);
  }

  @Override
  public List<PracticeResult> practice() {
    return List.copyOf(practice);
  }

  @Override
  public void addPractice(PracticeResult result) {
    practice.add(result);
  }

  @Override
  public List<StoredRun> runs() {
    return List.of();
  }

  @Override
  public RunJournal begin(String runId, RunPlan plan) {
    throw new BookException(BookException.Cause.OUTSIDE, "memory keeps no run");
  }

  @Override
  public RunJournal journal(String runId, RunPlan plan) {
    throw new BookException(BookException.Cause.OUTSIDE, "memory keeps no run");
  }

  @Override
  public void whenClosing(Runnable work) {}

  @Override
  public void copyTo(Path target) {
    throw new BookException(BookException.Cause.OUTSIDE, "memory is not copied");
  }

  @Override
  public void flush() {
    saved.add("flush");
  }

  @Override
  public void close() {
    saved.add("close");
  }
}
