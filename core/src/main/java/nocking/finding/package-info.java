/**
 * Judgements said aloud: what stands out on a channel, why it matters, where, and how to mend it.
 *
 * <p>A rule is one class that looks at the {@link nocking.finding.ChannelView}; rules never block
 * and never change anything. The screen, the command line and the reports show the same list.
 */
package nocking.finding;
