#!/bin/sh
# Compiles and runs the tests in the zone that is asked for; they write JUnit XML.
set -eu
mkdir -p build/classes build/tests
javac --release 21 -cp out/classes -d build/classes test/park/daylight/*.java
echo "in the zone ${PASEO_EACH_ZONE:-of this machine}"
java -XX:TieredStopAtLevel=1 ${PASEO_EACH_ZONE:+-Duser.timezone="$PASEO_EACH_ZONE"} -cp out/classes:build/classes park.daylight.DaylightTests build/tests
