package nocking.cli;

import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import nocking.book.BookFile;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Commands about a whole book. */
@Command(
    name = "book",
    description = "Commands about a whole book.",
    subcommands = {BookCommand.Verify.class, BookCommand.Copy.class})
final class BookCommand implements Runnable {
  @Spec CommandLine.Model.CommandSpec spec;

  @Override
  public void run() {
    throw new ParameterException(
        spec.commandLine(),
        "book needs a command: nocking book verify BOOK, or nocking book copy BOOK --out FILE");
  }

  /** Integrity of a book; exit code 1 when something is wrong. */
  @Command(name = "verify", description = "Check the file, documents, revisions and log of a book.")
  static final class Verify extends JsonOption {
    @Parameters(index = "0", paramLabel = "BOOK")
    Path book;

    @Override
    int run(Answer answer) {
      List<String> problems;
      try (BookFile file = BookFile.openToRead(book, Clock.systemUTC())) {
        problems = file.problems();
      }
      answer.put("ok", problems.isEmpty()).put("problems", problems);
      if (problems.isEmpty()) answer.line("%s is sound", book);
      problems.forEach(p -> answer.line("%s: %s", book, p));
      return problems.isEmpty() ? 0 : NockingCli.FAIL;
    }
  }

  /** A complete copy, also of a book that is open elsewhere. */
  @Command(
      name = "copy",
      description = "Write a complete copy of a book, also of one that is open in a window.")
  static final class Copy extends JsonOption {
    @Parameters(index = "0", paramLabel = "BOOK")
    Path book;

    @Option(names = "--out", paramLabel = "FILE", required = true, description = "The new file.")
    Path out;

    @Override
    int run(Answer answer) {
      try (BookFile file = BookFile.openToRead(book, Clock.systemUTC())) {
        file.copyTo(out);
      }
      answer.put("file", out.toString());
      answer.line("%s is a complete copy of %s", out, book);
      return 0;
    }
  }
}
