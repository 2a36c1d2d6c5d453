/** What is shown on screen and on paper from one definition: fonts, plots, typeset equations. */
package nocking.report;
