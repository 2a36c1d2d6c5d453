/**
 * Conditioning stages: from one voltage to the next, one file a stage.
 *
 * <p>Loading is never ignored. What a stage draws from its predecessor is a {@link
 * nocking.stage.Load}: a resistance towards a voltage. Loads are worked out from the converter
 * backwards, so that every stage's relation gives the true voltage of its output node, and a
 * cascade is solved exactly as a ladder.
 */
package nocking.stage;
