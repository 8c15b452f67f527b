sh "$here/probe.sh"
exit $wrong
