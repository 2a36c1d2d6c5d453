/**
 * The document: a book of channels, immutable, and its JSON form.
 *
 * <p>A change makes a new record. Undo is the list of former documents, a revision is a stored one,
 * and a difference between two revisions is a comparison of records.
 */
package nocking.channel;
