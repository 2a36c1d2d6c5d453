/** What every pin and test point must read before it is touched. */
package nocking.fault;
