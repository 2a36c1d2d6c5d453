package nocking.book;

import java.nio.file.Path;
import java.time.Clock;
import nocking.channel.Channel;

/**
 * A process that edits a book without end and says each edit's number once it is acknowledged; the
 * test kills it.
 */
final class EditingProcess {
  private EditingProcess() {}

  public static void main(String[] arguments) {
    Path file = Path.of(arguments[0]);
    try (BookFile book = BookFile.open(file, Clock.systemUTC())) {
      Channel channel = Channel.blank("c", "C-1");
      for (int i = Integer.parseInt(arguments[1]) + 1; ; i++) {
        String name = String.valueOf(i);
        channel = channel.define(d -> d.withName(name));
        book.save(channel, "edit " + i);
        System.out.println(i);
        System.out.flush();
      }
    }
  }
}
