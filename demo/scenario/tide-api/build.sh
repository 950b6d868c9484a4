#!/bin/sh
# Compiles the service and packs it, with the predictor that it took, as a jar that says its own version.
set -eu
mkdir -p out/classes
(cd out/classes && jar --extract --file ../../lib/tide-model.jar)
rm -rf out/classes/META-INF
javac --release 21 -g -cp out/classes -d out/classes src/harbour/tide/*.java
printf '%s\n' "${PASEO_VERSION:-unreleased}" >out/classes/version.txt
jar --create --file out/tide-api.jar --main-class harbour.tide.TideApi -C out/classes .
echo "packed tide-api ${PASEO_VERSION:-unreleased}"
