/** The frame around the stages: top bar, rack, path strip, tabs, findings, scratch line. */
package nocking.app.shell;
