/** The wires of a channel drawn, and the wire plan as one page. */
package nocking.report.wiring;
