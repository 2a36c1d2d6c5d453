/** Which fault explains what was seen, what to measure next, and practice at finding it. */
package nocking.diagnosis;
