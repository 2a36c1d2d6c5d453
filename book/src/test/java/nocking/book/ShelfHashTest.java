package nocking.book;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import nocking.channel.PracticeResult;
import nocking.parts.StockPart;
import org.junit.jupiter.api.Test;

/** The form of the hashes is what the format says, and does not follow the program. */
class ShelfHashTest {
  private static final StockPart A = new StockPart("1k", 1000, 1, 0.25, 250, 3);
  private static final StockPart B = new StockPart("10M", 1e7, 0.1, 0, 0, 0);
  private static final PracticeResult RESULT =
      new PracticeResult(
          "Ada", "BL-P1", "easy", "signal wire open", "no fault", false, 4, 2, "2026-11-26");

  /** By another hand: the texts written out, and the JDK's own digest. */
  private static String sha(String text) throws NoSuchAlgorithmException {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
  }

  @Test
  void theHashIsOverTheColumns() throws NoSuchAlgorithmException {
    assertThat(ShelfHash.of(List.of(A, B)))
        .isEqualTo(
            sha(
                "1k\0001000.0\0001.0\0000.25\000250.0\0003\000"
                    + "10M\0001.0E7\0000.1\0000.0\0000.0\0000\000"));
    assertThat(ShelfHash.of(RESULT))
        .isEqualTo(
            sha(
                "Ada\000BL-P1\000easy\000signal wire open\000no fault\0000\0004\0002\0002026-11-26\000"));
  }

  /** What books of the first versions hold, written out as they hold it. */
  @Test
  void theFormerFormStaysAsItWas() throws NoSuchAlgorithmException {
    String drawer =
        sha(
            "[StockPart[name=1k, ohms=1000.0, tolerance=1.0, watts=0.25, volts=250.0, quantity=3],"
                + " StockPart[name=10M, ohms=1.0E7, tolerance=0.1, watts=0.0, volts=0.0,"
                + " quantity=0]]\000");
    assertThat(ShelfHash.matches(List.of(A, B), drawer)).isTrue();
    String practised =
        sha(
            "PracticeResult[learner=Ada, channel=BL-P1, difficulty=easy, hidden=signal wire open,"
                + " named=no fault, right=false, measurements=4, planned=2, date=2026-11-26]\000");
    assertThat(ShelfHash.matches(RESULT, practised)).isTrue();
  }

  @Test
  void anythingElseIsAChange() {
    String hash = ShelfHash.of(List.of(A, B));
    assertThat(ShelfHash.matches(List.of(A, B), hash)).isTrue();
    assertThat(ShelfHash.matches(List.of(B, A), hash)).isFalse();
    assertThat(ShelfHash.matches(List.of(A.withQuantity(2), B), hash)).isFalse();
    assertThat(ShelfHash.matches(List.of(A, B), null)).isFalse();
    assertThat(ShelfHash.matches(RESULT, ShelfHash.of(RESULT))).isTrue();
    assertThat(ShelfHash.matches(RESULT, hash)).isFalse();
  }
}
