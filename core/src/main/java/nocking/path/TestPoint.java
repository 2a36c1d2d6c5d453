package nocking.path;

import nocking.algebra.Expr;
import nocking.quantity.Span;
import nocking.quantity.Unit;

/**
 * A node of the path where a probe could touch.
 *
 * @param name on the strip and in messages: TP1, TP2 …
 * @param symbol in equations: V1, V2 …, Vout for the last
 * @param relation value of this node in terms of the node before it (the quantity for TP1)
 * @param from caption of the element that drives it
 * @param usable lowest and highest value that the node can carry without clipping
 * @param unit V, Ω or A
 */
public record TestPoint(
    String name, String symbol, Expr relation, String from, Span usable, Unit unit) {}
