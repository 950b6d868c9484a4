#!/bin/sh
# Brings this version to a host and has the host's supervisor run it.
set -eu
folder=$PASEO_HOST_FOLDER/$PASEO_ENVIRONMENT/tide-api
port=${PASEO_HOST_URL##*:}
mkdir -p "$folder"
cp "$PASEO_ARTIFACTS/app/tide-api.jar" "$folder/tide-api.jar.new"
mv "$folder/tide-api.jar.new" "$folder/tide-api.jar"
(umask 077 && printf '%s' "$DATA_KEY" >"$folder/data.key")
echo "tide-api $PASEO_VERSION on $PASEO_HOST, log level ${LOG_LEVEL:-info}, data key $DATA_KEY"
"$PASEO_HOST_FOLDER/supervise" start "tide-api-$PASEO_ENVIRONMENT" java -Xmx48m -XX:+UseSerialGC -XX:TieredStopAtLevel=1 -jar "$folder/tide-api.jar" "$port" "$folder/data.key"
