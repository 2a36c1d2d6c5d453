/**
 * Jobs at the bench that are more than going through set points: a mounting that is trimmed, ends
 * that are taught or learnt, the stations of a lever, zero and span. Each is a row of steps that
 * follows from what was read so far, and a record of what came of it.
 */
package nocking.procedure;
