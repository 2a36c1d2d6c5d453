package nocking.book.internal;

import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.IntStream;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.Jdbi;

/**
 * The tables of a file held against those that the migrations make. What a file brings along beside
 * them, a view in the place of a table or a trigger that changes what is written, would else be
 * done by SQLite without a word.
 *
 * @param broken what is missing or is not what it is called: such a file is no bench book; empty
 *     for none
 * @param foreign what is not the program's: such a book is not written to; empty for none
 */
public record BookSchema(String broken, List<String> foreign) {
  /** Things that one file may have before it is looked at no further. */
  private static final int MOST = 1000;

  /** The migrations' own memory, which a book may lack (Flyway 13, SQLite). */
  private static final List<Part> HISTORY =
      List.of(
          new Part(
              "table",
              "flyway_schema_history",
              """
              CREATE TABLE "flyway_schema_history" ( "installed_rank" INT NOT NULL PRIMARY KEY, \
              "version" VARCHAR(50), "description" VARCHAR(200) NOT NULL, \
              "type" VARCHAR(20) NOT NULL, "script" VARCHAR(1000) NOT NULL, "checksum" INT, \
              "installed_by" VARCHAR(100) NOT NULL, "installed_on" TEXT NOT NULL DEFAULT \
              (strftime('%Y-%m-%d %H:%M:%f','now')), "execution_time" INT NOT NULL, \
              "success" BOOLEAN NOT NULL )"""),
          new Part(
              "index",
              "flyway_schema_history_s_idx",
              """
              CREATE INDEX "flyway_schema_history_s_idx" ON "flyway_schema_history" \
              ("success")"""));

  private static final Map<Integer, Map<String, Part>> SHIPPED = new ConcurrentHashMap<>();

  /** One line of SQLite's own table of what there is (SQLite, The Schema Table). */
  private record Part(String type, String name, String sql) {
    /** Blanks and the quotes around a name mean nothing, and tools change them. */
    Part {
      sql = sql.replaceAll("\\s+", " ").replace("\"", "").strip();
    }

    /** SQLite's own: the index of a key, or the statistics of ANALYZE. */
    boolean internal() {
      return name.startsWith("sqlite_")
          && (type.equals("index") && sql.isEmpty() || name.startsWith("sqlite_stat"));
    }

    /** One whose content is made by a program. */
    boolean virtual() {
      return !sql.startsWith("CREATE TABLE");
    }

    String words() {
      return "the %s '%s'".formatted(type, name);
    }
  }

  /**
   * @param version what the file says of itself; its tables may be further, after a migration that
   *     was cut off before it was stamped
   */
  public static BookSchema of(Handle h, int version) {
    if (version < 1) return new BookSchema("it is of version " + version, List.of());
    Map<String, Part> there = parts(h);
    if (version > Migrations.CURRENT) return newer(there);
    return IntStream.rangeClosed(version, Migrations.CURRENT)
        .mapToObj(v -> against(shipped(v), there))
        .filter(s -> s.broken.isEmpty())
        .min((a, b) -> Integer.compare(a.foreign.size(), b.foreign.size()))
        .orElseGet(() -> against(shipped(version), there));
  }

  /** Of a later version only what is read here is known. */
  private static BookSchema newer(Map<String, Part> there) {
    for (Part p : shipped(Migrations.CURRENT).values()) {
      Part found = there.get(p.name);
      if (found == null || !found.type.equals(p.type) || found.virtual())
        return new BookSchema(lack(p, found), List.of());
    }
    return new BookSchema("", List.of());
  }

  private static BookSchema against(Map<String, Part> shipped, Map<String, Part> there) {
    for (Part p : shipped.values()) {
      Part found = there.get(p.name);
      if (!p.equals(found)) return new BookSchema(lack(p, found), List.of());
    }
    return new BookSchema(
        "",
        there.values().stream()
            .filter(p -> !shipped.containsKey(p.name) && !HISTORY.contains(p) && !p.internal())
            .map(Part::words)
            .toList());
  }

  private static String lack(Part p, Part found) {
    if (found == null) return "it has no table %s".formatted(p.name);
    return found.type.equals(p.type)
        ? "its table %s is not one of a bench book".formatted(p.name)
        : "its table %s is a %s".formatted(p.name, found.type);
  }

  private static Map<String, Part> parts(Handle h) {
    var parts = new LinkedHashMap<String, Part>();
    h.createQuery("SELECT type, name, sql FROM sqlite_schema LIMIT " + MOST)
        .map(
            (r, c) ->
                new Part(
                    r.getString(1), r.getString(2), Optional.ofNullable(r.getString(3)).orElse("")))
        .list()
        .forEach(p -> parts.put(p.name, p));
    return parts;
  }

  private static Map<String, Part> shipped(int version) {
    return SHIPPED.computeIfAbsent(version, BookSchema::made);
  }

  /** What the migrations make, asked of SQLite itself. */
  private static Map<String, Part> made(int version) {
    try (Handle h = Jdbi.create("jdbc:sqlite::memory:").open();
        Statement s = h.getConnection().createStatement()) {
      for (int v = 1; v <= version; v++) s.executeUpdate(Migrations.script(v));
      var parts = new LinkedHashMap<>(parts(h));
      parts.values().removeIf(Part::internal);
      return parts;
    } catch (SQLException e) {
      throw new IllegalStateException("the shipped tables cannot be made", e);
    }
  }

  /** All that is wrong, one sentence each. */
  public List<String> problems() {
    if (!broken.isEmpty()) return List.of(broken);
    var problems = new ArrayList<String>();
    for (String f : foreign) problems.add("%s is not Nocking's".formatted(f));
    return problems;
  }

  /** Why a book with such tables is not written to; empty where it may be. */
  public String readOnlyBecause() {
    if (foreign.isEmpty()) return "";
    String others = foreign.size() == 1 ? "" : " and %d more things".formatted(foreign.size() - 1);
    return "it holds %s%s, which %s not Nocking's"
        .formatted(foreign.getFirst(), others, foreign.size() == 1 ? "is" : "are");
  }
}
