# The notice of the day; sourced by build.sh.
notice="Snow above 2000 m: carry spikes."
