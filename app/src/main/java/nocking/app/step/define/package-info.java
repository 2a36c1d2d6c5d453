/** Define: what is measured, with which sensor. */
package nocking.app.step.define;
