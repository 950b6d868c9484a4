#!/bin/sh
# The packed service starts and says its version.
set -eu
mkdir -p build && printf key >build/data.key
port=$(awk 'BEGIN { srand(); print 20000 + int(rand() * 20000) }')
java -XX:TieredStopAtLevel=1 -Xmx48m -jar out/daylight-api.jar "$port" build/data.key &
service=$!
tries=100
until curl -fsS -m 1 "http://127.0.0.1:$port/version" 2>/dev/null | grep -q "\"$PASEO_VERSION\""; do
    tries=$((tries - 1))
    [ "$tries" -gt 0 ] || { echo "it does not say its version" >&2; kill "$service"; exit 1; }
    sleep 0.1
done
kill "$service"
echo "daylight-api $PASEO_VERSION starts and says so"
