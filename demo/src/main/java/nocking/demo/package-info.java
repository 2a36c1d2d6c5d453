/** The bench book of the invented Millrace Trout Hatchery, made by a seeded generator. */
package nocking.demo;
