package nocking.bench.instrument;

import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.NoRouteToHostException;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.charset.StandardCharsets;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.quantity.Sentence;
import nocking.run.TcpAddress;

/** Lines over a TCP connection. */
final class TcpLine extends ByteLine {
  private final Socket socket;
  private final InputStream in;

  private TcpLine(String name, Socket socket, InputStream in) {
    super(name);
    this.socket = socket;
    this.in = in;
  }

  /**
   * @param name of the instrument, for messages
   * @param address {@code HOST:PORT}
   */
  static TcpLine connect(String name, String address) throws InstrumentException {
    var socket = new Socket();
    try {
      TcpAddress at = TcpAddress.of(address);
      socket.setTcpNoDelay(true);
      socket.connect(new InetSocketAddress(at.host(), at.port()), PATIENCE);
      socket.setSoTimeout(PATIENCE);
      return new TcpLine(name, socket, socket.getInputStream());
    } catch (SocketTimeoutException e) {
      throw failed(socket, Kind.NO_ANSWER, "%s at %s does not answer in 2 s", name, address);
    } catch (ConnectException | NoRouteToHostException e) {
      throw failed(socket, Kind.REFUSED, "%s: %s refuses the connection", name, address);
    } catch (IOException e) {
      throw failed(socket, Kind.REFUSED, "%s: %s cannot be reached", name, address);
    } catch (IllegalArgumentException e) {
      throw failed(
          socket, Kind.REFUSED, "%s: '%s' is no address; expected HOST:PORT", name, address);
    }
  }

  private static InstrumentException failed(
      Socket socket, Kind kind, String sentence, String name, String address) {
    try {
      socket.close();
    } catch (IOException e) {
      // It was never open.
    }
    return new InstrumentException(kind, sentence.formatted(name, Sentence.readable(address)));
  }

  @Override
  public void send(String text) throws InstrumentException {
    try {
      socket.getOutputStream().write(text.getBytes(StandardCharsets.US_ASCII));
    } catch (IOException e) {
      throw gone();
    }
  }

  @Override
  int next(int milliseconds) throws IOException {
    try {
      socket.setSoTimeout(milliseconds);
      return in.read();
    } catch (SocketTimeoutException e) {
      return LineReader.NONE;
    }
  }

  @Override
  boolean waits() throws IOException {
    return in.available() > 0;
  }

  @Override
  public void close() {
    try {
      socket.close();
    } catch (IOException e) {
      // What is let go of need not be told so.
    }
  }
}
