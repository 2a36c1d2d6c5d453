package nocking.channel;

/**
 * The sensor card that a channel's sensor was taken from.
 *
 * @param id of the card in the book
 * @param name of the card at that time, kept in case the card goes
 * @param revision of the card at that time
 */
public record CardRef(String id, String name, int revision) {}
