/**
 * Equations typeset as mathematics, straight from the expression tree.
 *
 * <p>A small box typesetter after the model of The TeXbook (Knuth 1984), appendix G: every part is
 * a box with a width, a height above and a depth below the baseline. It was preferred to a formula
 * renderer because its symbols stay known: they can answer the mouse and light up the part they
 * belong to.
 */
package nocking.report.typeset;
