/** Table: cells for the receiver. */
package nocking.app.stage.table;
