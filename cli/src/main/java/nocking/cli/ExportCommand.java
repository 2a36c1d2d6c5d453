package nocking.cli;

import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import nocking.book.BookFile;
import nocking.book.exchange.PointsCsv;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.quantity.QuantityException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Writes a book or a channel as JSON, or a channel's points as CSV. */
@Command(
    name = "export",
    description = "Write a book or one channel as .json, or a channel's reference points as .csv.")
final class ExportCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "BOOK")
  Path book;

  @Parameters(index = "1", arity = "0..1", paramLabel = "CHANNEL")
  String tag;

  @Option(names = "--out", required = true, paramLabel = "FILE")
  Path out;

  @Option(names = "--force", description = "Replace an existing file.")
  boolean force;

  @Override
  int run(Answer answer) {
    Book all;
    List<String> left;
    try (BookFile file = BookFile.openToRead(book, Clock.systemUTC())) {
      all = file.read();
      left = file.setAside();
    }
    write(out, text(all), force);
    int channels = tag == null ? all.channels().size() : 1;
    answer
        .put("file", out.toString())
        .put("channels", channels)
        .put("setAside", left)
        .line("%s: %d channel%s", out, channels, channels == 1 ? "" : "s");
    left.forEach(l -> answer.line("%s", l));
    return left.isEmpty() || tag != null ? 0 : NockingCli.FAIL;
  }

  private String text(Book all) {
    String name = out.getFileName().toString().toLowerCase(Locale.ROOT);
    if (name.endsWith(".xlsx")) throw new NotAvailableException("export as .xlsx");
    boolean json = name.endsWith(".json");
    if (!json && !name.endsWith(".csv")) {
      throw new QuantityException("--out takes a name ending in .json or .csv; read " + out);
    }
    if (tag == null) {
      if (!json) throw new QuantityException("a .csv holds the points of one channel; name it");
      return ChannelJson.write(all);
    }
    Channel channel = ChannelFiles.find(all, tag, book);
    return json ? ChannelJson.write(channel) : PointsCsv.write(channel);
  }
}
