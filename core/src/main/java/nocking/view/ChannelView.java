package nocking.view;

import java.util.List;
import nocking.channel.Channel;
import nocking.channel.SensorCard;

/** A channel with everything that follows from its sections: what the rules look at. */
public final class ChannelView {
  private final Channel channel;
  private final List<SensorCard> cards;
  private final Workings workings = new Workings();
  private final DesignView design;
  private final CalibrationView calibration;
  private final ReceiverView receiver;
  private final WiringView wiring;
  private final AcceptanceView acceptance;

  /**
   * @param cards sensor cards of the book; empty where no book is at hand
   */
  public ChannelView(Channel channel, List<SensorCard> cards) {
    this.channel = channel;
    this.cards = List.copyOf(cards);
    design = new DesignView(channel.design(), workings);
    calibration = new CalibrationView(channel, design, this.cards, workings);
    receiver = new ReceiverView(channel, design, calibration, workings);
    wiring = new WiringView(channel, design, calibration, receiver, this.cards, workings);
    acceptance = new AcceptanceView(channel, design, calibration, workings);
  }

  public Channel channel() {
    return channel;
  }

  public List<SensorCard> cards() {
    return cards;
  }

  public DesignView design() {
    return design;
  }

  public WiringView wiring() {
    return wiring;
  }

  public CalibrationView calibration() {
    return calibration;
  }

  public ReceiverView receiver() {
    return receiver;
  }

  public AcceptanceView acceptance() {
    return acceptance;
  }

  /** How the parts are worked out, and what went wrong with them. */
  public Workings workings() {
    return workings;
  }
}
