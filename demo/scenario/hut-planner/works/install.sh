#!/bin/sh
# Puts the planner on a host and has the host's supervisor serve it.
set -eu
from=$(dirname -- "$0")
folder=$PASEO_HOST_FOLDER/hut-planner
rm -rf "$folder.new"
cp -R "$from" "$folder.new"
rm -rf "$folder"
mv "$folder.new" "$folder"
echo "hut-planner $PASEO_VERSION on $PASEO_HOST"
if [ -f "$folder/wear.sh" ]; then
    "$PASEO_HOST_FOLDER/supervise" start hut-planner-wear sh "$folder/wear.sh" "$folder"
fi
"$PASEO_HOST_FOLDER/supervise" start hut-planner java -Xmx32m -XX:+UseSerialGC -XX:TieredStopAtLevel=1 -m jdk.httpserver -b 127.0.0.1 -p "${PASEO_HOST_URL##*:}" -d "$folder"
