/**
 * The signal path of a channel: sensor, stages, converter; its transfer equation with the steps of
 * the derivation; and the read-out of every test point at a probe position.
 */
package nocking.path;
