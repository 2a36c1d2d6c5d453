package nocking.cli;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import nocking.analysis.Analysis;
import nocking.analysis.Jobs;
import nocking.bench.run.Rig;
import nocking.bench.run.RunEngine;
import nocking.bench.simulated.SteppedClock;
import nocking.check.Verdict;
import nocking.procedure.JobRecord;
import nocking.procedure.Procedure;
import nocking.procedure.Step;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.RunProgress;
import nocking.run.RunSnapshot;

/**
 * Says the steps of a procedure on standard error, and takes a line for each that hands have to do:
 * Enter says that it is done, a number where the reference is read to be, and a word what else is
 * to be done ({@link WordsOnLine}).
 */
final class StepsOnLine {
  private final PrintWriter err;
  private final Rig rig;
  private final SteppedClock bench;
  private final boolean yes;
  private final DoubtOnLine doubts;
  private int said = -1;
  private boolean asked;
  private RunEngine engine;
  private volatile boolean ended;
  private volatile RunSnapshot now;

  /**
   * @param bench does what hands do; null for a real one
   * @param yes true to take every step for done as soon as it is asked for
   * @param asks true where somebody is there to be asked
   */
  StepsOnLine(PrintWriter err, Rig rig, SteppedClock bench, boolean yes, boolean asks) {
    doubts = new DoubtOnLine(err, asks);
    this.err = err;
    this.rig = rig;
    this.bench = bench;
    this.yes = yes;
  }

  /**
   * Hears lines for an engine from now on, on a thread of its own, unless all is taken for done.
   */
  void hear(RunEngine runs, BufferedReader in) {
    engine = runs;
    if (!yes) Thread.ofPlatform().daemon().name("hands").start(() -> lines(in));
  }

  private void lines(BufferedReader in) {
    try {
      // What was typed before it was asked for says nothing of what the hands do now.
      for (String line = in.readLine(); line != null; line = in.readLine()) {
        Optional<WordsOnLine.Word> word = WordsOnLine.Word.of(line);
        if (word.isPresent()) {
          word.get().ask(engine);
          continue;
        }
        RunSnapshot n = now;
        if (n == null || !n.hands() || n.step().isEmpty()) continue;
        take(line.strip(), n, n.step().get());
      }
      ended = true;
      engine.left();
      if (now != null && now.hands()) nobody();
    } catch (IOException e) {
      err.println("standard input cannot be read any more: " + e.getMessage());
      err.flush();
    }
  }

  /** Nobody will say any more that the hands are done. */
  private void nobody() {
    err.println("nobody answers on standard input; the run can be gone on with (--resume)");
    err.flush();
    engine.breakOff();
  }

  private void take(String line, RunSnapshot n, Step s) {
    try {
      double place =
          line.isEmpty() ? place(n, s) : Value.typed(line, Unit.of(n.plan().unit())).number();
      done(n, s, place);
    } catch (QuantityException e) {
      err.println(e.getMessage());
      err.flush();
    }
  }

  private static double place(RunSnapshot n, Step s) {
    if (s.placed()) return s.at();
    return n.points().isEmpty() ? 0 : n.points().getLast().applied();
  }

  private void done(RunSnapshot n, Step s, double place) {
    if (bench != null) bench.doIt(s.deed());
    if (n.plan().reference().byHand()) rig.hand().type(place);
    engine.ask(Act.Kind.READY, "");
  }

  /** A run has news. */
  void changed(RunSnapshot n) {
    now = n;
    doubts.changed(n);
    if (n.step().isEmpty()) return;
    Step s = n.step().get();
    if (n.next() != said) {
      said = n.next();
      asked = false;
      err.println("step %d: %s. %s".formatted(n.next() + 1, s.title(), s.detail()));
      err.flush();
    }
    if (!n.hands() || asked) return;
    asked = true;
    if (yes) done(n, s, place(n, s));
    else if (ended) nobody();
    else {
      err.println(n.plan().reference().byHand() ? "Enter, or where it is:" : "Enter when done:");
      err.flush();
    }
  }

  /**
   * The procedure of a channel that has this title, or begins with it.
   *
   * @throws QuantityException naming those that there are
   */
  static Procedure named(String name, Analysis a) {
    List<Procedure> all = Jobs.of(a);
    return all.stream()
        .filter(p -> p.title().startsWith(name.strip().toLowerCase(Locale.ROOT)))
        .findFirst()
        .orElseThrow(
            () ->
                new QuantityException(
                    "read procedure '%s', expected one of %s"
                        .formatted(name, all.stream().map(Procedure::title).toList())));
  }

  /** Puts the record into an answer; true where it fails. */
  static boolean record(Answer answer, RunProgress p, Analysis a) {
    JobRecord record = p.plan().procedure().record(p.taken(), Jobs.known(a).orElseThrow());
    answer.put(
        "record",
        Answer.object(
            "procedure", p.plan().procedure().title(),
            "verdict", record.verdict().name().toLowerCase(Locale.ROOT),
            "says", record.says(),
            "lines",
                record.lines().stream()
                    .map(l -> Answer.object("what", l.what(), "value", l.value(), "note", l.note()))
                    .toList()));
    answer.table(record.lines().stream().map(l -> List.of(l.what(), l.value(), l.note())).toList());
    answer.line("%s: %s", record.verdict().name().toLowerCase(Locale.ROOT), record.says());
    return record.verdict() == Verdict.FAIL;
  }
}
