package nocking.finding;

import java.util.function.UnaryOperator;
import nocking.channel.Channel;

/** A way to mend what was found, done in one action and undone like any edit. */
public record Fix(String label, UnaryOperator<Channel> apply) {}
