/**
 * Fits of the quantity on the raw value, side by side with the errors that decide between them.
 *
 * <p>The direction is the receiver's: it gets raw and must give the quantity. Least squares go
 * through Hipparchus' QR decomposition; the accuracy bar is the certified regression sets of the
 * NIST Statistical Reference Datasets.
 */
package nocking.fit;
