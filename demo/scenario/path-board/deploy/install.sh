#!/bin/sh
# Unpacks the page on a host and has the host's supervisor serve it.
set -eu
folder=$PASEO_HOST_FOLDER/path-board
port=${PASEO_HOST_URL##*:}
rm -rf "$folder.new"
mkdir -p "$folder.new"
cp "$PASEO_ARTIFACTS/page/path-board.tar.gz" "$folder.new/"
tar -xzf "$folder.new/path-board.tar.gz" -C "$folder.new"
rm -rf "$folder"
mv "$folder.new" "$folder"
echo "path-board $PASEO_VERSION on $PASEO_HOST"
"$PASEO_HOST_FOLDER/supervise" start path-board java -Xmx32m -XX:+UseSerialGC -XX:TieredStopAtLevel=1 -m jdk.httpserver -b 127.0.0.1 -p "$port" -d "$folder"
