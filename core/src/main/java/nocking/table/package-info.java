/**
 * Linearisation tables: break-points with straight lines between them, in the shape that the
 * receiver wants.
 */
package nocking.table;
