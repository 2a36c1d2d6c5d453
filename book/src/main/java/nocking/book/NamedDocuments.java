package nocking.book;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import nocking.book.internal.Hash;
import nocking.book.internal.SqliteDialect;
import org.jdbi.v3.core.Handle;

/**
 * A table of the shelf in which each row is a document with a name. One that cannot be read keeps
 * nobody from reading the others, and stays in the file as it is.
 */
final class NamedDocuments<T> {
  private final Handle handle;
  private final String table;
  private final String kind;
  private final int since;
  private final Set<String> unreadable = new HashSet<>();

  /**
   * @param kind what one of them is called
   * @param since first version of the schema that has the table
   */
  NamedDocuments(Handle handle, String table, String kind, int since) {
    this.handle = handle;
    this.table = table;
    this.kind = kind;
    this.since = since;
  }

  private boolean lacking() {
    return SqliteDialect.version(handle) < since;
  }

  List<T> read(SetAside aside, Function<String, T> reading) {
    unreadable.clear();
    if (lacking()) return List.of();
    return handle
        .createQuery("SELECT document, name FROM <table> ORDER BY place")
        .define("table", table)
        .map(
            (r, c) -> {
              String document = r.getString(1);
              Optional<T> one =
                  aside.read(kind + " " + r.getString(2), () -> reading.apply(document));
              if (one.isEmpty()) unreadable.add(document);
              return one;
            })
        .list()
        .stream()
        .flatMap(Optional::stream)
        .toList();
  }

  /** All documents as they stand in the file. */
  List<String> documents() {
    if (lacking()) return List.of();
    return handle
        .createQuery("SELECT document FROM <table> ORDER BY place")
        .define("table", table)
        .mapTo(String.class)
        .list();
  }

  /** Replaces all that could be read; returns the hash for the log. */
  String put(List<T> list, Function<T, String> name, Function<T, String> writing) {
    List<String> before = documents();
    var names = new ArrayList<String>();
    var documents = new ArrayList<String>();
    for (T one : list) {
      names.add(name.apply(one));
      documents.add(writing.apply(one));
    }
    for (String document : before) {
      if (!unreadable.contains(document)) continue;
      names.add("unreadable");
      documents.add(document);
    }
    handle.createUpdate("DELETE FROM <table>").define("table", table).execute();
    for (int i = 0; i < documents.size(); i++) {
      handle
          .createUpdate(
              "INSERT INTO <table> (place, name, document) VALUES (:place, :name, :document)")
          .define("table", table)
          .bind("place", i)
          .bind("name", names.get(i))
          .bind("document", documents.get(i))
          .execute();
    }
    return Hash.of(documents.toArray(String[]::new));
  }
}
