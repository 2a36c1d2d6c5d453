package nocking.book;

import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Documents of a book that cannot be read: they stay in the file as they are, and it is said. */
final class SetAside {
  /** Reads one document of many. */
  interface Document<T> {
    T read() throws SQLException;
  }

  private final List<String> sentences = new ArrayList<>();

  <T> Optional<T> read(String what, Document<T> document) throws SQLException {
    try {
      return Optional.of(document.read());
    } catch (IllegalArgumentException e) {
      sentences.add(
          "The %s cannot be read and is left in the file as it is: %s"
              .formatted(what, e.getMessage()));
      return Optional.empty();
    }
  }

  List<String> sentences() {
    return List.copyOf(sentences);
  }
}
