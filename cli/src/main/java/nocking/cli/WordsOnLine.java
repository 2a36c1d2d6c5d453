package nocking.cli;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import nocking.bench.run.RunEngine;
import nocking.run.Act;

/**
 * What somebody who is there types while a run goes on: a word, and behind it a reason or a remark.
 */
final class WordsOnLine {
  /** The words, for people. */
  static final String WORDS = "hold, go, skip, repeat, take, note or stop, and why";

  private static final Map<String, Act.Kind> KINDS =
      Map.of(
          "hold", Act.Kind.HOLD,
          "go", Act.Kind.GO,
          "skip", Act.Kind.SKIP,
          "repeat", Act.Kind.REPEAT,
          "take", Act.Kind.TAKE,
          "note", Act.Kind.NOTE,
          "stop", Act.Kind.STOP);

  private final PrintWriter err;

  WordsOnLine(PrintWriter err) {
    this.err = err;
  }

  /** What a line asks for. */
  record Word(Act.Kind kind, String why) {
    /** Empty where a line does not begin with one of the words. */
    static Optional<Word> of(String line) {
      String[] parts = line.strip().split("\\s+", 2);
      Act.Kind kind = KINDS.get(parts[0].toLowerCase(Locale.ROOT));
      return Optional.ofNullable(kind).map(k -> new Word(k, parts.length > 1 ? parts[1] : ""));
    }

    /** Has it done; a remark without words says nothing. */
    void ask(RunEngine engine) {
      if (kind != Act.Kind.NOTE || !why.isEmpty()) engine.ask(kind, why);
    }
  }

  /**
   * Hears words for a run from now on, on a thread of its own; whoever is gone cannot be asked any
   * more, and nothing is taken in their name.
   */
  void hear(RunEngine engine, BufferedReader in) {
    Thread.ofPlatform().daemon().name("words").start(() -> lines(engine, in));
  }

  private void lines(RunEngine engine, BufferedReader in) {
    try {
      for (String line = in.readLine(); line != null; line = in.readLine()) {
        if (line.isBlank()) continue;
        Optional<Word> word = Word.of(line);
        if (word.isEmpty()) say("read '%s', expected %s".formatted(line.strip(), WORDS));
        else word.get().ask(engine);
      }
    } catch (IOException e) {
      say("standard input cannot be read any more: " + e.getMessage());
    }
    engine.left();
  }

  private void say(String words) {
    err.println(words);
    err.flush();
  }
}
