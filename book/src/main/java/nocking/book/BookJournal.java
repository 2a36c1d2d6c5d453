package nocking.book;

import java.sql.PreparedStatement;
import java.util.Optional;
import nocking.book.internal.RunningHash;
import nocking.run.Act;
import nocking.run.PlanCorrection;
import nocking.run.RunEntry;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.Sweep;

/** The journal of a run in a book: each sweep is one transaction. */
final class BookJournal implements RunJournal {
  /** Does a change in one transaction, or not at all. */
  interface Writing {
    void now(Runnable change);
  }

  private final String id;
  private final RunPlan plan;
  private final RunTable table;
  private final Writing writing;
  private final EndNote endNote;
  private PreparedStatement statement;
  private RunTable.Tail tail;
  private long sweeps;
  private RunningHash readings = new RunningHash();

  /** Writes the end of a run into the log of the book. */
  interface EndNote {
    void of(RunPlan plan, String text, String hash);
  }

  BookJournal(String id, RunPlan plan, RunTable table, Writing writing, EndNote endNote) {
    this.id = id;
    this.plan = plan;
    this.table = table;
    this.writing = writing;
    this.endNote = endNote;
    tail = table.tail(id).orElse(RunTable.start());
    sweeps = table.sweeps(id);
    table.readings(
        id,
        tail.sweeps(),
        r ->
            RunTable.digest(
                readings, r.sweep(), r.channel(), r.at(), r.target(), r.applied(), r.raw()));
  }

  @Override
  public void append(Sweep sweep, Optional<RunPoint> completes) {
    long number = sweeps + 1;
    RunTable.Tail[] next = {tail};
    RunningHash copy = readings.copy();
    for (int i = 0; i < sweep.raw().size(); i++) {
      RunTable.digest(
          copy, number, i, sweep.at(), sweep.target(), sweep.applied(), sweep.raw().get(i));
    }
    writing.now(
        () -> {
          if (statement == null) statement = table.toInsertReadings();
          RunTable.insert(statement, id, number, sweep);
          completes.ifPresent(p -> next[0] = table.insert(id, tail, p, number, copy.end()));
        });
    sweeps = number;
    tail = next[0];
    readings = copy;
  }

  @Override
  public void append(Act act) {
    line(act);
  }

  /** The plan is put right: what comes behind it was read by that one. */
  void append(PlanCorrection correction) {
    line(correction);
  }

  private void line(RunEntry entry) {
    RunTable.Tail[] next = {tail};
    RunningHash copy = readings.copy();
    writing.now(() -> next[0] = entry(entry, copy.end()));
    tail = next[0];
    readings = new RunningHash();
  }

  private RunTable.Tail entry(RunEntry entry, String hash) {
    RunTable.Tail now = table.insert(id, tail, entry, sweeps, hash);
    if (entry instanceof Act a && (a.kind() == Act.Kind.END || a.kind() == Act.Kind.STOP)) {
      String how = a.kind() == Act.Kind.END ? "is complete" : "was stopped";
      endNote.of(plan, "run %s %s".formatted(plan.title(), how), now.hash());
    }
    return now;
  }
}
