package nocking.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import nocking.book.exchange.Output;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** A command that answers as text or, with {@code --json}, as one JSON object. */
abstract class JsonOption implements Callable<Integer> {
  /** Options whose value is written. */
  private static final Set<String> WRITTEN = Set.of("--out", "--c", "--python", "--card");

  @Spec CommandSpec spec;

  @Option(names = "--json", description = "Print one JSON object with full precision.")
  boolean json;

  @Override
  public final Integer call() {
    PrintWriter out = spec.commandLine().getOut();
    var answer = new Answer();
    int code = run(answer);
    answer.print(out, json);
    return code;
  }

  /**
   * Writes a file, but never over one that the command line names as something to be read.
   *
   * @param force true to replace an existing file
   */
  final void write(Path file, String text, boolean force) {
    write(Map.of(file, text.getBytes(StandardCharsets.UTF_8)), force);
  }

  /** Writes files that belong together: all of them or none. */
  final void write(Map<Path, byte[]> files, boolean force) {
    List<Path> read = read();
    files.keySet().forEach(f -> Output.requireNotRead(f, read));
    Output.writeAll(files, force);
  }

  /** Everything on the command line that may be a file to be read, also behind = and :. */
  private List<Path> read() {
    var read = new ArrayList<Path>();
    Iterator<String> words = spec.commandLine().getParseResult().originalArgs().stream().iterator();
    while (words.hasNext()) {
      String word = words.next();
      if (WRITTEN.contains(word.replaceFirst("=.*", ""))) {
        if (!word.contains("=") && words.hasNext()) words.next();
        continue;
      }
      for (String part : List.of(word, word.replaceFirst("^[^=:]*[=:]", ""))) {
        try {
          if (!part.isBlank()) read.add(Path.of(part));
        } catch (InvalidPathException e) {
          // What cannot be the name of a file was not read as one.
        }
      }
    }
    return read;
  }

  /**
   * @return 0, or 1 when the answer is a fail
   */
  abstract int run(Answer answer);
}
