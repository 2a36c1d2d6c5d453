/**
 * What sensors, stages and the converter have in common: parameters with a symbol, a unit and a
 * valid range.
 *
 * <p>A model is a record whose components carry {@link nocking.element.Parameter}. Forms, the JSON
 * document, the symbols of the derivation and the scratch line are all made from these, so a new
 * model is one file.
 */
package nocking.element;
