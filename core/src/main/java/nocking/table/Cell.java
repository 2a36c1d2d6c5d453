package nocking.table;

/** One break-point: raw in, quantity out. */
public record Cell(double raw, double out) {}
