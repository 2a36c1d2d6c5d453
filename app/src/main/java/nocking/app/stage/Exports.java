package nocking.app.stage;

import java.nio.file.Path;
import java.util.Optional;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.book.BookException;
import nocking.book.exchange.Output;

/** Writes a text to a file that the user names, and says how it went. */
public final class Exports {
  private final Desk desk;
  private final Files files;

  public Exports(Desk desk, Files files) {
    this.desk = desk;
    this.files = files;
  }

  /**
   * @param kind in words, for the dialog
   * @param ending of the file's name, for example {@code .json}
   */
  public void write(String kind, String suggestedName, String ending, String text) {
    files.toSave(kind, suggestedName, ending).ifPresent(file -> write(file, text));
  }

  private void write(Path file, String text) {
    Background.run(
        () -> {
          try {
            // The dialog has asked before it named an existing file.
            Output.write(file, text, true);
            return Optional.<String>empty();
          } catch (BookException e) {
            return Optional.of(e.getMessage() + ".");
          }
        },
        problem -> desk.say(problem.orElse("%s is written.".formatted(file)), problem.isPresent()));
  }
}
