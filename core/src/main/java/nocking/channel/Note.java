package nocking.channel;

/** A line kept from the scratch line: what was asked and what was answered. */
public record Note(String question, String answer) {}
