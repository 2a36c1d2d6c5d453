package nocking.cli;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Path;
import java.time.Clock;
import nocking.book.BookFile;
import nocking.channel.Book;
import nocking.demo.Hatchery;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** One run of the command line with what it printed. */
record Console(int code, String out, String err) {

  static Console run(Object... words) {
    var out = new StringWriter();
    var err = new StringWriter();
    String[] arguments = new String[words.length];
    for (int i = 0; i < words.length; i++) arguments[i] = words[i].toString();
    int code = NockingCli.execute(new PrintWriter(out), new PrintWriter(err), arguments);
    return new Console(code, out.toString(), err.toString());
  }

  JsonNode json() {
    return JsonMapper.shared().readTree(out);
  }

  /** A book with the demo channels in a folder. */
  static Path demoBook(Path folder) {
    Path file = folder.resolve("demo.nocking");
    Book book = Hatchery.book(Hatchery.SEED);
    try (BookFile opened = BookFile.open(file, Clock.systemUTC())) {
      opened.saveAll(book.channels(), "demo");
      opened.saveCards(book.cards(), "demo");
      opened.saveStock(book.stock(), "demo");
    }
    return file;
  }
}
