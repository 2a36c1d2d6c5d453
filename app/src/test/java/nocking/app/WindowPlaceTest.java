package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import javafx.geometry.Rectangle2D;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A window stands on a screen, wholly, and where it was left. */
class WindowPlaceTest {
  private static final Rectangle2D LAPTOP = new Rectangle2D(0, 24, 1024, 576);
  private static final Rectangle2D DESK = new Rectangle2D(0, 0, 1920, 1080);
  private static final Rectangle2D BESIDE = new Rectangle2D(-1600, 100, 1600, 900);

  @Test
  void theFirstTimeItIsInTheMiddleAndNoLargerThanTheScreen() {
    assertThat(WindowPlace.at("", List.of(DESK))).isEqualTo(new Rectangle2D(320, 140, 1280, 800));
    assertThat(WindowPlace.at("", List.of(LAPTOP))).isEqualTo(LAPTOP);
  }

  @Test
  void itComesBackWhereItWasLeft() {
    var left = new Rectangle2D(-1500, 150, 1300, 820);
    assertThat(WindowPlace.at("-1500 150 1300 820", List.of(DESK, BESIDE))).isEqualTo(left);
    assertThat(WindowPlace.at("-1500 150 1300 820 maximized", List.of(DESK, BESIDE)))
        .isEqualTo(left);
    assertThat(WindowPlace.at("-1500 150 1300 820", List.of(DESK)))
        .as("that screen is gone")
        .isEqualTo(new Rectangle2D(320, 140, 1280, 800));
  }

  @ParameterizedTest
  @ValueSource(strings = {"x", "1 2 3", "NaN 0 1280 800", "0 0 -5 800", "0 0 1e9 800", "0,0,9,9"})
  void whatSaysNothingIsAsIfNothingHadBeenSaid(String odd) {
    assertThat(WindowPlace.at(odd, List.of(DESK))).isEqualTo(new Rectangle2D(320, 140, 1280, 800));
  }

  @Test
  void whateverWasLeftItIsOnOneScreen() {
    var r = new Random(1201);
    List<Rectangle2D> screens = List.of(DESK, BESIDE, LAPTOP);
    for (int i = 0; i < 500; i++) {
      String left =
          "%d %d %d %d"
              .formatted(
                  r.nextInt(8000) - 4000, r.nextInt(4000) - 2000, r.nextInt(5000), r.nextInt(3000));
      Rectangle2D at = WindowPlace.at(left, screens);
      assertThat(screens).as(left).anyMatch(s -> s.contains(at));
    }
  }
}
