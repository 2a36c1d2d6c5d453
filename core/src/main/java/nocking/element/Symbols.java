package nocking.element;

import nocking.algebra.Expr;

/** Gives an element's own symbol the name that is unique along the path. */
@FunctionalInterface
public interface Symbols {
  Expr of(String symbol);
}
