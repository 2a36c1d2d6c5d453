/** Fit: candidates side by side, one adopted. */
package nocking.app.step.fit;
