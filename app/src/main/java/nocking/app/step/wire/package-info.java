/** Wire: the pins and what they must read. */
package nocking.app.step.wire;
