package nocking.book;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import nocking.book.internal.Hash;
import nocking.book.internal.SqliteDialect;
import nocking.channel.ChannelJson;
import nocking.channel.PracticeResult;
import nocking.channel.PracticeResult.Effort;
import nocking.channel.RunJson;
import nocking.channel.SensorCard;
import nocking.parts.StockPart;
import nocking.prior.PriorWeights;
import nocking.run.Instrument;
import nocking.table.ReceiverShape;
import org.jdbi.v3.core.Handle;

/**
 * What a book has beside its channels: sensor cards, the drawer, instruments, the bench's weights
 * and results of practice. A book of an earlier version that is open read-only lacks some of the
 * tables.
 */
final class Shelf {
  /** First version of the schema that has cards and stock. */
  private static final int WITH_CARDS = 2;

  /** First version of the schema that has results of practice and what a bench weighs by. */
  private static final int WITH_PRACTICE = 3;

  /** First version of the schema that has how long practice took. */
  private static final int WITH_TIME = 4;

  /** First version of the schema that has instruments. */
  private static final int WITH_INSTRUMENTS = 5;

  /** First version of the schema that has receivers' shapes. */
  private static final int WITH_SHAPES = 6;

  private final Handle handle;
  private final String fileName;
  private final Set<String> unreadableCards = new HashSet<>();
  private final NamedDocuments<Instrument> instruments;
  private final NamedDocuments<ReceiverShape> shapes;

  Shelf(Handle handle, String fileName) {
    this.handle = handle;
    this.fileName = fileName;
    instruments = new NamedDocuments<>(handle, "instrument", "instrument", WITH_INSTRUMENTS);
    shapes = new NamedDocuments<>(handle, "receiver_shape", "shape of a receiver", WITH_SHAPES);
  }

  private boolean lacks(int version) {
    return SqliteDialect.version(handle) < version;
  }

  List<SensorCard> cards(SetAside aside) {
    unreadableCards.clear();
    if (lacks(WITH_CARDS)) return List.of();
    return handle
        .createQuery("SELECT document, name, id FROM card ORDER BY place")
        .map(
            (r, c) -> {
              Optional<SensorCard> card =
                  aside.read(
                      "sensor card " + r.getString(2),
                      () -> ChannelJson.readCard(r.getString(1), fileName));
              if (card.isEmpty()) unreadableCards.add(r.getString(3));
              return card;
            })
        .list()
        .stream()
        .flatMap(Optional::stream)
        .toList();
  }

  /** Documents of all cards as they stand in the file. */
  List<String> cardDocuments() {
    if (lacks(WITH_CARDS)) return List.of();
    return handle
        .createQuery("SELECT document FROM card ORDER BY place")
        .mapTo(String.class)
        .list();
  }

  /** Replaces all cards that could be read; returns the hash for the log. */
  String putCards(List<SensorCard> cards) {
    for (String id : handle.createQuery("SELECT id FROM card").mapTo(String.class).list()) {
      if (!unreadableCards.contains(id)) handle.execute("DELETE FROM card WHERE id = ?", id);
    }
    var documents = new ArrayList<String>();
    for (SensorCard c : cards) {
      String document = ChannelJson.compact(c);
      handle.execute(
          "INSERT INTO card (id, place, name, document) VALUES (?, ?, ?, ?)",
          c.id(),
          documents.size(),
          c.name(),
          document);
      documents.add(document);
    }
    return Hash.of(documents.toArray(String[]::new));
  }

  List<StockPart> stock() {
    if (lacks(WITH_CARDS)) return List.of();
    return handle
        .createQuery(
            "SELECT name, ohms, tolerance, watts, volts, quantity FROM stock ORDER BY place")
        .map(
            (r, c) ->
                new StockPart(
                    r.getString(1),
                    r.getDouble(2),
                    r.getDouble(3),
                    r.getDouble(4),
                    r.getDouble(5),
                    r.getInt(6)))
        .list();
  }

  /** Replaces the whole drawer; returns the hash for the log. */
  String putStock(List<StockPart> stock) {
    handle.execute("DELETE FROM stock");
    int place = 0;
    for (StockPart p : stock) {
      handle.execute(
          """
          INSERT INTO stock (place, name, ohms, tolerance, watts, volts, quantity)
          VALUES (?, ?, ?, ?, ?, ?, ?)
          """,
          place++,
          p.name(),
          p.ohms(),
          p.tolerance(),
          p.watts(),
          p.volts(),
          p.quantity());
    }
    return ShelfHash.of(stock);
  }

  PriorWeights priorWeights(SetAside aside) {
    if (lacks(WITH_PRACTICE)) return PriorWeights.USUAL;
    return handle
        .createQuery("SELECT document FROM weighing")
        .map(
            (r, c) ->
                aside.read(
                    "bench's weights", () -> ChannelJson.readWeighing(r.getString(1), fileName)))
        .findOne()
        .flatMap(w -> w)
        .orElse(PriorWeights.USUAL);
  }

  /** The bench's weights as they stand in the file; empty while they are the usual ones. */
  List<String> weighingDocuments() {
    if (lacks(WITH_PRACTICE)) return List.of();
    return handle.createQuery("SELECT document FROM weighing").mapTo(String.class).list();
  }

  /** Replaces the bench's weights; returns the hash for the log. */
  String putPriorWeights(PriorWeights priorWeights) {
    String document = ChannelJson.compact(priorWeights);
    handle.execute("DELETE FROM weighing");
    handle.execute("INSERT INTO weighing (place, document) VALUES (1, ?)", document);
    return Hash.of(document);
  }

  List<Instrument> instruments(SetAside aside) {
    return instruments.read(aside, document -> RunJson.readInstrument(document, fileName));
  }

  /** Documents of all instruments as they stand in the file. */
  List<String> instrumentDocuments() {
    return instruments.documents();
  }

  /** Replaces all instruments that could be read; returns the hash for the log. */
  String putInstruments(List<Instrument> list) {
    return instruments.put(list, Instrument::name, RunJson::compact);
  }

  List<ReceiverShape> shapes(SetAside aside) {
    return shapes.read(aside, document -> ChannelJson.readShape(document, fileName));
  }

  /** Documents of all receivers' shapes as they stand in the file. */
  List<String> shapeDocuments() {
    return shapes.documents();
  }

  /** Replaces all shapes that could be read; returns the hash for the log. */
  String putShapes(List<ReceiverShape> list) {
    return shapes.put(list, ReceiverShape::name, ChannelJson::compact);
  }

  List<PracticeResult> practice() {
    if (lacks(WITH_PRACTICE)) return List.of();
    return handle
        .createQuery(
            """
            SELECT learner, channel, difficulty, hidden, named, correct, measurements, planned, date,
              <effort>
            FROM practice ORDER BY place
            """)
        .define("effort", lacks(WITH_TIME) ? "NULL, NULL, NULL" : "seconds, live, live_planned")
        .map(
            (r, c) ->
                new PracticeResult(
                    r.getString(1),
                    r.getString(2),
                    r.getString(3),
                    r.getString(4),
                    r.getString(5),
                    r.getInt(6) != 0,
                    r.getInt(7),
                    r.getInt(8),
                    r.getString(9),
                    effort(r)))
        .list();
  }

  private static Optional<Effort> effort(ResultSet r) throws SQLException {
    int seconds = r.getInt(10);
    return r.wasNull()
        ? Optional.empty()
        : Optional.of(new Effort(seconds, r.getInt(11), r.getInt(12)));
  }

  /** Adds a result of practice behind the others; returns the hash for the log. */
  String addPractice(PracticeResult p) {
    handle.execute(
        """
        INSERT INTO practice (place, learner, channel, difficulty, hidden, named, correct,
          measurements, planned, date, seconds, live, live_planned)
        VALUES ((SELECT COALESCE(MAX(place), 0) + 1 FROM practice), ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?,
          ?)
        """,
        p.learner(),
        p.channel(),
        p.difficulty(),
        p.hidden(),
        p.named(),
        p.right() ? 1 : 0,
        p.measurements(),
        p.planned(),
        p.date(),
        p.effort().map(Effort::seconds).orElse(null),
        p.effort().map(Effort::live).orElse(null),
        p.effort().map(Effort::livePlanned).orElse(null));
    return ShelfHash.of(p);
  }
}
