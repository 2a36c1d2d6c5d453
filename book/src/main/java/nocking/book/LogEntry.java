package nocking.book;

import java.time.Instant;

/**
 * One line of the log.
 *
 * @param kind what was done: {@code edit}, {@code revision}, {@code lock} …
 */
public record LogEntry(long number, Instant madeAt, String kind, String channelId, String text) {}
