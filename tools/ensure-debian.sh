#!/bin/sh
# Install the Debian packages whose file or shared library is missing.
# usage: ensure-debian.sh WHAT=PACKAGE...   WHAT is a path, or a library as the loader names it
set -eu

missing=""
for pair in "$@"; do
    what=${pair%%=*}
    case $what in
        /*) test -e "$what" || missing="$missing ${pair#*=}" ;;
        *) /sbin/ldconfig -p | grep -qF "$what" || missing="$missing ${pair#*=}" ;;
    esac
done
test -n "$missing" || exit 0

if ! command -v apt-get >/dev/null; then
    echo "These are needed and can't be installed here without apt-get:$missing" >&2
    exit 1
fi
as_root=""
test "$(id -u)" -eq 0 || as_root=sudo
echo "Installing$missing"
$as_root apt-get update -qq
# The names are packages, so they are meant to be split.
# shellcheck disable=SC2086
DEBIAN_FRONTEND=noninteractive $as_root apt-get install -qq -y --no-install-recommends $missing >/dev/null
