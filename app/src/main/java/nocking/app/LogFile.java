package nocking.app;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.encoder.PatternLayoutEncoder;
import ch.qos.logback.classic.spi.Configurator;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.rolling.FixedWindowRollingPolicy;
import ch.qos.logback.core.rolling.RollingFileAppender;
import ch.qos.logback.core.rolling.SizeBasedTriggeringPolicy;
import ch.qos.logback.core.spi.ContextAwareBase;
import ch.qos.logback.core.util.FileSize;
import java.nio.charset.StandardCharsets;
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
    String file =
        System.getProperty("nocking.log", System.getProperty("java.io.tmpdir") + "/nocking.log");
    var appender = new RollingFileAppender<ILoggingEvent>();
    appender.setContext(context);
    appender.setName("file");
    appender.setFile(file);

    var encoder = new PatternLayoutEncoder();
    encoder.setContext(context);
    encoder.setPattern("%d{yyyy-MM-dd HH:mm:ss.SSS} %-5level %logger{30} - %msg%n");
    encoder.setCharset(StandardCharsets.UTF_8);
    encoder.start();
    appender.setEncoder(encoder);

    var older = new FixedWindowRollingPolicy();
    older.setContext(context);
    older.setParent(appender);
    older.setFileNamePattern(file.replace("%", "\\%") + ".%i");
    older.setMinIndex(1);
    older.setMaxIndex(OLDER_FILES);
    older.start();
    appender.setRollingPolicy(older);

    var size = new SizeBasedTriggeringPolicy<ILoggingEvent>();
    size.setContext(context);
    size.setMaxFileSize(new FileSize(MOST_BYTES));
    size.start();
    appender.setTriggeringPolicy(size);
    appender.start();

    var root = context.getLogger(Logger.ROOT_LOGGER_NAME);
    root.setLevel(Level.WARN);
    root.addAppender(appender);
    return ExecutionStatus.DO_NOT_INVOKE_NEXT_IF_ANY;
  }
}
