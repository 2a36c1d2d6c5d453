package nocking.run;

import nocking.quantity.QuantityException;

/**
 * Where an instrument answers on a network.
 *
 * @param port 1 … 65535
 */
public record TcpAddress(String host, int port) {
  private static final int HIGHEST = 65_535;

  /**
   * @throws QuantityException for what is not {@code HOST:PORT}
   */
  public static TcpAddress of(String text) {
    int colon = text.lastIndexOf(':');
    String host = text.substring(0, Math.max(colon, 0)).strip();
    String number = text.substring(colon + 1);
    boolean digits = number.matches("[0-9]{1,5}");
    int port = digits ? Integer.parseInt(number) : 0;
    if (host.isEmpty() || host.contains(" ") || port < 1 || port > HIGHEST) {
      throw new QuantityException("'%s' is no address; expected HOST:PORT".formatted(text));
    }
    return new TcpAddress(host, port);
  }
}
