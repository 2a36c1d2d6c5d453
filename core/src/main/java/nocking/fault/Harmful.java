package nocking.fault;

/** A fault and what it does beside falsifying a reading. */
public record Harmful(Fault fault, Harm harm) {}
