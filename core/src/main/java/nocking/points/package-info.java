/**
 * Reference points: what was applied, what was read, and what was left out with a reason. Nothing
 * is deleted by a judgement; a point that is left out comes back with one action.
 */
package nocking.points;
