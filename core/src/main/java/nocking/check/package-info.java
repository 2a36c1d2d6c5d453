/** Expected against measured at the check inputs, with the verdict against the tolerance. */
package nocking.check;
