package nocking.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import nocking.analysis.SummedPoints;
import nocking.book.BookException;
import nocking.book.BookFile;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.PointsCsv;
import nocking.book.exchange.StockCsv;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.DocumentException;
import nocking.channel.SensorCard;
import nocking.parts.StockPart;
import nocking.points.PointSet;
import nocking.points.PointSum;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.prior.PriorWeights;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Takes channels from JSON or reference points from CSV into a book. */
@Command(
    name = "import",
    description =
        "Take channels from .json, or points of --channel from .csv or --sum, into a book.")
final class ImportCommand extends JsonOption {
  @Parameters(index = "0", arity = "0..1", paramLabel = "FILE")
  Path file;

  @Option(names = "--book", required = true, paramLabel = "BOOK")
  Path book;

  @Option(names = "--channel", paramLabel = "TAG", description = "Channel that the points are for.")
  String tag;

  @Option(
      names = "--sum",
      paramLabel = "TAG+TAG",
      description = "The points are those of these channels of the book, added up.")
  String sum;

  @Option(names = "--stock", description = "The file is a drawer of parts; it replaces the book's.")
  boolean stock;

  @Option(
      names = "--force",
      description =
          "Replace channels that have the same tag; take points in that are there already.")
  boolean force;

  @Override
  int run(Answer answer) {
    if (sum != null) return added(answer);
    if (file == null) {
      throw new QuantityException("expected a file ending in .json or .csv, or --sum TAG+TAG");
    }
    String name = file.getFileName().toString().toLowerCase(Locale.ROOT);
    if (name.endsWith(".json")) return channels(answer);
    if (name.endsWith(".csv")) return stock ? drawer(answer) : points(answer);
    if (name.endsWith(".xlsx")) throw new NotAvailableException("import of .xlsx");
    throw new QuantityException("expected a file ending in .json or .csv; read " + file);
  }

  private BookFile open() {
    BookFile opened = BookFile.open(book, Clock.systemUTC());
    if (opened.writable()) return opened;
    opened.close();
    throw new BookException(
        BookException.Cause.OUTSIDE, book + " cannot be changed: " + opened.readOnlyBecause());
  }

  private int channels(Answer answer) {
    Book incoming = ChannelFiles.book(file);
    try (BookFile opened = open()) {
      Book present = opened.read();
      Book after = withShelf(present, incoming);
      for (Channel c : incoming.channels()) after = after.with(placed(c, present));
      opened.save(present, after, "imported from " + file.getFileName());
    }
    int n = incoming.channels().size();
    answer
        .put("channels", n)
        .put("points", 0)
        .line("%s: %d channel%s taken in", book, n, n == 1 ? "" : "s");
    return 0;
  }

  /** The channel under the id it has in the book; a locked one is never replaced. */
  private Channel placed(Channel c, Book present) {
    Optional<Channel> same = present.byTag(c.tag()).or(() -> present.byId(c.id()));
    if (same.isEmpty()) return c;
    if (!force) {
      throw new DocumentException(
          "%s is in %s already; --force replaces it".formatted(same.get().tag(), book));
    }
    if (same.get().journal().locked()) {
      throw new DocumentException(
          "%s is locked in %s; unlock it first".formatted(same.get().tag(), book));
    }
    return c.withId(same.get().id());
  }

  /**
   * New cards are added; drawer, instruments, shapes, meter and weights are taken where the book
   * has none of its own or it is forced.
   */
  private Book withShelf(Book present, Book incoming) {
    Book b = present;
    for (SensorCard c : incoming.cards()) {
      if (force || present.card(c.id()).isEmpty()) b = b.with(c);
    }
    boolean takes = force || present.stock().isEmpty();
    if (takes && !incoming.stock().isEmpty()) b = b.withStock(incoming.stock());
    boolean equips = force || present.instruments().isEmpty();
    if (equips && !incoming.instruments().isEmpty()) b = b.withInstruments(incoming.instruments());
    boolean shapes = force || present.shapes().isEmpty();
    if (shapes && !incoming.shapes().isEmpty()) b = b.withShapes(incoming.shapes());
    boolean weighs = force || present.priorWeights().equals(PriorWeights.USUAL);
    if (weighs && !incoming.priorWeights().equals(PriorWeights.USUAL)) {
      b = b.withPriorWeights(incoming.priorWeights());
    }
    return b;
  }

  private int drawer(Answer answer) {
    List<StockPart> parts = StockCsv.read(ColumnFile.read(file));
    try (BookFile opened = open()) {
      if (!opened.read().stock().isEmpty() && !force) {
        throw new DocumentException(book + " has a drawer already; --force replaces it");
      }
      opened.saveStock(parts, "imported from " + file.getFileName());
    }
    answer
        .put("channels", 0)
        .put("points", 0)
        .put("parts", parts.size())
        .line("%s: a drawer of %s of parts taken in", book, Sentence.count(parts.size(), "kind"));
    return 0;
  }

  private int added(Answer answer) {
    if (file != null || stock) {
      throw new QuantityException("--sum takes points of the book itself; it goes with no file");
    }
    requirePlace();
    int n;
    int known;
    String says;
    try (BookFile opened = open()) {
      Book present = opened.read();
      Channel channel = unlocked(present);
      PointSum added = SummedPoints.of(present, sum, channel);
      List<ReferencePoint> points = added.points().points();
      PointSet set = channel.calibration().points();
      known = set.holds(points);
      if (known == points.size() && !force) return allThere(answer, known);
      opened.save(
          channel.calibration(
              k -> k.withPoints(new PointSet(added.points().raw(), set.points()).plus(points))),
          "points added up from " + sum);
      n = points.size();
      says = SummedPoints.says(added, known);
    }
    answer.put("channels", 0).put("points", n).put("alike", known).line("%s: %s", tag, says);
    return 0;
  }

  private void requirePlace() {
    if (tag == null) throw new QuantityException("points need --channel TAG");
    if (!Files.exists(book)) throw new DocumentException(book + " does not exist");
  }

  private Channel unlocked(Book present) {
    Channel channel = ChannelFiles.find(present, tag, book);
    if (channel.journal().locked()) {
      throw new DocumentException("%s is locked; unlock it first".formatted(channel.tag()));
    }
    return channel;
  }

  private int allThere(Answer answer, int known) {
    answer.put("channels", 0).put("points", 0).put("alike", known);
    answer.line(
        "%s: all %d points are there already, none taken in; --force takes them in once more",
        tag, known);
    return 0;
  }

  private int points(Answer answer) {
    requirePlace();
    ColumnFile columns = ColumnFile.read(file);
    int n;
    int known;
    try (BookFile opened = open()) {
      Channel channel = unlocked(opened.read());
      PointSet set = channel.calibration().points();
      PointsCsv.Mapping mapping = PointsCsv.guess(columns, channel);
      RawUnit raw = PointsCsv.rawUnit(columns, mapping, set.raw());
      if (!set.points().isEmpty() && raw != set.raw()) {
        throw new DocumentException(
            "%s holds %s, but the points of %s are in %s"
                .formatted(file, raw.unit().symbol(), tag, set.raw().unit().symbol()));
      }
      List<ReferencePoint> read = PointsCsv.read(columns, mapping, channel.unit(), raw);
      known = set.holds(read);
      if (known == read.size() && !force) return allThere(answer, known);
      opened.save(
          channel.calibration(k -> k.withPoints(new PointSet(raw, set.points()).plus(read))),
          "points imported from " + file.getFileName());
      n = read.size();
    }
    answer.put("channels", 0).put("points", n).put("alike", known);
    answer.line("%s: %d point%s taken in", tag, n, n == 1 ? "" : "s");
    if (known > 0) answer.line("%d of them like points that were there already", known);
    return 0;
  }
}
