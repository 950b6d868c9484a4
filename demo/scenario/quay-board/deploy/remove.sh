#!/bin/sh
# Takes quay-board off a host.
set -eu
"$PASEO_HOST_FOLDER/supervise" stop quay-board
rm -rf "$PASEO_HOST_FOLDER/quay-board"
