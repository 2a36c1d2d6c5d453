/** Fonts and the one stylesheet of tokens. */
package nocking.app.theme;
