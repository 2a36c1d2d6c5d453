/** Record: revisions, lock, notes, log and exports. */
package nocking.app.step.record;
