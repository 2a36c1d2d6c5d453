package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.util.LogbackMDCAdapter;
import ch.qos.logback.core.status.StatusUtil;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What went wrong is found a month later, and the log does not fill the disk. */
class LogFileTest {
  @TempDir Path folder;

  private LoggerContext context(Path file) {
    String before = System.getProperty("nocking.log");
    System.setProperty("nocking.log", file.toString());
    try {
      var context = new LoggerContext();
      context.setMDCAdapter(new LogbackMDCAdapter());
      var log = new LogFile();
      log.setContext(context);
      log.configure(context);
      return context;
    } finally {
      if (before == null) System.clearProperty("nocking.log");
      else System.setProperty("nocking.log", before);
    }
  }

  @Test
  void errorsAreWrittenWithTheirCauseAndRemarksAreNot() throws IOException {
    Path file = folder.resolve("a place with 100 %/nocking.log");
    LoggerContext context = context(file);
    context.getLogger("nocking.test").info("only a remark");
    context.getLogger("nocking.test").error("it broke", new IllegalStateException("no solution"));
    context.stop();
    String text = Files.readString(file);
    assertThat(text).contains("ERROR", "it broke", "no solution").doesNotContain("only a remark");
  }

  /** Names of files and instruments are read on a terminal, too. */
  @Test
  void nothingInTheLogMovesACursor() throws IOException {
    Path file = folder.resolve("nocking.log");
    LoggerContext context = context(file);
    context
        .getLogger("nocking.test")
        .error("\u001b[2J\u202eodd\u0007", new IllegalStateException("\u001b]0;x\u0007"));
    context.stop();
    assertThat(Files.readString(file))
        .contains("odd", "IllegalStateException")
        .doesNotContain("\u001b", "\u0007", "\u202e");
  }

  @Test
  void aLinkInItsPlaceIsNotFollowed() throws IOException {
    Path mine = Files.writeString(folder.resolve("mine.txt"), "mine");
    Path file = Files.createSymbolicLink(folder.resolve("nocking.log"), mine);
    LoggerContext context = context(file);
    context.getLogger("nocking.test").error("it broke");
    context.stop();
    assertThat(mine).hasContent("mine");
  }

  /** A folder that cannot be written is no reason to fill the console. */
  @Test
  void aLogThatCannotBeWrittenSaysNothingOnTheConsole() throws IOException {
    Path file = Files.createFile(folder.resolve("a file")).resolve("nocking.log");
    PrintStream console = System.out;
    var said = new ByteArrayOutputStream();
    System.setOut(new PrintStream(said, true, StandardCharsets.UTF_8));
    try {
      LoggerContext context = context(file);
      context.getLogger("nocking.test").error("nobody reads this");
      assertThat(StatusUtil.contextHasStatusListener(context)).isTrue();
      context.stop();
    } finally {
      System.setOut(console);
    }
    assertThat(said.toString(StandardCharsets.UTF_8)).isEmpty();
  }

  @Test
  void fourFilesOfAMegabyteAreTheMost() throws IOException {
    Path file = folder.resolve("nocking.log");
    for (int start = 0; start < 7; start++) {
      LoggerContext context = context(file);
      for (int i = 0; i < 300; i++) context.getLogger("nocking.test").error("x".repeat(4096));
      context.stop();
    }
    try (Stream<Path> files = Files.list(folder)) {
      assertThat(files).hasSizeBetween(2, 4);
    }
  }
}
