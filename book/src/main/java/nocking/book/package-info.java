/**
 * The bench book: one SQLite file with channels, named revisions and a chained log. Every edit is a
 * transaction of its own, on disk before it is acknowledged.
 */
package nocking.book;
