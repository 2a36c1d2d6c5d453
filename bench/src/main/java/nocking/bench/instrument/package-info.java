/**
 * Instruments that answer: standard commands over TCP and lines over a serial line or TCP. What
 * goes wrong is an {@link nocking.bench.instrument.InstrumentException} with one sentence; nothing
 * here tries again by itself.
 */
package nocking.bench.instrument;
