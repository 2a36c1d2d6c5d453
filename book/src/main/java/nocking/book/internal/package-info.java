/** What only the book itself may use. */
package nocking.book.internal;
