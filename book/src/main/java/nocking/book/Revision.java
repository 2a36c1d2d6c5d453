package nocking.book;

import java.time.Instant;
import nocking.channel.Channel;

/**
 * A named state of a channel.
 *
 * @param number from 1, one after the other for each channel
 */
public record Revision(
    String channelId, int number, String name, Instant madeAt, Channel channel) {}
