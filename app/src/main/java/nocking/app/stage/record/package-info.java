/** Record: revisions, lock, notes, log and exports. */
package nocking.app.stage.record;
