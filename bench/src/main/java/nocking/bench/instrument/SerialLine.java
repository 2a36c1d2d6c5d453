package nocking.bench.instrument;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.TimeUnit;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.quantity.Sentence;

/** Lines over a serial line, eight bits without parity and one stop bit. */
final class SerialLine implements Line {
  private static final int USUAL_RATE = 9600;

  private final String name;
  private final SerialPort port;
  private final StringBuilder begun = new StringBuilder();

  private SerialLine(String name, SerialPort port) {
    this.name = name;
    this.port = port;
  }

  /**
   * @param name of the instrument, for messages
   * @param address the device, and behind an @ its rate in baud
   */
  static SerialLine connect(String name, String address) throws InstrumentException {
    SerialDriver.require();
    int at = address.lastIndexOf('@');
    String device = at < 0 ? address : address.substring(0, at);
    try {
      int rate = at < 0 ? USUAL_RATE : Integer.parseInt(address.substring(at + 1));
      SerialPort port = SerialPort.getCommPort(device);
      port.setComPortParameters(rate, 8, SerialPort.ONE_STOP_BIT, SerialPort.NO_PARITY);
      port.setComPortTimeouts(SerialPort.TIMEOUT_READ_SEMI_BLOCKING, PATIENCE, 0);
      if (port.openPort()) return new SerialLine(name, port);
      throw refused("%s: %s cannot be opened", name, device);
    } catch (SerialPortInvalidPortException e) {
      throw refused("%s: there is no serial line %s", name, device);
    } catch (IllegalArgumentException e) {
      throw refused("%s: '%s' is no serial line; expected DEVICE@BAUD", name, address);
    }
  }

  private static InstrumentException refused(String sentence, String name, String what) {
    return new InstrumentException(Kind.REFUSED, sentence.formatted(name, Sentence.readable(what)));
  }

  private InstrumentException gone() {
    return new InstrumentException(Kind.DISCONNECTED, name + " is gone from its serial line");
  }

  @Override
  public void send(String text) throws InstrumentException {
    byte[] bytes = (text + "\n").getBytes(StandardCharsets.US_ASCII);
    if (port.writeBytes(bytes, bytes.length) != bytes.length) throw gone();
  }

  @Override
  public String receive() throws InstrumentException {
    return receive(deadline());
  }

  private static long deadline() {
    return System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(PATIENCE);
  }

  /** The whole line has one deadline, and what came of it by then is thrown away. */
  private String receive(long deadline) throws InstrumentException {
    byte[] one = new byte[1];
    while (true) {
      int n = port.readBytes(one, 1);
      if (n < 0) throw gone();
      if (n == 0 || System.nanoTime() - deadline > 0) {
        begun.setLength(0);
        throw new InstrumentException(
            Kind.NO_ANSWER, "%s does not answer in %d s".formatted(name, PATIENCE / 1000));
      }
      if (one[0] == '\n') {
        String line = begun.toString();
        begun.setLength(0);
        return line;
      }
      if (one[0] != '\r') begun.append((char) one[0]);
      if (begun.length() > LONGEST) {
        begun.setLength(0);
        throw new InstrumentException(Kind.ODD_ANSWER, name + " sends without an end of line");
      }
    }
  }

  @Override
  public String drain() throws InstrumentException {
    long deadline = deadline();
    String last = "";
    while (port.bytesAvailable() > 0) last = receive(deadline);
    return last;
  }

  @Override
  public void close() {
    port.closePort();
  }
}
