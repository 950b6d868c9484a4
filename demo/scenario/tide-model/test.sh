#!/bin/sh
# Compiles and runs the tests, which write JUnit XML.
set -eu
mkdir -p build/classes build/tests
javac --release 21 -cp out/classes -d build/classes test/harbour/tide/model/*.java
java -XX:TieredStopAtLevel=1 -cp out/classes:build/classes harbour.tide.model.TideTests build/tests
