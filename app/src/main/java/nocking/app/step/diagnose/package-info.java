/** Diagnose and Practice: which fault explains what was seen, and learning to find one. */
package nocking.app.step.diagnose;
