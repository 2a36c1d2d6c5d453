/**
 * Whole conditionings for a sensor and a converter: which circuits there are, the best parts of
 * each, and what tells them from one another.
 */
package nocking.proposal;
