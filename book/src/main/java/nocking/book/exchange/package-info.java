/** Open formats in and out: column files, points, channels. */
package nocking.book.exchange;
