package nocking.book;

import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Books that this process has open for writing. When it is told to end, by Ctrl+C or the end of the
 * session, they are closed like at any other end, so that a copy of the file alone is complete.
 */
final class OpenBooks {
  private static final Set<BookFile> OPEN = ConcurrentHashMap.newKeySet();

  static {
    Runtime.getRuntime()
        .addShutdownHook(Thread.ofPlatform().name("book-end").unstarted(OpenBooks::end));
  }

  private OpenBooks() {}

  private static void end() {
    for (BookFile book : List.copyOf(OPEN)) {
      try {
        book.end();
      } catch (RuntimeException e) {
        // Its log holds what the main file lacks, and the others are closed all the same.
      }
    }
  }

  static void opened(BookFile book) {
    OPEN.add(book);
  }

  static void closed(BookFile book) {
    OPEN.remove(book);
  }
}
