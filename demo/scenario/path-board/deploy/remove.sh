#!/bin/sh
# Takes path-board off a host.
set -eu
"$PASEO_HOST_FOLDER/supervise" stop path-board
rm -rf "$PASEO_HOST_FOLDER/path-board"
