package nocking.app.desk;

import java.io.IOException;
import java.io.Reader;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Properties;
import nocking.book.BookException;
import nocking.book.exchange.Output;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * How someone likes the window, kept beside the log and not in the book. What cannot be read or
 * written is as if it had never been said.
 */
public final class Settings {
  private static final Logger LOG = LoggerFactory.getLogger(Settings.class);

  private final Path file;
  private final Properties said = new Properties();

  private Settings(Path file) {
    this.file = file;
  }

  /** Settings that are forgotten with the window. */
  public static Settings forgotten() {
    return new Settings(null);
  }

  /** Settings in a file, which need not exist. */
  public static Settings in(Path file) {
    var s = new Settings(file);
    if (!Files.isRegularFile(file)) return s;
    try (Reader in = Files.newBufferedReader(file, StandardCharsets.UTF_8)) {
      s.said.load(in);
    } catch (IOException | IllegalArgumentException e) {
      LOG.warn("the settings of the window cannot be read", e);
    }
    return s;
  }

  public boolean is(String name, boolean otherwise) {
    String v = said.getProperty(name);
    return v == null ? otherwise : v.equals("yes");
  }

  /** What was said in words; empty for nothing. */
  public String text(String name) {
    return said.getProperty(name, "");
  }

  /** Takes a setting and has it written when the call returns. */
  public void setNow(String name, String v) {
    said.setProperty(name, v);
    if (file != null) write();
  }

  /** Takes a setting at once and writes it in the background. */
  public void set(String name, boolean v) {
    said.setProperty(name, v ? "yes" : "no");
    if (file == null) return;
    Background.run(
        () -> {
          write();
          return this;
        },
        written -> {});
  }

  private synchronized void write() {
    var text = new StringWriter();
    try {
      Files.createDirectories(file.getParent());
      said.store(text, null);
      Output.writeForOwner(file, text.toString());
    } catch (IOException | BookException e) {
      LOG.warn("the settings of the window cannot be written", e);
    }
  }
}
