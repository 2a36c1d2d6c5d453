/**
 * Carries runs out: asks the instruments, writes every reading down before anyone sees it, and goes
 * on where a run was broken off.
 */
package nocking.bench.run;
