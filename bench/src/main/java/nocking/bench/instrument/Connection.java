package nocking.bench.instrument;

import nocking.run.Instrument;

/** Connects what stands in the book with what stands on the bench. */
public final class Connection {
  private Connection() {}

  /**
   * Connects an instrument.
   *
   * @throws InstrumentException saying what failed
   */
  public static Reference open(Instrument i) throws InstrumentException {
    return switch (i.language()) {
      case SCPI -> new ScpiInstrument(i, TcpLine.connect(i.name(), i.address()));
      case LINES -> new LineInstrument(i, TcpLine.connect(i.name(), i.address()));
      case SERIAL -> new LineInstrument(i, SerialLine.connect(i.name(), i.address()));
      case MODBUS -> ModbusInstrument.overTcp(i);
      case MODBUS_RTU -> ModbusInstrument.overSerialLine(i);
      case BY_HAND -> new HandReference();
    };
  }
}
