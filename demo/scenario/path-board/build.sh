#!/bin/sh
# Fills in the page's template and packs it.
set -eu
. ./notice.sh
version=${PASEO_VERSION:-unreleased}
mkdir -p out/page
rows=$(sed 's#\(.*\)|\(.*\)#<tr><td>\1</td><td>\2</td></tr>#' paths.txt | tr -d '\n')
sed -e "s#@PATHS@#$rows#; s#@NOTICE@#$notice#; s#@VERSION@#$version#" board.html >out/page/index.html
printf '%s\n' "$version" >out/page/version.txt
tar -czf out/path-board.tar.gz -C out/page .
echo "packed path-board $version: $notice"
