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
final class TcpLine implements Line {
  private final String name;
  private final Socket socket;
  private final InputStream in;
  private final LineReader reader;

  private TcpLine(String name, Socket socket, InputStream in) {
    this.name = name;
    this.socket = socket;
    this.in = in;
    reader = new LineReader(name, this::next);
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

  private InstrumentException gone() {
    return new InstrumentException(Kind.DISCONNECTED, name + " has dropped the connection");
  }

  @Override
  public String name() {
    return name;
  }

  private int next(int milliseconds) throws IOException {
    try {
      socket.setSoTimeout(milliseconds);
      return in.read();
    } catch (SocketTimeoutException e) {
      return LineReader.NONE;
    }
  }

  @Override
  public String receive() throws InstrumentException {
    return reader.line(PATIENCE);
  }

  @Override
  public boolean comes(int milliseconds) throws InstrumentException {
    return reader.comes(milliseconds);
  }

  @Override
  public boolean bare() {
    return reader.bare();
  }

  @Override
  public void endsByPause() {
    reader.endsByPause();
  }

  @Override
  public String drain() throws InstrumentException {
    String last = "";
    try {
      // Only whole lines lie about: what is being sent now belongs to what is read next.
      while (reader.holds() || in.available() > 0) last = reader.line(PATIENCE);
      return last;
    } catch (IOException e) {
      throw gone();
    }
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
