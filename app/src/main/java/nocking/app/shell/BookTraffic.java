package nocking.app.shell;

import java.nio.file.Path;
import java.util.List;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.app.desk.Outcome;
import nocking.app.step.Exports;
import nocking.app.step.Files;
import nocking.book.BookException;
import nocking.book.exchange.TextFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.DocumentException;
import nocking.path.GeneratedEquation;

/** Books and channels that come in and go out as files. */
final class BookTraffic {
  private final Desk desk;
  private final Files files;
  private final Exports exports;

  BookTraffic(Desk desk, Files files) {
    this.desk = desk;
    this.files = files;
    exports = new Exports(desk, files);
  }

  void importChannel() {
    files.toOpen("Channel", "*.json").ifPresent(this::importFrom);
  }

  /** Channels that were read, or the sentence why not. */
  private record Incoming(Book book, String problem) {}

  private static Incoming incoming(Path file) {
    try {
      String text = TextFile.read(file);
      return new Incoming(ChannelJson.readAny(text, file.getFileName().toString()), "");
    } catch (BookException | DocumentException e) {
      return new Incoming(null, e.getMessage() + ". The book is as it was.");
    }
  }

  private void importFrom(Path file) {
    Background.run(() -> incoming(file), read -> take(read, file.getFileName().toString()));
  }

  /** Puts channels into the book; a tag that is taken gets a number. */
  private void take(Incoming read, String name) {
    if (read.book == null) {
      desk.say(read.problem, true);
      return;
    }
    List<Channel> placed = desk.book().placing(read.book.channels());
    desk.addAll(placed, "import " + name);
    desk.editBook("import " + name, "", b -> b.withShelfOf(read.book));
    desk.say(
        "%d channel%s from %s.".formatted(placed.size(), placed.size() == 1 ? "" : "s", name),
        false);
  }

  void exportChannel() {
    desk.channel()
        .ifPresent(
            c ->
                exports.write(
                    "Channel",
                    GeneratedEquation.identifier(c.tag()) + ".json",
                    ".json",
                    ChannelJson.write(c)));
  }

  /** Another book, or the sentence why not with the present one untouched. */
  void bring(Runnable opening) {
    try {
      opening.run();
    } catch (BookException | DocumentException e) {
      desk.say(e.getMessage() + ". The open book is as it was.", true);
    }
  }

  void copyBook() {
    files
        .toSave("Bench book", "copy of " + desk.store().name(), ".nocking")
        .ifPresent(
            file ->
                Background.run(
                    () ->
                        Outcome.of(
                            () -> {
                              desk.store().copyTo(file);
                              return "The whole book is copied to %s.".formatted(file);
                            }),
                    done -> desk.say(done.sentence(), done.failed())));
  }

  void exportBook() {
    String name = desk.store().name().replaceFirst("\\.nocking$", "") + ".json";
    exports.write("Whole book", name, ".json", ChannelJson.write(desk.book()));
  }
}
