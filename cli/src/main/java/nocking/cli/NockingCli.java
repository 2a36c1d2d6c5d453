package nocking.cli;

import java.io.PrintWriter;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.function.Supplier;
import nocking.algebra.AlgebraException;
import nocking.book.BookException;
import nocking.book.exchange.ColumnException;
import nocking.channel.DocumentException;
import nocking.fit.FitException;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import org.slf4j.LoggerFactory;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.TypeConversionException;

/**
 * The command line. Exit codes: 0 done, 1 the answer is a fail, 2 not understood, 3 bad input, 4
 * something outside failed.
 */
@Command(
    name = "nocking",
    mixinStandardHelpOptions = true,
    version = "Nocking 0.1.0",
    synopsisSubcommandLabel = "[BOOK.nocking | COMMAND]",
    description = {
      "Sensor transfer equations, conditioning, calibration and checks.",
      "Without a command the application opens, on BOOK.nocking where one is given."
    })
public final class NockingCli implements Runnable {
  public static final int FAIL = 1;
  public static final int NOT_UNDERSTOOD = 2;
  public static final int BAD_INPUT = 3;
  public static final int OUTSIDE = 4;

  /** A command by its name, made when it is asked for. */
  private record Entry(String name, Supplier<Object> make) {}

  private static final List<Entry> COMMANDS =
      List.of(
          new Entry("new", NewCommand::new),
          new Entry("convert", ConvertCommand::new),
          new Entry("sensor", SensorCommand::new),
          new Entry("datasheet", DatasheetCommand::new),
          new Entry("design", DesignCommand::new),
          new Entry("path", PathCommand::new),
          new Entry("swap", SwapCommand::new),
          new Entry("ranges", RangesCommand::new),
          new Entry("tolerance", ToleranceCommand::new),
          new Entry("faults", FaultsCommand::new),
          new Entry("diagnose", DiagnoseCommand::new),
          new Entry("bands", BandsCommand::new),
          new Entry("fit", FitCommand::new),
          new Entry("table", TableCommand::new),
          new Entry("points", PointsCommand::new),
          new Entry("simulate", SimulateCommand::new),
          new Entry("run", RunCommand::new),
          new Entry("check", CheckCommand::new),
          new Entry("export", ExportCommand::new),
          new Entry("import", ImportCommand::new),
          new Entry("book", BookCommand::new),
          // Not a method reference: JDK 25 cannot put one to a class of that old version into its
          // cache.
          new Entry("help", () -> new CommandLine.HelpCommand()));

  private static final Set<String> LATER = Set.of("certificate");

  @CommandLine.Spec CommandLine.Model.CommandSpec spec;

  @Override
  public void run() {
    throw new ParameterException(spec.commandLine(), "A command is missing; see nocking --help.");
  }

  /**
   * The commands, with any others added to them.
   *
   * @param first what the arguments begin with: looking at one command takes a fraction of the time
   *     of looking at all, and most calls need one; any other word needs all, for the help
   */
  private static CommandLine commandLine(String first, Object... more) {
    var line = new CommandLine(new NockingCli());
    boolean one = !first.equals("help") && COMMANDS.stream().anyMatch(c -> c.name.equals(first));
    for (Entry c : COMMANDS) {
      if (!one || c.name.equals(first)) line.addSubcommand(c.name, c.make.get());
    }
    if (!one) for (Object command : more) line.addSubcommand(command);
    line.setColorScheme(CommandLine.Help.defaultColorScheme(CommandLine.Help.Ansi.OFF));
    line.setUsageHelpAutoWidth(true);
    line.setUnmatchedOptionsArePositionalParams(false);
    for (CommandLine sub : line.getSubcommands().values()) {
      if (sub.getCommand() instanceof CommandLine.HelpCommand) continue;
      sub.getCommandSpec().mixinStandardHelpOptions(true);
      for (CommandLine inner : sub.getSubcommands().values()) {
        inner.getCommandSpec().mixinStandardHelpOptions(true);
      }
      // "-40" is a number here before it is an unknown option.
      sub.setUnmatchedOptionsArePositionalParams(sub.getCommand() instanceof ConvertCommand);
    }
    line.registerConverter(Path.class, NockingCli::file);
    line.setParameterExceptionHandler(NockingCli::notUnderstood);
    line.setExecutionExceptionHandler(NockingCli::failed);
    return line;
  }

  private static Path file(String name) {
    try {
      if (name.isBlank()) throw new TypeConversionException("the name of a file is empty");
      return Path.of(name);
    } catch (InvalidPathException e) {
      throw new TypeConversionException(
          Sentence.readable("'%s' cannot be the name of a file".formatted(name)));
    }
  }

  /** Names of all commands, in the order of the help. */
  static List<String> commands() {
    return List.copyOf(commandLine("").getSubcommands().keySet());
  }

  /** Runs a command and returns the exit code. */
  public static int execute(PrintWriter out, PrintWriter err, String... arguments) {
    return execute(out, err, null, arguments);
  }

  /**
   * Runs a command and returns the exit code.
   *
   * @param more a command that another module brings along; null for none
   */
  public static int execute(PrintWriter out, PrintWriter err, Object more, String... arguments) {
    return plain(PlainWriter.to(out), PlainWriter.to(err), more, arguments);
  }

  private static int plain(PrintWriter out, PrintWriter err, Object more, String... arguments) {
    if (arguments.length > 0 && LATER.contains(arguments[0])) {
      err.println("nocking: " + arguments[0] + " is not available yet.");
      err.flush();
      return NOT_UNDERSTOOD;
    }
    String first = arguments.length == 0 ? "" : arguments[0];
    var line = more == null ? commandLine(first) : commandLine(first, more);
    try {
      return line.setOut(out).setErr(err).execute(arguments);
    } catch (StackOverflowError | OutOfMemoryError e) {
      return unexpected(e, err);
    } finally {
      out.flush();
      err.flush();
    }
  }

  private static int notUnderstood(ParameterException e, String[] arguments) {
    PrintWriter err = e.getCommandLine().getErr();
    Throwable cause = e.getCause();
    boolean value = cause instanceof QuantityException;
    err.println("nocking: " + sentence(value ? cause.getMessage() : e.getMessage()));
    err.flush();
    return value ? BAD_INPUT : NOT_UNDERSTOOD;
  }

  private static int failed(Exception e, CommandLine line, CommandLine.ParseResult result) {
    int code =
        switch (e) {
          case NotAvailableException _ -> NOT_UNDERSTOOD;
          case QuantityException _, ColumnException _, DocumentException _ -> BAD_INPUT;
          case FitException _, AlgebraException _ -> BAD_INPUT;
          case BookException b -> b.kind() == BookException.Cause.BAD_INPUT ? BAD_INPUT : OUTSIDE;
          default -> unexpected(e, line.getErr());
        };
    if (code == OUTSIDE && !(e instanceof BookException)) return code;
    line.getErr().println("nocking: " + sentence(e.getMessage()));
    line.getErr().flush();
    return code;
  }

  /** What nobody thought of is one sentence here, and all of it in the log. */
  private static int unexpected(Throwable e, PrintWriter err) {
    LoggerFactory.getLogger(NockingCli.class).error("a command ended unexpectedly", e);
    String what =
        switch (e) {
          case StackOverflowError _ -> "what was given is nested too deeply";
          case OutOfMemoryError _ -> "what was given needs more memory than there is";
          default ->
              "something went wrong that should not have (%s)"
                  .formatted(e.getClass().getSimpleName());
        };
    String log = System.getProperty("nocking.log");
    err.println("nocking: %s%s.".formatted(what, log == null ? "" : "; details are in " + log));
    err.flush();
    return OUTSIDE;
  }

  private static String sentence(String message) {
    String m = Sentence.readable(message).strip().replaceAll("\\s*\\R\\s*", " ");
    return m.endsWith(".") ? m : m + ".";
  }
}
