package nocking.wiring;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import nocking.quantity.QuantityException;

/**
 * What of the steps of wiring has been done, by whom and when, and the lines that the technician
 * added.
 *
 * @param own further steps, each text once and none of it a shipped step's
 * @param done ticks, at most one for a step
 */
public record Checklist(List<WireStep> own, List<Tick> done) {
  public static final Checklist EMPTY = new Checklist(List.of(), List.of());

  /**
   * A step that has been done.
   *
   * @param step text of the step
   * @param at date and time as they were written down, ISO 8601
   * @param by who did it; empty where nobody said
   * @param measured what was found, in the technician's words; empty for nothing
   */
  public record Tick(String step, String at, String by, String measured) {
    public Tick {
      if (step == null || step.isBlank()) throw new QuantityException("a tick needs its step");
      at = at == null ? "" : at;
      by = by == null ? "" : by;
      measured = measured == null ? "" : measured;
    }
  }

  public Checklist {
    own = own == null ? List.of() : List.copyOf(own);
    done = done == null ? List.of() : List.copyOf(done);
    var texts = new HashSet<String>();
    WireStep.ALL.forEach(s -> texts.add(s.text()));
    for (WireStep s : own) {
      if (s.phase() == WireStep.Phase.NORMAL) {
        throw new QuantityException("the step '%s' is nothing to be done".formatted(s.text()));
      }
      if (!texts.add(s.text())) {
        throw new QuantityException("the step '%s' is there already".formatted(s.text()));
      }
    }
  }

  /** All steps of a phase, the shipped ones first. */
  public List<WireStep> steps(WireStep.Phase phase) {
    var list = new ArrayList<WireStep>();
    WireStep.ALL.stream().filter(s -> s.phase() == phase).forEach(list::add);
    own.stream().filter(s -> s.phase() == phase).forEach(list::add);
    return list;
  }

  public Optional<Tick> tick(WireStep step) {
    return done.stream().filter(t -> t.step().equals(step.text())).findFirst();
  }

  /** How many of the steps that are done and not only normal have their tick. */
  public int ticked() {
    return (int) todo().stream().filter(s -> tick(s).isPresent()).count();
  }

  /** The steps that are there to be done. */
  public List<WireStep> todo() {
    var list = new ArrayList<WireStep>();
    for (WireStep.Phase p : WireStep.Phase.values()) {
      if (p != WireStep.Phase.NORMAL) list.addAll(steps(p));
    }
    return list;
  }

  /**
   * With one more line.
   *
   * @throws QuantityException where it is empty or there already
   */
  public Checklist plus(WireStep.Phase phase, String text) {
    String line = text.strip();
    if (line.isEmpty()) throw new QuantityException("a step needs its words");
    var next = new ArrayList<>(own);
    next.add(new WireStep(phase, line, ""));
    return new Checklist(next, done);
  }

  /** Without an own line and its tick; a shipped step stays. */
  public Checklist without(WireStep step) {
    if (!own.contains(step)) return this;
    var next = new ArrayList<>(own);
    next.remove(step);
    return new Checklist(next, unticked(step));
  }

  /** With a step done; it takes the place of its earlier tick. */
  public Checklist with(Tick tick) {
    var next = new ArrayList<>(done);
    next.removeIf(t -> t.step().equals(tick.step()));
    next.add(tick);
    return new Checklist(own, next);
  }

  /** With a step open again. */
  public Checklist open(WireStep step) {
    return new Checklist(own, unticked(step));
  }

  private List<Tick> unticked(WireStep step) {
    var next = new ArrayList<>(done);
    next.removeIf(t -> t.step().equals(step.text()));
    return next;
  }
}
