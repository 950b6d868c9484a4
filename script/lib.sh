# Shared by the scripts: where things are, and what has to be there. Sourced, not run.
set -eu

root=$(CDPATH= cd -- "$(dirname -- "$0")/.." && pwd)
[ -f "$root/pom.xml" ] || root=$(CDPATH= cd -- "$(dirname -- "$0")/../.." && pwd)
state=${PASEO_STATE:-$root/.paseo}

say() { printf '%s\n' "$*" >&2; }
die() { say "error: $*"; exit 1; }

# JDK 25 need not be the default JDK.
find_jdk() {
    for home in "${JAVA_HOME:-}" /usr/lib/jvm/*; do
        if [ -x "$home/bin/javac" ] && grep -q '^JAVA_VERSION="25' "$home/release" 2>/dev/null; then
            JAVA_HOME=$home
            export JAVA_HOME
            java=$home/bin/java
            return 0
        fi
    done
    die "JDK 25 is not here. Install it (Debian: a package such as temurin-25-jdk or openjdk-25-jdk-headless) or set JAVA_HOME to it."
}

# Installs the Debian packages of this list whose command is missing: "command:package ...".
need() {
    missing=
    for pair in "$@"; do
        command -v "${pair%%:*}" >/dev/null 2>&1 || missing="$missing ${pair#*:}"
    done
    [ -z "$missing" ] && return 0
    [ "$(id -u)" = 0 ] || die "please install:$missing (apt-get install$missing)"
    say "installing$missing"
    apt-get update -qq >/dev/null
    # shellcheck disable=SC2086
    DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends $missing >"$state/apt.log" 2>&1 \
        || { tail -n 20 "$state/apt.log" >&2; die "apt-get could not install$missing"; }
}

# Like need, but goes on without: the caller's sentence says what is lost.
wish() {
    command -v "${1%%:*}" >/dev/null 2>&1 && return 0
    (need "$1") >/dev/null 2>&1 || say "${1#*:} cannot be installed here: $2"
}

# A fingerprint of files as they are now, tracked or not, but not of what git ignores.
fingerprint() {
    (cd "$root" && git ls-files -co --exclude-standard -z -- "$@" | sort -z | xargs -0 sha256sum 2>/dev/null | sha256sum | cut -d' ' -f1)
}

maven() {
    MAVEN_OPTS="--enable-native-access=ALL-UNNAMED --sun-misc-unsafe-memory-access=allow ${MAVEN_OPTS:-}" \
        mvn -B -ntp -f "$root/pom.xml" "$@"
}

# A TCP port that nothing listens on now.
free_port() {
    python3 - <<'PYTHON'
import random, socket
while True:
    # Below those that the system hands to whoever wants any: nobody is given it before it is used.
    port = random.randrange(15000, 32000)
    try:
        socket.socket().bind(("127.0.0.1", port))
    except OSError:
        continue
    print(port)
    break
PYTHON
}

# Whether a process runs: one that has ended and that nobody waited for (a zombie) does not.
runs() { kill -0 "$1" 2>/dev/null && ! grep -qs '^State:[[:space:]]*Z' "/proc/$1/status"; }

# Whether the process that wrote this file is alive.
alive() { [ -f "$1" ] && runs "$(cat "$1")"; }

# Ends the process of this pid file and waits until it is gone.
end() {
    alive "$1" || { rm -f "$1"; return 0; }
    pid=$(cat "$1")
    kill "$pid" 2>/dev/null || true
    for _ in $(seq 100); do runs "$pid" || break; sleep 0.1; done
    kill -9 "$pid" 2>/dev/null || true
    rm -f "$1"
}

mkdir -p "$state"

# database_settings FILE: the service's settings for a database that script/database started.
database_settings() {
    while IFS== read -r key value; do [ "$key" = socket ] || printf 'paseo.database.%s=%s\n' "$key" "$value"; done <"$1"
}
