#!/bin/sh
# Compiles and runs the tests, which write JUnit XML.
set -eu
mkdir -p build/classes build/tests
javac --release 21 -d build/classes src/harbour/tide/*.java test/harbour/tide/*.java
java -cp build/classes harbour.tide.TideTests build/tests
