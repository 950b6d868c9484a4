#!/bin/sh
# Takes tide-api off a host.
set -eu
"$PASEO_HOST_FOLDER/supervise" stop "tide-api-$PASEO_ENVIRONMENT"
rm -rf "${PASEO_HOST_FOLDER:?}/$PASEO_ENVIRONMENT/tide-api"
