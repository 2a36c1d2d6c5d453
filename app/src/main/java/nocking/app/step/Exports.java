package nocking.app.step;

import java.nio.file.Path;
import java.util.Map;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.Supplier;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.app.desk.Outcome;
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

  /**
   * Writes bytes that take a while to make.
   *
   * @param bytes called off the interface thread
   */
  public void writeBytes(String kind, String suggestedName, String ending, Supplier<byte[]> bytes) {
    files
        .toSave(kind, suggestedName, ending)
        .ifPresent(file -> write(file, f -> Output.write(f, bytes.get(), true)));
  }

  /**
   * Writes several files that belong together; none of them where one is in the way.
   *
   * @param content for the file that the user names, what goes where; called off the interface
   *     thread
   */
  public void writeAll(
      String kind, String suggestedName, String ending, Function<Path, Map<Path, byte[]>> content) {
    files
        .toSave(kind, suggestedName, ending)
        .ifPresent(
            file ->
                write(
                    file,
                    f -> {
                      Map<Path, byte[]> all = content.apply(f);
                      // The dialog has asked for the one that was named, not for the others.
                      boolean again = java.nio.file.Files.exists(f);
                      if (!again) all.keySet().forEach(Exports::requireFree);
                      Output.writeAll(all, true);
                    }));
  }

  private static void requireFree(Path file) {
    if (!java.nio.file.Files.exists(file)) return;
    throw new BookException(
        BookException.Cause.OUTSIDE,
        file + " is there already and belongs to the file that was named; choose another name");
  }

  private void write(Path file, String text) {
    // The dialog has asked before it named an existing file.
    write(file, f -> Output.write(f, text, true));
  }

  private void write(Path file, Consumer<Path> writing) {
    Background.run(
        () ->
            Outcome.of(
                () -> {
                  writing.accept(file);
                  return "%s is written.".formatted(file);
                }),
        done -> desk.say(done.sentence(), done.failed()));
  }
}
