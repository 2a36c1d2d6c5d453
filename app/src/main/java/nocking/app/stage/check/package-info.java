/** Check: expected against measured. */
package nocking.app.stage.check;
