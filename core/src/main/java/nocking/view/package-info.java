/**
 * What follows from each section of a channel, worked out when it is first asked for and kept. Each
 * view is made from its section and the views that it needs; none knows the rules that look at it,
 * and none knows a window.
 */
package nocking.view;
