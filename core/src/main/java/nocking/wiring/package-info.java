/** The wires of a channel, where it can be measured, and what was measured there. */
package nocking.wiring;
