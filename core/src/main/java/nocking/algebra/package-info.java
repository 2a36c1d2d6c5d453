/**
 * One expression tree for everything that is shown, evaluated and generated.
 *
 * <p>An element of the path states its relation once, as an {@link nocking.algebra.Expr}. Direct
 * evaluation, the derivative, the equation solved for the quantity, the typeset line and the text
 * in C, Python and spreadsheet form are all made from that one tree, so they cannot disagree. The
 * tree keeps the shape in which a technician would write the relation; it is not brought into a
 * normal form.
 */
package nocking.algebra;
