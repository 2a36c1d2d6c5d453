package nocking.bench.instrument;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import java.nio.charset.StandardCharsets;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.quantity.Sentence;

/** Lines over a serial line, eight bits without parity and one stop bit. */
final class SerialLine extends ByteLine {
  private static final int USUAL_RATE = 9600;

  private final SerialPort port;

  private SerialLine(String name, SerialPort port) {
    super(name);
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

  @Override
  public void send(String text) throws InstrumentException {
    byte[] bytes = text.getBytes(StandardCharsets.US_ASCII);
    if (port.writeBytes(bytes, bytes.length) != bytes.length) throw gone();
  }

  @Override
  int next(int milliseconds) {
    byte[] one = new byte[1];
    port.setComPortTimeouts(SerialPort.TIMEOUT_READ_SEMI_BLOCKING, milliseconds, 0);
    int n = port.readBytes(one, 1);
    return n < 0 ? -1 : n == 0 ? LineReader.NONE : one[0] & 0xFF;
  }

  @Override
  boolean waits() {
    return port.bytesAvailable() > 0;
  }

  @Override
  public void close() {
    port.closePort();
  }
}
