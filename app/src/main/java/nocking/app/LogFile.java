package nocking.app;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.PatternLayout;
import ch.qos.logback.classic.spi.Configurator;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.FileAppender;
import ch.qos.logback.core.encoder.LayoutWrappingEncoder;
import ch.qos.logback.core.rolling.RollingFileAppender;
import ch.qos.logback.core.rolling.RollingPolicy;
import ch.qos.logback.core.rolling.SizeBasedTriggeringPolicy;
import ch.qos.logback.core.rolling.helper.CompressionMode;
import ch.qos.logback.core.spi.ContextAwareBase;
import ch.qos.logback.core.status.NopStatusListener;
import ch.qos.logback.core.util.FileSize;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import nocking.quantity.PlainText;
import org.slf4j.Logger;

/**
 * The log: warnings and errors in one file of at most a megabyte, with three older ones beside it.
 * Said here rather than in a configuration file, which would take longer to read than most commands
 * take.
 */
public final class LogFile extends ContextAwareBase implements Configurator {
  private static final int OLDER_FILES = 3;
  private static final long MOST_BYTES = FileSize.MB_COEFFICIENT;

  @Override
  public ExecutionStatus configure(LoggerContext context) {
    // Nothing of the logging itself goes to the console, not even that the log cannot be written.
    context.getStatusManager().add(new NopStatusListener());
    var root = context.getLogger(Logger.ROOT_LOGGER_NAME);
    root.setLevel(Level.WARN);
    String file = System.getProperty("nocking.log");
    // Without a place of its own, or where a link leads elsewhere, nothing is written down.
    if (file == null || !isFree(Path.of(file))) return ExecutionStatus.DO_NOT_INVOKE_NEXT_IF_ANY;
    var appender = new RollingFileAppender<ILoggingEvent>();
    appender.setContext(context);
    appender.setName("file");
    appender.setFile(file);

    var layout = new PlainLayout();
    layout.setContext(context);
    layout.setPattern("%d{yyyy-MM-dd HH:mm:ss.SSS} %-5level %logger{30} - %msg%n");
    layout.start();
    var encoder = new LayoutWrappingEncoder<ILoggingEvent>();
    encoder.setContext(context);
    encoder.setLayout(layout);
    encoder.setCharset(StandardCharsets.UTF_8);
    encoder.start();
    appender.setEncoder(encoder);

    var older = new OlderFiles(Path.of(file));
    older.setContext(context);
    older.start();
    appender.setRollingPolicy(older);

    var size = new SizeBasedTriggeringPolicy<ILoggingEvent>();
    size.setContext(context);
    size.setMaxFileSize(new FileSize(MOST_BYTES));
    size.start();
    appender.setTriggeringPolicy(size);
    appender.start();

    root.addAppender(appender);
    return ExecutionStatus.DO_NOT_INVOKE_NEXT_IF_ANY;
  }

  private static boolean isFree(Path file) {
    return Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)
        || Files.notExists(file, LinkOption.NOFOLLOW_LINKS);
  }

  /** Whoever reads the log on a terminal reads names from files, too. */
  private static final class PlainLayout extends PatternLayout {
    @Override
    public String doLayout(ILoggingEvent event) {
      return PlainText.of(super.doLayout(event));
    }
  }

  /**
   * The older files beside the log, {@code .1} the youngest. Logback's own policy reads a pattern,
   * and a {@code %} in the name of a folder is none.
   */
  private static final class OlderFiles extends ContextAwareBase implements RollingPolicy {
    private final Path file;
    private boolean started;

    private OlderFiles(Path file) {
      this.file = file;
    }

    private Path older(int number) {
      return file.resolveSibling(file.getFileName() + "." + number);
    }

    @Override
    public void rollover() {
      try {
        for (int i = OLDER_FILES; i > 0; i--) {
          Path from = i == 1 ? file : older(i - 1);
          if (Files.exists(from)) Files.move(from, older(i), StandardCopyOption.REPLACE_EXISTING);
        }
      } catch (IOException e) {
        addError("the log was not put aside", e);
      }
    }

    @Override
    public String getActiveFileName() {
      return file.toString();
    }

    @Override
    public CompressionMode getCompressionMode() {
      return CompressionMode.NONE;
    }

    @Override
    public void setParent(FileAppender<?> appender) {
      // The name is known already.
    }

    @Override
    public void start() {
      started = true;
    }

    @Override
    public void stop() {
      started = false;
    }

    @Override
    public boolean isStarted() {
      return started;
    }
  }
}
