package nocking.channel;

import java.util.function.UnaryOperator;
import nocking.quantity.Unit;

/**
 * One measuring channel, the whole of what the technician has said about it, in the order of the
 * work.
 *
 * @param id stable key in the book; never shown
 */
public record Channel(
    String id,
    Design design,
    Wiring wiring,
    Calibration calibration,
    Receiver receiver,
    Acceptance acceptance,
    Journal journal) {

  /** A new channel with everything still to say. */
  public static Channel blank(String id, String tag) {
    return new Channel(
        id,
        Design.blank(tag),
        Wiring.EMPTY,
        Calibration.EMPTY,
        Receiver.EMPTY,
        Acceptance.EMPTY,
        Journal.EMPTY);
  }

  public String tag() {
    return definition().tag();
  }

  public Definition definition() {
    return design.definition();
  }

  public Unit unit() {
    return design.unit();
  }

  /** Checks all parameters; used on documents that come from outside. */
  public void require() {
    design.require();
    if (calibration.adopted() != null) calibration.adopted().require();
    if (receiver.stored() != null) receiver.stored().require();
  }

  public Channel withId(String v) {
    return new Channel(v, design, wiring, calibration, receiver, acceptance, journal);
  }

  /**
   * A channel for another device of the same design, with nothing of what was measured, typed in,
   * transferred, checked or signed at this one; it notes from which it came.
   */
  public Channel forAnotherDevice(String newId, String tag) {
    return AnotherDevice.of(this, newId, tag);
  }

  /** The same channel with its definition changed. */
  public Channel define(UnaryOperator<Definition> change) {
    return design(d -> d.define(change));
  }

  public Channel with(Design v) {
    return new Channel(id, v, wiring, calibration, receiver, acceptance, journal);
  }

  public Channel with(Wiring v) {
    return new Channel(id, design, v, calibration, receiver, acceptance, journal);
  }

  public Channel with(Calibration v) {
    return new Channel(id, design, wiring, v, receiver, acceptance, journal);
  }

  public Channel with(Receiver v) {
    return new Channel(id, design, wiring, calibration, v, acceptance, journal);
  }

  public Channel with(Acceptance v) {
    return new Channel(id, design, wiring, calibration, receiver, v, journal);
  }

  public Channel with(Journal v) {
    return new Channel(id, design, wiring, calibration, receiver, acceptance, v);
  }

  /** The same channel with its design changed. */
  public Channel design(UnaryOperator<Design> change) {
    return with(change.apply(design));
  }

  /** The same channel with its wiring changed. */
  public Channel wiring(UnaryOperator<Wiring> change) {
    return with(change.apply(wiring));
  }

  /** The same channel with its calibration changed. */
  public Channel calibration(UnaryOperator<Calibration> change) {
    return with(change.apply(calibration));
  }

  /** The same channel with its receiver changed. */
  public Channel receiver(UnaryOperator<Receiver> change) {
    return with(change.apply(receiver));
  }

  /** The same channel with its acceptance changed. */
  public Channel acceptance(UnaryOperator<Acceptance> change) {
    return with(change.apply(acceptance));
  }

  /** The same channel with its journal changed. */
  public Channel journal(UnaryOperator<Journal> change) {
    return with(change.apply(journal));
  }
}
