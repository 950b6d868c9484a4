#!/bin/sh
# Brings this version to a host and has the host's supervisor run it.
set -eu
folder=$PASEO_HOST_FOLDER/$PASEO_ENVIRONMENT/daylight-api
port=${PASEO_HOST_URL##*:}
mkdir -p "$folder"
cp "$PASEO_ARTIFACTS/app/daylight-api.jar" "$folder/daylight-api.jar.new"
mv "$folder/daylight-api.jar.new" "$folder/daylight-api.jar"
(umask 077 && printf '%s' "$DATA_KEY" >"$folder/data.key")
echo "daylight-api $PASEO_VERSION on $PASEO_HOST, log level ${LOG_LEVEL:-info}, data key $DATA_KEY"
"$PASEO_HOST_FOLDER/supervise" start "daylight-api-$PASEO_ENVIRONMENT" java -Xmx48m -XX:+UseSerialGC -XX:TieredStopAtLevel=1 -jar "$folder/daylight-api.jar" "$port" "$folder/data.key"
