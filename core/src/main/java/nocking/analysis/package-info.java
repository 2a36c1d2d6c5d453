/**
 * The one pure function from a channel to everything that can be known from it. No clock, no file,
 * no window, no random source.
 */
package nocking.analysis;
