/**
 * What is weighed before a fault is named: how common each kind is, how far a reading is trusted.
 */
package nocking.prior;
