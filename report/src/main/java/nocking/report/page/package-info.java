/** Pages of a channel that are printed: what they have in common, and the receiver's settings. */
package nocking.report.page;
