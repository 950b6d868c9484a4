#!/bin/sh
# Looks for lines that are too long and for what prints where it should not; writes SARIF.
set -eu
mkdir -p build
awk '
function found(rule, level, text) {
    results = results (results == "" ? "" : ",\n") "{\"ruleId\":\"" rule "\",\"level\":\"" level "\",\"message\":{\"text\":\"" text "\"},\"locations\":[{\"physicalLocation\":{\"artifactLocation\":{\"uri\":\"" FILENAME "\"},\"region\":{\"startLine\":" FNR "}}}]}"
    print level ": " FILENAME ":" FNR ": " text
}
length($0) > 150 { found("line-length", "warning", "the line has " length($0) " characters, more than 150") }
/System\.out/ { found("prints", "note", "prints to standard output") }
END { print "{\"version\":\"2.1.0\",\"runs\":[{\"tool\":{\"driver\":{\"name\":\"park-lint\"}},\"results\":[" results "]}]}" >"build/findings.sarif" }
' src/park/daylight/*.java
