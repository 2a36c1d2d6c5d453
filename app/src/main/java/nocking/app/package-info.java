/** Starting: the application, the demo, and the pictures. */
package nocking.app;
