#!/usr/bin/env bash
# Answers a whole run sheet with what a person sees where no wire reaches the machine.
# by-hand.sh TICKET PERSON SERIAL_OUT SERIAL_IN CHASSIS_SERIAL
set -euo pipefail
source "$(dirname "$0")/lib.sh"
ticket=$1 person=$2 out=$3 in=$4 chassis=$5
do_() { nailcrow "$@" --as "$person"; }
answer() { do_ run answer "$ticket" "$@"; }

answer                                                   # the part is there
answer yes
answer "Whole catalogue, copied each night to the second vault, says the vault keeper"
for _ in strap light-on; do answer; done
answer yes
answer "$chassis"
answer                                                   # two marks
answer                                                   # light off
do_ snapshot write "$ticket"                             # nothing changed since the last
for _ in snapshot not-rebuilding not-fatal release; do answer; done
answer yes
answer yes
answer no                                                # the label cannot be read
answer no                                                # not counted
answer                                                   # two marks
answer                                                   # pulled
answer "$out"
answer                                                   # red sticker
sleep 8
answer                                                   # the wait is over
answer "S/N: $(echo "$in" | tr 'A-Z' 'a-z')"             # as the label reads
answer                                                   # carrier
answer                                                   # in
answer                                                   # the old one is in its bag
do_ snapshot write "$ticket" --bay "5=$in,filling,good,catalogue" --array catalogue=rebuilding
answer                                                   # seen
answer                                                   # nothing foreign
do_ rebuild read "$ticket" --percent 1
answer                                                   # started
do_ rebuild read "$ticket" --progress done
do_ snapshot write "$ticket" --bay "5=$in,member,good,catalogue" --array catalogue=whole
answer                                                   # a member
answer                                                   # whole
answer                                                   # light is off
answer                                                   # after
