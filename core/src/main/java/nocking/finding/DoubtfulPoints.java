package nocking.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.points.ReferencePoint;
import nocking.view.ChannelView;

/** A point that counts was taken in a run although something spoke against its readings. */
final class DoubtfulPoints implements Rule {
  private static final String ID = "doubtful-points";

  @Override
  public Stream<Finding> examine(ChannelView e) {
    List<ReferencePoint> points = e.channel().calibration().points().points();
    var found = new ArrayList<Integer>();
    for (int i = 0; i < points.size(); i++) {
      if (points.get(i).counts() && points.get(i).doubt().isPresent()) found.add(i);
    }
    if (found.isEmpty()) return Stream.empty();
    int first = found.getFirst();
    String headline =
        found.size() == 1
            ? "Point %d was taken with a doubt".formatted(first + 1)
            : "%d points were taken with a doubt".formatted(found.size());
    return Stream.of(
        Finding.of(
                ID,
                Severity.WARNING,
                WorkStep.COLLECT,
                headline,
                "Point %d counts although %s. Whoever was asked said yes; leave it out if that is not so."
                    .formatted(first + 1, points.get(first).doubt().orElseThrow()))
            .at(first));
  }
}
