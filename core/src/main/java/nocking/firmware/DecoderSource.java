package nocking.firmware;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import nocking.quantity.PlainText;

/**
 * A decoder as source text: a C99 header, or a Python module. Either has the states, the state of a
 * code, the state after another one, the state after a dwell, and a test over the codes at every
 * boundary.
 *
 * @param name C identifier that everything begins with
 * @param title what the decoder belongs to, for the comment at the top
 */
public record DecoderSource(String name, String title) {

  /** Names that the sources use themselves. */
  private static final Set<String> TAKEN = Set.of("STATES", "FAULTS", "DWELL_MS", "DECODER_H");

  private static String list(int[] values) {
    return Arrays.stream(values).mapToObj(String::valueOf).collect(Collectors.joining(", "));
  }

  /** Names of the states as identifiers, no two alike. */
  private static List<String> words(Decoder d) {
    var words = new ArrayList<String>();
    for (String state : d.states()) {
      String word = state.toUpperCase(Locale.ROOT).replaceAll("[^A-Z0-9]+", "_");
      // A name in Python begins with a letter.
      if (!word.matches("[A-Z].*")) word = "STATE_" + word;
      String unique = word;
      for (int n = 2; words.contains(unique) || TAKEN.contains(unique); n++) {
        unique = word + "_" + n;
      }
      words.add(unique);
    }
    return words;
  }

  private static String quoted(String text) {
    return '"' + PlainText.line(text).replace("\\", "\\\\").replace("\"", "\\\"") + '"';
  }

  /** The codes on either side of every boundary, and both ends. */
  private static int[] boundaries(Decoder d) {
    var codes = new ArrayList<Integer>();
    for (int f : d.first()) {
      if (f > 0) codes.add(f - 1);
      codes.add(f);
    }
    codes.add(d.codes() - 1);
    return codes.stream().mapToInt(Integer::intValue).distinct().toArray();
  }

  /** C99 header. */
  public String header(Decoder d) {
    String upper = name.toUpperCase(Locale.ROOT);
    int[] boundaries = boundaries(d);
    String states =
        words(d).stream().map(w -> upper + "_" + w).collect(Collectors.joining(",\n    "));
    // Two question marks begin a trigraph in C.
    String names =
        d.states().stream()
            .map(t -> quoted(t).replace("?", "\\?"))
            .collect(Collectors.joining(", "));
    return """
        /* %2$s
         * %3$d codes, %4$d states. Every code has exactly one state.
         */
        #ifndef %1$s_DECODER_H
        #define %1$s_DECODER_H

        #include <stdint.h>

        enum {
            %5$s,
            %1$s_STATES
        };

        #define %1$s_FAULTS %6$d
        #define %1$s_DWELL_MS %7$dU

        static inline const char *%8$s_word(int state)
        {
            static const char *const words[%1$s_STATES] = {%9$s};
            return state >= 0 && state < %1$s_STATES ? words[state] : "";
        }

        /* State of a code by itself. */
        static inline int %8$s_state(int32_t raw)
        {
            static const int32_t first[%10$d] = {%11$s};
            static const int state[%10$d] = {%12$s};
            int i = 0;
            while (i + 1 < %10$d && raw >= first[i + 1]) i++;
            return state[i];
        }

        /* State of a code after a state, which the hysteresis may keep. */
        static inline int %8$s_next(int before, int32_t raw)
        {
            static const int32_t stay_first[%1$s_STATES] = {%13$s};
            static const int32_t stay_last[%1$s_STATES] = {%14$s};
            int now = %8$s_state(raw);
            if (now >= %1$s_FAULTS || before < 0 || before >= %1$s_STATES) return now;
            return raw >= stay_first[before] && raw <= stay_last[before] ? before : now;
        }

        typedef struct {
            int state;
            int pending;
            uint32_t since;
        } %8$s_decoder;

        static inline void %8$s_begin(%8$s_decoder *d, int32_t raw, uint32_t ms)
        {
            d->state = d->pending = %8$s_state(raw);
            d->since = ms;
        }

        /* State after another code; a new one counts when it has lasted for the dwell. */
        static inline int %8$s_update(%8$s_decoder *d, int32_t raw, uint32_t ms)
        {
            static const uint32_t dwell = %1$s_DWELL_MS;
            int now = %8$s_next(d->state, raw);
            if (now != d->pending) {
                d->pending = now;
                d->since = ms;
            }
            if (d->pending != d->state && (uint32_t)(ms - d->since) >= dwell)
                d->state = d->pending;
            return d->state;
        }

        /* 0 when every code beside a boundary has its state. */
        static inline int %8$s_selftest(void)
        {
            static const int32_t code[%15$d] = {%16$s};
            static const int state[%15$d] = {%17$s};
            for (int i = 0; i < %15$d; i++)
                if (%8$s_state(code[i]) != state[i]) return i + 1;
            return 0;
        }

        #endif
        """
        .formatted(
            upper,
            PlainText.comment(title),
            d.codes(),
            d.states().size(),
            states,
            d.faults(),
            d.dwell(),
            name,
            names,
            d.first().length,
            list(d.first()),
            list(d.runs()),
            list(d.stayFirst()),
            list(d.stayLast()),
            boundaries.length,
            list(boundaries),
            list(Arrays.stream(boundaries).map(d::state).toArray()));
  }

  /** Python module. */
  public String python(Decoder d) {
    int[] boundaries = boundaries(d);
    List<String> words = words(d);
    String numbers =
        IntStream.range(0, words.size())
            .mapToObj(i -> words.get(i) + " = " + i)
            .collect(Collectors.joining("\n"));
    String names = d.states().stream().map(DecoderSource::quoted).collect(Collectors.joining(", "));
    return """
        # %s
        # %d codes, %d states. Every code has exactly one state.
        from bisect import bisect_right

        %s
        STATES = [%s]
        FAULTS = %d
        DWELL_MS = %d

        _FIRST = [%s]
        _STATE = [%s]
        _STAY_FIRST = [%s]
        _STAY_LAST = [%s]


        def state(raw):
            \"\"\"State of a code by itself.\"\"\"
            return _STATE[max(0, bisect_right(_FIRST, raw) - 1)]


        def next_state(before, raw):
            \"\"\"State of a code after a state, which the hysteresis may keep.\"\"\"
            now = state(raw)
            if now >= FAULTS or not 0 <= before < len(STATES):
                return now
            return before if _STAY_FIRST[before] <= raw <= _STAY_LAST[before] else now


        class Decoder:
            \"\"\"A new state counts when it has lasted for the dwell.\"\"\"

            def __init__(self, raw, ms):
                self.state = self.pending = state(raw)
                self.since = ms

            def update(self, raw, ms):
                now = next_state(self.state, raw)
                if now != self.pending:
                    self.pending = now
                    self.since = ms
                if self.pending != self.state and ms - self.since >= DWELL_MS:
                    self.state = self.pending
                return self.state


        def selftest():
            \"\"\"0 when every code beside a boundary has its state.\"\"\"
            codes = [%s]
            states = [%s]
            for i, (code, expected) in enumerate(zip(codes, states)):
                if state(code) != expected:
                    return i + 1
            return 0
        """
        .formatted(
            PlainText.comment(title),
            d.codes(),
            d.states().size(),
            numbers,
            names,
            d.faults(),
            d.dwell(),
            list(d.first()),
            list(d.runs()),
            list(d.stayFirst()),
            list(d.stayLast()),
            list(boundaries),
            list(Arrays.stream(boundaries).map(d::state).toArray()));
  }
}
