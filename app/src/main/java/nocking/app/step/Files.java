package nocking.app.step;

import java.nio.file.Path;
import java.util.Optional;

/** Asks the user for a file; the real one opens the system's dialog. */
public interface Files {
  /**
   * @param kind in words, for example {@code Column file}
   * @param endings for example {@code *.csv}
   */
  Optional<Path> toOpen(String kind, String... endings);

  /** A file to be written; the dialog has asked before it names an existing one. */
  Optional<Path> toSave(String kind, String suggestedName, String ending);
}
