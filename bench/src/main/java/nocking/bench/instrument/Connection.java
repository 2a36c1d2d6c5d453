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
      case SCPI -> new ScpiInstrument(i, new Dialogue(tcp(i), Dialogue.STANDARD));
      case SCPI_SERIAL -> new ScpiInstrument(i, new Dialogue(serial(i), Dialogue.ANY));
      case LINES -> new LineInstrument(i, new Dialogue(tcp(i), Dialogue.ANY));
      case SERIAL -> new LineInstrument(i, new Dialogue(serial(i), Dialogue.ANY));
      case MODBUS -> ModbusInstrument.overTcp(i);
      case MODBUS_RTU -> ModbusInstrument.overSerialLine(i);
      case BY_HAND -> new HandReference();
    };
  }

  private static Line tcp(Instrument i) throws InstrumentException {
    return TcpLine.connect(i.name(), i.address());
  }

  private static Line serial(Instrument i) throws InstrumentException {
    return SerialLine.connect(i.name(), i.address());
  }
}
