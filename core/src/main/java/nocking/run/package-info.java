/**
 * Runs: a plan of set points, the judgement when a reading has settled, and the course of a run as
 * what follows from its readings. Nothing here waits, asks an instrument or writes a file; times
 * come with the readings, in milliseconds since 1970 (UTC).
 */
package nocking.run;
