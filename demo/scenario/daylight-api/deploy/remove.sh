#!/bin/sh
# Takes daylight-api off a host.
set -eu
"$PASEO_HOST_FOLDER/supervise" stop "daylight-api-$PASEO_ENVIRONMENT"
rm -rf "${PASEO_HOST_FOLDER:?}/$PASEO_ENVIRONMENT/daylight-api"
