package nocking.app.desk;

import java.nio.file.Path;
import java.util.List;
import nocking.book.LogEntry;
import nocking.book.Revision;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.PracticeResult;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.StoredRun;

/** Where the document lives. Saving never blocks the caller. */
public interface Store extends AutoCloseable {
  /** The document as it was when the store was opened. */
  Book book();

  /** File name for the title bar. */
  String name();

  /** Why nothing can be changed; empty when it can. */
  String readOnlyBecause();

  /** What could not be read and is left in the file as it is: one sentence for each. */
  List<String> setAside();

  /** Hands over an edit; it is written soon, in order. */
  void save(Book before, Book after, String what);

  /** Saved, saving or failed, in a few words. */
  String state();

  /** True when the last write failed and the work lies in memory and in a rescue copy. */
  boolean failed();

  /** Names the present state of a channel, after everything that was handed over before. */
  Revision nameRevision(Channel channel, String name);

  List<Revision> revisions(String channelId);

  /** The newest lines of the log about a channel. */
  List<LogEntry> log(String channelId);

  /** Notes a deliberate act that is no edit. */
  void note(String kind, String channelId, String text);

  /** Results of practice, the oldest first. */
  List<PracticeResult> practice();

  /** Keeps a result of practice; it is no edit and cannot be undone. */
  void addPractice(PracticeResult result);

  /** Runs of the book, the newest first. Reads the file: not for the interface thread. */
  List<StoredRun> runs();

  /** Begins a run; what is appended is on the disk when the call returns. */
  RunJournal begin(String runId, RunPlan plan);

  /** The journal of a run that goes on. */
  RunJournal journal(String runId, RunPlan plan);

  /** Has something done before the store is closed. */
  void whenClosing(Runnable work);

  /** Writes a complete copy of the book to a new file, or throws with one sentence why not. */
  void copyTo(Path target);

  /** Waits until everything handed over is on disk. */
  void flush();

  @Override
  void close();
}
