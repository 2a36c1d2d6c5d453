package nocking.book;

import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import nocking.channel.Channel;

/**
 * A process that edits a book, takes channels in and names revisions without end, and says each
 * step's number once it is acknowledged; the test kills it.
 */
final class EditingProcess {
  /** Every so many steps a revision is named. */
  static final int NAMED = 5;

  private EditingProcess() {}

  public static void main(String[] arguments) {
    Path file = Path.of(arguments[0]);
    try (BookFile book = BookFile.open(file, Clock.systemUTC())) {
      Channel channel = Channel.blank("c", "C-1");
      for (int i = Integer.parseInt(arguments[1]) + 1; ; i++) {
        String name = String.valueOf(i);
        channel = channel.define(d -> d.withName(name));
        switch (i % NAMED) {
          case 0 -> {
            book.save(channel, "edit " + i);
            book.nameRevision(channel, name);
          }
          case 1 ->
              book.saveAll(
                  List.of(channel, Channel.blank("d", "D-1").define(d -> d.withName(name))),
                  "import " + i);
          default -> book.save(channel, "edit " + i);
        }
        System.out.println(i);
        System.out.flush();
      }
    }
  }
}
