#!/bin/sh
# Takes tide-api off a host.
set -eu
"$PASEO_HOST_FOLDER/supervise" stop tide-api
rm -rf "$PASEO_HOST_FOLDER/tide-api"
