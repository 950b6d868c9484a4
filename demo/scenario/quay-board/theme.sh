# The board's colours; sourced by build.sh.
name=harbour-green
ground=#143029
ink=#e2ede8
