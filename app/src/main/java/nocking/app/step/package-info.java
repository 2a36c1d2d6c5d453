/** What the views of the eight stages share. */
package nocking.app.step;
