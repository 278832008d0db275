#!/usr/bin/env bash
# Once, on db-two, as root: copies the primary and follows it from then on. What lay in this cluster is gone.
#   PRIMARY=db-one ./standby.sh
set -euo pipefail
primary=${PRIMARY:?the primary’s address: PRIMARY=db-one}
port=${PRIMARY_PORT:-5432}
password=${STANDBY_PASSWORD:-change-me-standby}
programs=${PG_PROGRAMS:-$(ls -d /usr/lib/postgresql/*/bin | tail -1)}
folder=${PG_FOLDER:-$(ls -d /var/lib/postgresql/*/main | tail -1)}
as_postgres() { if [ "$(id -un)" = postgres ]; then "$@"; else runuser -u postgres -- env PGPASSWORD="${PGPASSWORD:-}" "$@"; fi; }

if [ -z "${PG_FOLDER:-}" ]; then systemctl stop postgresql; fi
if [ -e "$folder/postmaster.pid" ]; then echo "A database still runs in $folder; stop it first." >&2; exit 1; fi
export PGPASSWORD=$password
# beside what is there: a copy that breaks off half way leaves the folder as it was
copy=$folder.copying
as_postgres rm -rf "$copy"
as_postgres "$programs/pg_basebackup" -h "$primary" -p "$port" -U lavacrum_standby -D "$copy" -X stream -S standby -R -P \
  -d "host=$primary port=$port user=lavacrum_standby password=$password application_name=standby"
as_postgres rm -rf "$folder"
as_postgres mv "$copy" "$folder"
as_postgres chmod 700 "$folder"
if [ -z "${PG_FOLDER:-}" ]; then systemctl start postgresql; fi
echo "This machine follows $primary. On the primary: select application_name, state, replay_lag from pg_stat_replication;"
