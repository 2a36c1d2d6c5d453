/** Condition: the elements of the path and the transfer equation that follows. */
package nocking.app.step.condition;
