#!/bin/sh
# Compiles the model and packs it as a library.
set -eu
mkdir -p out/classes
javac --release 21 -d out/classes src/park/sun/*.java
jar --create --file out/sun-model.jar -C out/classes .
echo "packed sun-model ${PASEO_VERSION:-unreleased}"
