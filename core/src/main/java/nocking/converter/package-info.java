/** From volts to counts and back: the analogue-to-digital converter. */
package nocking.converter;
