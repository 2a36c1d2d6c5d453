/**
 * Numbers with units: what a technician types, and what it means.
 *
 * <p>Inside, everything is SI; units exist only at the edges. The catalogue is our own small one: a
 * unit is a symbol, a dimension, a factor and, for temperatures with a shifted zero, an offset. A
 * general units library was tried and adds absolute temperatures wrongly (25 °C + 10 °C) and does
 * not read the symbols of the bench (psi, inHg, 4k7).
 *
 * <p>Factors: NIST SP 811 (2008), appendix B.8; resistor codes such as 4k7: IEC 60062.
 */
package nocking.quantity;
