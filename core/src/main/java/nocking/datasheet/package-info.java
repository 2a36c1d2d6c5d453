/**
 * The text of a datasheet read line by line: what it says of a sensor, and what is not understood.
 */
package nocking.datasheet;
