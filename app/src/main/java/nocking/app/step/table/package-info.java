/** Table: cells for the receiver. */
package nocking.app.step.table;
