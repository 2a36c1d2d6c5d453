package nocking.app.desk;

import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.SourceDataLine;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** A short tone from the machine's loudspeaker, where it has one. */
final class Tone {
  private static final Logger LOG = LoggerFactory.getLogger(Tone.class);
  private static final float RATE = 44_100;
  private static final double HERTZ = 880;
  private static final double SECONDS = 0.15;
  private static final double LOUD = 60;

  private Tone() {}

  /** Returns at once; the tone comes from a thread of its own. */
  static void sound() {
    Thread.ofPlatform().daemon().name("tone").start(Tone::play);
  }

  private static void play() {
    var format = new AudioFormat(RATE, 8, 1, true, false);
    byte[] wave = wave();
    try (SourceDataLine line = AudioSystem.getSourceDataLine(format)) {
      line.open(format);
      line.start();
      line.write(wave, 0, wave.length);
      line.drain();
    } catch (LineUnavailableException | IllegalArgumentException e) {
      LOG.info("this machine makes no sound: {}", e.getMessage());
    }
  }

  /** Swells and fades, so that it does not click. */
  private static byte[] wave() {
    var wave = new byte[(int) (RATE * SECONDS)];
    for (int i = 0; i < wave.length; i++) {
      double envelope = Math.sin(Math.PI * i / wave.length);
      wave[i] = (byte) (LOUD * envelope * Math.sin(2 * Math.PI * HERTZ * i / RATE));
    }
    return wave;
  }
}
