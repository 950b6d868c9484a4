#!/bin/sh
# Compiles the predictor and packs it as a library.
set -eu
mkdir -p out/classes
javac --release 21 -d out/classes src/harbour/tide/model/*.java
jar --create --file out/tide-model.jar -C out/classes .
echo "packed tide-model ${PASEO_VERSION:-unreleased}"
