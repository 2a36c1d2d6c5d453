/** Check: expected against measured. */
package nocking.app.step.check;
