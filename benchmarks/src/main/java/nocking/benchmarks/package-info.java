/** Speed, measured as a ratio to something known. */
package nocking.benchmarks;
