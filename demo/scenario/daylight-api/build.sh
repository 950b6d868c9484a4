#!/bin/sh
# Compiles the service and packs it, with the model that it took, as a jar that says its own version.
set -eu
mkdir -p out/classes
(cd out/classes && jar --extract --file ../../lib/sun-model.jar)
rm -rf out/classes/META-INF
javac --release 21 -g -cp out/classes -d out/classes src/park/daylight/*.java
printf '%s\n' "${PASEO_VERSION:-unreleased}" >out/classes/version.txt
jar --create --file out/daylight-api.jar --main-class park.daylight.DaylightApi -C out/classes .
echo "packed daylight-api ${PASEO_VERSION:-unreleased}"
