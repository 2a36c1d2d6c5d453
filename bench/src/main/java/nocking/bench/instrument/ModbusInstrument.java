package nocking.bench.instrument;

import com.fazecast.jSerialComm.SerialPort;
import com.ghgande.j2mod.modbus.ModbusException;
import com.ghgande.j2mod.modbus.ModbusIOException;
import com.ghgande.j2mod.modbus.ModbusSlaveException;
import com.ghgande.j2mod.modbus.facade.AbstractModbusMaster;
import com.ghgande.j2mod.modbus.facade.ModbusSerialMaster;
import com.ghgande.j2mod.modbus.facade.ModbusTCPMaster;
import com.ghgande.j2mod.modbus.procimg.InputRegister;
import com.ghgande.j2mod.modbus.procimg.Register;
import com.ghgande.j2mod.modbus.procimg.SimpleRegister;
import com.ghgande.j2mod.modbus.util.SerialParameters;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.quantity.QuantityException;
import nocking.run.Instrument;
import nocking.run.TcpAddress;

/**
 * An instrument whose readings stand in registers (MODBUS Application Protocol V1.1b3), over TCP or
 * over a serial line with eight bits, no parity and one stop bit.
 */
final class ModbusInstrument implements Reference {
  private static final int USUAL_UNIT = 1;
  private static final int USUAL_RATE = 19_200;
  private static final int MOST_UNITS = 247;

  private final Instrument instrument;
  private final AbstractModbusMaster master;
  private final int unit;
  private final Registers reading;
  private final Registers set;

  private ModbusInstrument(Instrument instrument, AbstractModbusMaster master, int unit) {
    this.instrument = instrument;
    this.master = master;
    this.unit = unit;
    reading = Registers.parse(instrument.ask());
    set = instrument.settable() ? Registers.parse(instrument.set()) : null;
  }

  /** An address without its unit, and the unit that stands behind a slash. */
  private record Address(String line, int unit) {
    static Address of(Instrument i) throws InstrumentException {
      String text = i.address();
      int slash = text.lastIndexOf('/');
      // A device of its own has slashes, too: the last part of it is no number.
      boolean numbered = slash > 0 && text.substring(slash + 1).matches("\\d{1,3}");
      int unit = numbered ? Integer.parseInt(text.substring(slash + 1)) : USUAL_UNIT;
      if (unit > MOST_UNITS) {
        throw new InstrumentException(
            Kind.REFUSED, "%s: unit %d, expected 0 … %d".formatted(i.name(), unit, MOST_UNITS));
      }
      return new Address(numbered ? text.substring(0, slash) : text, unit);
    }
  }

  /** Connects over TCP: {@code HOST:PORT/UNIT}. */
  static ModbusInstrument overTcp(Instrument i) throws InstrumentException {
    Address a = Address.of(i);
    try {
      TcpAddress at = TcpAddress.of(a.line);
      var master = new ModbusTCPMaster(at.host(), at.port(), Line.PATIENCE, false);
      return connected(i, master, a.unit);
    } catch (QuantityException e) {
      throw new InstrumentException(
          Kind.REFUSED,
          "%s: '%s' is no address; expected HOST:PORT/UNIT".formatted(i.name(), i.address()));
    }
  }

  /** Connects over a serial line: {@code DEVICE@BAUD/UNIT}. */
  static ModbusInstrument overSerialLine(Instrument i) throws InstrumentException {
    SerialDriver.require();
    Address a = Address.of(i);
    int at = a.line.lastIndexOf('@');
    var line = new SerialParameters();
    try {
      line.setPortName(at < 0 ? a.line : a.line.substring(0, at));
      line.setBaudRate(at < 0 ? USUAL_RATE : Integer.parseInt(a.line.substring(at + 1)));
      line.setDatabits(8);
      line.setParity(SerialPort.NO_PARITY);
      line.setStopbits(SerialPort.ONE_STOP_BIT);
      line.setEncoding("rtu");
      return connected(i, new ModbusSerialMaster(line, Line.PATIENCE), a.unit);
    } catch (NumberFormatException e) {
      throw new InstrumentException(
          Kind.REFUSED,
          "%s: '%s' is no serial line; expected DEVICE@BAUD/UNIT".formatted(i.name(), i.address()));
    }
  }

  private static ModbusInstrument connected(Instrument i, AbstractModbusMaster master, int unit)
      throws InstrumentException {
    ModbusInstrument made;
    try {
      made = new ModbusInstrument(i, master, unit);
    } catch (QuantityException e) {
      throw new InstrumentException(Kind.REFUSED, i.name() + ": " + e.getMessage());
    }
    try {
      master.connect();
      // What is asked again is asked by who knows that it was.
      master.setRetries(1);
      return made;
    } catch (Exception e) {
      // The library says no more than that.
      throw new InstrumentException(
          Kind.REFUSED, "%s: nobody answers at %s".formatted(i.name(), i.address()));
    }
  }

  @Override
  public String identity() {
    return "";
  }

  private interface Asking<T> {
    T ask() throws ModbusException;
  }

  private <T> T ask(Asking<T> question) throws InstrumentException {
    try {
      return question.ask();
    } catch (ModbusSlaveException e) {
      throw new InstrumentException(
          Kind.ODD_ANSWER,
          "%s answered with exception %d".formatted(instrument.name(), e.getType()));
    } catch (ModbusIOException e) {
      throw new InstrumentException(
          Kind.NO_ANSWER,
          "%s does not answer in %d s".formatted(instrument.name(), Line.PATIENCE / 1000));
    } catch (ModbusException e) {
      throw new InstrumentException(
          Kind.ODD_ANSWER, instrument.name() + " answered something else");
    }
  }

  @Override
  public double read() throws InstrumentException {
    InputRegister[] words =
        ask(
            () ->
                reading.input()
                    ? master.readInputRegisters(unit, reading.first(), reading.words())
                    : master.readMultipleRegisters(unit, reading.first(), reading.words()));
    if (words.length != reading.words()) {
      throw new InstrumentException(
          Kind.ODD_ANSWER,
          "%s answered %d words, expected %d"
              .formatted(instrument.name(), words.length, reading.words()));
    }
    int[] raw = new int[words.length];
    for (int i = 0; i < raw.length; i++) raw[i] = words[i].toUnsignedShort();
    double v = reading.decode(raw);
    // As in words: what stands for too much is too much in a register, too.
    if (!(Math.abs(v) < Reply.TOO_MUCH)) {
      throw new InstrumentException(Kind.OVERRANGE, instrument.name() + " is beyond its range");
    }
    return v;
  }

  @Override
  public void bringTo(double setPoint) throws InstrumentException {
    if (set == null) return;
    int[] words;
    try {
      words = set.encode(setPoint);
    } catch (QuantityException e) {
      throw new InstrumentException(
          Kind.ODD_ANSWER,
          "%s does not take the set point: %s".formatted(instrument.name(), e.getMessage()));
    }
    var registers = new Register[words.length];
    for (int i = 0; i < words.length; i++) registers[i] = new SimpleRegister(words[i]);
    ask(() -> master.writeMultipleRegisters(unit, set.first(), registers));
  }

  @Override
  public void close() {
    master.disconnect();
  }
}
