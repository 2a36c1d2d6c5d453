/**
 * Controls that work alone: each gets its data and gives back what was typed; none knows the desk.
 */
package nocking.app.control;
