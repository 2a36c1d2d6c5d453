/** Source code for the receiver, made from the adopted table. */
package nocking.firmware;
