package nocking.app;

import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import nocking.analysis.Analysis;
import nocking.app.desk.BookStore;
import nocking.app.desk.Settings;
import nocking.book.BookException;
import nocking.channel.Book;
import nocking.channel.DocumentException;

/**
 * The opening of the first book, while the toolkit of the window starts: the book is read and its
 * first channel worked out by the time when the window is put together.
 */
final class Opening {
  /**
   * @param first analysis of the channel that is shown first; null where there is none
   */
  record Opened(BookStore store, Analysis first, Settings settings) {}

  private final CompletableFuture<Opened> opened;

  /**
   * @param news called from another thread when the store has something to say
   */
  Opening(Path file, Runnable news) {
    opened =
        CompletableFuture.supplyAsync(
            () -> open(file, news),
            work -> Thread.ofPlatform().name("book-opening").daemon().start(work));
  }

  private static Opened open(Path file, Runnable news) {
    BookStore store = DesktopApp.store(file, news);
    Settings settings = Settings.in(Folders.state().resolve("window.properties"));
    Book book = store.book();
    if (book.channels().isEmpty()) return new Opened(store, null, settings);
    var first = Analysis.of(book.channels().getFirst(), book.cards());
    first.findings();
    return new Opened(store, first, settings);
  }

  /**
   * Waits until the book is open.
   *
   * @throws BookException or DocumentException, one sentence
   */
  Opened await() {
    try {
      return opened.join();
    } catch (CompletionException e) {
      if (e.getCause() instanceof BookException b) throw b;
      if (e.getCause() instanceof DocumentException d) throw d;
      throw e;
    }
  }
}
