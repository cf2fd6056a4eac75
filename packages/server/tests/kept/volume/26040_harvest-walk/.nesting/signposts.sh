# . .nesting/signposts.sh, from the project's root or anywhere below it
NESTING_PROJECT=$PWD
while [ "$NESTING_PROJECT" != "" ] && [ ! -f "$NESTING_PROJECT"/'.nesting/project.json' ]; do NESTING_PROJECT=${NESTING_PROJECT%/*}; done
if [ "$NESTING_PROJECT" = "" ]; then echo "signposts: not in a project" >&2; else
export NESTING_PROJECT
export NESTING_CUTS_MOON="$NESTING_PROJECT"/'20-cutting/moon'
export NESTING_CUTS_HERON="$NESTING_PROJECT"/'20-cutting/heron'
export NESTING_CUTS_HARE="$NESTING_PROJECT"/'20-cutting/hare'
fi
