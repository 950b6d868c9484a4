#!/bin/sh
# Compiles the service and packs it as a jar that says its own version.
set -eu
mkdir -p out/classes
javac --release 21 -d out/classes src/harbour/tide/*.java
printf '%s\n' "${PASEO_VERSION:-unreleased}" >out/classes/version.txt
jar --create --file out/tide-api.jar --main-class harbour.tide.TideApi -C out/classes .
echo "packed tide-api ${PASEO_VERSION:-unreleased}"
