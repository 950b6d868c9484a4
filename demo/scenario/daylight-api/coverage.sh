#!/bin/sh
# Runs the tests once more and notes which lines they reach. The tool itself is compiled only where it is not there yet.
set -eu
mkdir -p build/classes build/tests tools
if [ ! -f tools/coverage.jar ]; then
    echo "compiling the coverage tool"
    mkdir -p build/tool
    javac -d build/tool coverage/Coverage.java
    printf 'Premain-Class: Coverage\n' >build/manifest
    jar --create --file tools/coverage.jar --manifest build/manifest -C build/tool .
fi
javac --release 21 -cp out/classes -d build/classes test/park/daylight/*.java
java -javaagent:tools/coverage.jar=build/coverage.xml -cp out/classes:build/classes park.daylight.DaylightTests build/tests
