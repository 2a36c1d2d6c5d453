package nocking.analysis;

import java.util.List;
import java.util.Optional;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.finding.Finding;
import nocking.finding.Findings;
import nocking.view.AcceptanceView;
import nocking.view.CalibrationView;
import nocking.view.ChannelView;
import nocking.view.DesignView;
import nocking.view.ProbeState;
import nocking.view.ReceiverView;
import nocking.view.Trouble;
import nocking.view.WiringView;

/**
 * Everything that can be known from a channel: the views of its sections and the findings. Parts
 * are worked out when first asked for, and kept; the channel is immutable, so they stay true.
 */
public final class Analysis {
  private final ChannelView views;
  private volatile List<Finding> findings;

  private Analysis(Channel channel, List<SensorCard> cards) {
    views = new ChannelView(channel, cards);
  }

  public static Analysis of(Channel channel) {
    return new Analysis(channel, List.of());
  }

  /** The analysis of a channel in a book that has these sensor cards. */
  public static Analysis of(Channel channel, List<SensorCard> cards) {
    return new Analysis(channel, cards);
  }

  public Channel channel() {
    return views.channel();
  }

  public DesignView design() {
    return views.design();
  }

  public WiringView wiring() {
    return views.wiring();
  }

  public CalibrationView calibration() {
    return views.calibration();
  }

  public ReceiverView receiver() {
    return views.receiver();
  }

  public AcceptanceView acceptance() {
    return views.acceptance();
  }

  /** The path at an input, with what the display says; empty while there is no path. */
  public Optional<ProbeState> at(double x) {
    return receiver().at(x);
  }

  /** What stands out where it is known already; empty while nobody has asked for it. */
  public Optional<List<Finding>> findingsIfKnown() {
    return Optional.ofNullable(findings);
  }

  /** What stands out, the gravest first. A table that has to be searched for takes its time. */
  public synchronized List<Finding> findings() {
    if (findings == null) findings = Findings.of(views);
    return findings;
  }

  /**
   * What could not be worked out although it should have been, as far as it was asked for: for the
   * log, and for tests, in which there is none.
   */
  public List<Trouble> troubles() {
    return views.workings().troubles();
  }

  /** Why there is no circuit to look at: what is not defined yet, or cannot be worked out. */
  public String whyNoCircuit() {
    return design()
        .problem()
        .or(() -> troubles().stream().findFirst().map(Trouble::says))
        .orElse("no sensor is defined yet");
  }
}
