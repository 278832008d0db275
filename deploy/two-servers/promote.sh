#!/usr/bin/env bash
# On db-two, as root, when the primary is gone for good: makes the standby the primary.
#   PRIMARY=db-one ./promote.sh
# Two primaries would each take a part of the work, and nobody could put them together again: while the old one answers, this refuses.
set -euo pipefail
primary=${PRIMARY:?the old primary’s address: PRIMARY=db-one}
port=${PRIMARY_PORT:-5432}
own_port=${PG_PORT:-5432}
programs=${PG_PROGRAMS:-$(ls -d /usr/lib/postgresql/*/bin | tail -1)}
socket=${PG_SOCKET:-/var/run/postgresql}
ask() { if [ "$(id -un)" = postgres ]; then "$programs/psql" -h "$socket" -p "$own_port" -d postgres -Atc "$1"; else runuser -u postgres -- "$programs/psql" -h "$socket" -p "$own_port" -d postgres -Atc "$1"; fi; }

if [ "$(ask 'select pg_is_in_recovery()')" != t ]; then echo "This database follows nobody: it is a primary already. Nothing was changed." >&2; exit 1; fi
for try in 1 2 3; do
  if "$programs/pg_isready" -q -h "$primary" -p "$port" -t 3; then
    echo "$primary answers. Stop its database for good first (systemctl disable --now postgresql), then run this again. Nothing was changed." >&2
    exit 1
  fi
  [ "$try" = 3 ] || sleep 2
done
ask "select pg_promote(true, 60)" >/dev/null
echo "This machine is the primary now."
echo "1. Let the name db mean this machine on both app servers; they connect by themselves."
echo "2. Keep $primary from starting as it was: it becomes the standby by standby.sh (make its slot here first:"
echo "   select pg_create_physical_replication_slot('standby');)."
