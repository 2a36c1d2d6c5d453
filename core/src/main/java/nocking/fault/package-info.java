/**
 * What can be wrong with a channel, what every fault would look like, and what every pin must read.
 */
package nocking.fault;
