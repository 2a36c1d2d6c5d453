#!/bin/bash
# Whole starts by turns: a bare JavaFX window, Nocking on the demo book, a command.
# Needs an X display (real or virtual), xdotool, and a build; prints seconds and resident memory.
#   xvfb-run -s "-noreset -screen 0 1280x800x24" benchmarks/start.sh [ROUNDS]
set -u
cd "$(dirname "$0")/.." || exit 1
rounds=${1:-5}
: "${JAVA_HOME:?must name a JDK 25}"
java=$JAVA_HOME/bin/java
modules=$(printf '%s:' app/target/lib/javafx-*.jar)
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT

cat > "$work/BareWindow.java" <<'JAVA'
public class BareWindow extends javafx.application.Application {
  public void start(javafx.stage.Stage stage) {
    stage.setTitle("Bare window");
    stage.setScene(new javafx.scene.Scene(new javafx.scene.control.Label("Bare"), 1280, 800));
    stage.show();
  }
}
JAVA
"$JAVA_HOME/bin/javac" -d "$work" --module-path "$modules" --add-modules javafx.controls "$work/BareWindow.java" || exit 1

# Seconds until a window of that title is on the screen, and what the process holds two seconds later.
window() {
  local title=$1
  shift
  local from
  from=$(date +%s.%N)
  "$@" >/dev/null 2>&1 &
  local process=$!
  for _ in $(seq 2000); do
    xdotool search --onlyvisible --name "$title" >/dev/null 2>&1 && break
    sleep 0.01
  done
  local to
  to=$(date +%s.%N)
  sleep 2
  local memory
  memory=$(awk '/VmRSS/ {print int($2 / 1024)}' "/proc/$process/status" 2>/dev/null)
  kill "$process" 2>/dev/null
  wait "$process" 2>/dev/null
  echo "$title: $(echo "$to - $from" | bc) s, ${memory:-?} MB"
}

book=$work/demo.nocking
./nocking demo --book "$book" >/dev/null 2>&1 &
for _ in $(seq 2000); do
  xdotool search --onlyvisible --name Nocking >/dev/null 2>&1 && break
  sleep 0.01
done
kill $! 2>/dev/null
wait $! 2>/dev/null

for _ in $(seq "$rounds"); do
  window "Bare window" "$java" -XX:+UseSerialGC --module-path "$modules" \
    --add-modules javafx.controls --enable-native-access=javafx.graphics -cp "$work" BareWindow
  window "Nocking" ./nocking "$book"
  from=$(date +%s.%N)
  ./nocking convert 25 psi kPa >/dev/null
  echo "convert: $(echo "$(date +%s.%N) - $from" | bc) s"
done
