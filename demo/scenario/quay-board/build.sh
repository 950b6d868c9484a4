#!/bin/sh
# Fills in the page's template and packs it.
set -eu
. ./theme.sh
version=${PASEO_VERSION:-unreleased}
mkdir -p out/page
sed -e "s/@GROUND@/$ground/; s/@INK@/$ink/; s/@NAME@/$name/; s/@VERSION@/$version/" board.html >out/page/index.html
printf '%s\n' "$version" >out/page/version.txt
tar -czf out/quay-board.tar.gz -C out/page .
echo "packed quay-board $version in $name"
