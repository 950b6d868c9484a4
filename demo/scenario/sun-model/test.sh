#!/bin/sh
# Compiles and runs the tests, which write JUnit XML.
set -eu
mkdir -p build/classes build/tests
javac --release 21 -cp out/classes -d build/classes test/park/sun/*.java
java -XX:TieredStopAtLevel=1 -cp out/classes:build/classes park.sun.SunTests build/tests
