package nocking.path;

import nocking.algebra.Expr;

/**
 * One numbered line of the derivation, {@code left = right}.
 *
 * @param number from 1
 * @param caption which element it states, or what was done with earlier lines
 */
public record DerivationStep(int number, String caption, Expr left, Expr right) {}
