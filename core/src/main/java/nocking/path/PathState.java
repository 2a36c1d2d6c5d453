package nocking.path;

import java.util.List;

/**
 * Everything along the path at one input.
 *
 * @param quantity the input, channel's unit
 * @param nodes one entry a test point
 * @param code converter output
 * @param sensitivity volts at the converter per one of the channel's unit, clipped stages left out
 */
public record PathState(double quantity, List<Node> nodes, int code, double sensitivity) {

  /**
   * @param value what a meter would show, in the point's unit
   * @param wanted what the relation asks for; differs from {@code value} when a rail is in the way
   */
  public record Node(TestPoint point, double value, double wanted) {
    public boolean clipped() {
      return value != wanted && !Double.isNaN(wanted);
    }
  }

  /** Volts at the converter's input. */
  public double output() {
    return nodes.getLast().value();
  }

  public boolean clipped() {
    return nodes.stream().anyMatch(Node::clipped);
  }
}
