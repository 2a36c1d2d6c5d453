package nocking.book;

import java.time.Instant;
import java.util.Optional;
import nocking.book.internal.Hash;
import nocking.channel.Channel;

/**
 * A named state of a channel.
 *
 * @param number from 1, one after the other for each channel
 * @param channel empty when what is stored cannot be read
 * @param problem why it cannot be read; empty when it can
 */
public record Revision(
    String channelId,
    int number,
    String name,
    Instant madeAt,
    Optional<Channel> channel,
    String problem) {
  /** What binds a stored revision to its name, its time and its very document. */
  static String hash(String channelId, int number, String name, String madeAt, String document) {
    return Hash.of(channelId, String.valueOf(number), name, madeAt, document);
  }
}
