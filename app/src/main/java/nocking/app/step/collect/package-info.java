/** Collect: reference points, typed, pasted or imported. */
package nocking.app.step.collect;
