package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.channel.WorkStep;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;

/** Two probes in one tank, and a channel that reads their sum. */
class SummedProbesTest extends WindowTest {
  private static Channel probe(String tag, double... volts) {
    var points = new ArrayList<ReferencePoint>();
    for (int i = 0; i < volts.length; i++) {
      points.add(ReferencePoint.of(Value.of(100 * i), Value.of(volts[i])));
    }
    return Channel.blank(tag, tag)
        .define(
            d ->
                d.withKind(QuantityKind.VOLUME).withUnit("L").withRange(Value.of(0), Value.of(600)))
        .calibration(k -> k.withPoints(new PointSet(RawUnit.VOLTS, points)));
  }

  @Test
  void theirPointsAreAddedUpAndTakenBackInOneGo() {
    Channel left = probe("SP-V1", 0.5, 0.9, 1.2);
    Channel right = probe("SP-V2", 0.4, 0.8, 1.3, 1.7);
    Channel both = probe("SP-V3");
    open(new Book(List.of(both, left, right)));
    hands.run(() -> desk.step(WorkStep.COLLECT));
    settled();
    hands.enter("points-sum", "SP-V1 + SP-V9");
    hands.click("points-add-up");
    assertThat(message()).contains("No channel SP-V9 in this book. The points are as they were.");
    TextField sum = hands.node("points-sum");
    hands.run(sum::clear);
    hands.enter("points-sum", "SP-V1 + SP-V2").press(KeyCode.ENTER);
    settled();
    assertThat(message()).isEqualTo("3 points added up; SP-V2 has no partner at 300.");
    assertThat(channel().calibration().points().points())
        .extracting(ReferencePoint::typedReadings)
        .containsExactly("0.9", "1.7", "2.5");
    assertThat(text("points-sum")).isEmpty();
    hands.enter("points-sum", "SP-V1 + SP-V2").press(KeyCode.ENTER);
    assertThat(message()).contains("All 3 points are here already");
    hands.run(desk::undo);
    assertThat(channel().calibration().points().points()).isEmpty();
  }
}
