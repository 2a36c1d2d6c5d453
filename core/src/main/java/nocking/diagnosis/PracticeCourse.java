package nocking.diagnosis;

import java.util.ArrayList;
import java.util.List;
import nocking.channel.PracticeResult;
import nocking.diagnosis.Exercise.Difficulty;

/**
 * Five rounds for a learner, from easy to hard.
 *
 * @param done results of the rounds so far, at most five
 */
public record PracticeCourse(List<PracticeResult> done) {
  /** Level of each round. */
  public static final List<Difficulty> LEVELS =
      List.of(
          Difficulty.EASY, Difficulty.EASY, Difficulty.MEDIUM, Difficulty.MEDIUM, Difficulty.HARD);

  public static final PracticeCourse BEGUN = new PracticeCourse(List.of());

  public PracticeCourse {
    done = List.copyOf(done);
  }

  public PracticeCourse plus(PracticeResult result) {
    var next = new ArrayList<>(done);
    next.add(result);
    return new PracticeCourse(next);
  }

  public boolean over() {
    return done.size() >= LEVELS.size();
  }

  /** Level of the round that comes next; only while it is not over. */
  public Difficulty level() {
    return LEVELS.get(done.size());
  }

  /** Mean score of the rounds so far, 0 to 100. */
  public int score() {
    return (int) Math.round(done.stream().mapToInt(PracticeResult::score).average().orElse(0));
  }

  /** What came of it, in words. */
  public String says() {
    long right = done.stream().filter(PracticeResult::right).count();
    int seconds = done.stream().flatMap(r -> r.effort().stream()).mapToInt(e -> e.seconds()).sum();
    int needless =
        done.stream().flatMap(r -> r.effort().stream()).mapToInt(e -> e.needless()).sum();
    return "%d of %d found, score %d, %s in all; %s"
        .formatted(
            right,
            done.size(),
            score(),
            time(seconds),
            needless == 0
                ? "no probe on live parts that was not needed"
                : needless == 1
                    ? "one probe on live parts that was not needed"
                    : needless + " probes on live parts that were not needed");
  }

  /** Minutes and seconds: 3:05. */
  public static String time(int seconds) {
    return "%d:%02d".formatted(seconds / 60, seconds % 60);
  }
}
