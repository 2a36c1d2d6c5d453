/** Named positions of a selector, alarm bands, and switches beside an analogue signal. */
package nocking.band;
