/** The state of the window: the open document, its history, the probe, and what is saved when. */
package nocking.app.desk;
