/**
 * Plots: a definition of what is to be seen, drawn by JFreeChart on any {@code Graphics2D}: an
 * image for the window, SVG for paper.
 */
package nocking.report.plot;
