/**
 * A small DC nodal solver, the referee of every closed form.
 *
 * <p>Modified nodal analysis (Ho, Ruehli and Brennan, "The modified nodal approach to network
 * analysis", IEEE Trans. Circuits Syst. CAS-22, 1975): node voltages and the currents of voltage
 * sources and ideal amplifiers are the unknowns of one linear system.
 */
package nocking.network;
