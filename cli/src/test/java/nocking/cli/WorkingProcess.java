package nocking.cli;

import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import nocking.book.BookFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.parts.StockPart;
import nocking.points.RawUnit;
import nocking.table.Cell;
import nocking.table.Transfer;
import nocking.table.TypedCell;

/**
 * A process that does what is done to a book in a day, over and over, and says each thing once it
 * is done; the test kills it.
 */
final class WorkingProcess {
  private final Path home;
  private final Path book;

  private WorkingProcess(Path home) {
    this.home = home;
    book = home.resolve("b.nocking");
  }

  public static void main(String[] arguments) {
    var work = new WorkingProcess(Path.of(arguments[0]));
    var random = new Random(Long.parseLong(arguments[2]));
    for (int i = Integer.parseInt(arguments[1]) + 1; ; i++) {
      System.out.println(work.one(random.nextInt(7), i));
      System.out.flush();
    }
  }

  private String one(int kind, int i) {
    return switch (kind) {
      case 0 -> {
        command("import", home.resolve("incoming.json"), "--book", book, "--force");
        yield "import";
      }
      case 1 -> {
        edit("opened", b -> b);
        command("book", "copy", book, "--out", home.resolve("copy " + i + ".nocking"));
        yield "copy " + i;
      }
      case 2 -> {
        edit("opened", b -> b);
        command("export", book, "--out", home.resolve("out.json"), "--force");
        yield "export " + i;
      }
      case 3 -> edit("lock " + i, b -> b.with(locked(subject(b), i)));
      case 4 -> edit("stock " + i, b -> b.withStock(drawer(i)));
      case 5 -> {
        try (BookFile f = BookFile.open(book, Clock.systemUTC())) {
          f.nameRevision(subject(f.read()), "revision " + i);
        }
        yield "revision " + i;
      }
      default -> edit("transfer " + i, b -> b.with(transferred(subject(b), i)));
    };
  }

  private static void command(Object... words) {
    Console said = Console.run(words);
    if (said.code() != 0) throw new IllegalStateException(said.err());
  }

  private interface Edit {
    Book of(Book book);
  }

  private String edit(String what, Edit edit) {
    try (BookFile f = BookFile.open(book, Clock.systemUTC())) {
      Book before = f.read();
      f.save(before, edit.of(before), what);
    }
    return what;
  }

  private static Channel subject(Book b) {
    return b.byTag("W-1").orElseGet(() -> Channel.blank("w", "W-1"));
  }

  private static Channel locked(Channel c, int i) {
    return c.journal(j -> j.withLocked(i % 2 == 0)).define(d -> d.withName(String.valueOf(i)));
  }

  private static List<StockPart> drawer(int i) {
    return Stream.of(1e3, 2e3, 4.7e3)
        .map(ohms -> new StockPart("of edit " + i, ohms, 1, 0.25, 200, i))
        .toList();
  }

  private static Channel transferred(Channel c, int i) {
    var all = Stream.concat(c.receiver().transfers().stream(), Stream.of(transfer(i)));
    return c.receiver(r -> r.withTransfers(all.toList()));
  }

  private static Transfer transfer(int i) {
    List<TypedCell> cells = List.of(TypedCell.of(new Cell(0, i)), TypedCell.of(new Cell(100, 2)));
    return new Transfer(
        "2026-04-01T12:00", String.valueOf(i), "typed in", "", RawUnit.COUNTS, "mm", cells);
  }
}
