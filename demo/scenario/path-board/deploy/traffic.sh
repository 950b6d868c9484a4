#!/bin/sh
# Tells the router how the traffic is shared between the two sides. It may be told the same twice.
set -eu
{
    for url in $PASEO_SIDE_URLS; do echo "$PASEO_SHARE $url"; done
    for url in $PASEO_OTHER_URLS; do echo "$((100 - PASEO_SHARE)) $url"; done
} | curl -fsS -m 10 -X PUT --data-binary @- "$ROUTER/$PASEO_COMPONENT"
echo "$PASEO_SHARE % of the traffic to $PASEO_SIDE"
