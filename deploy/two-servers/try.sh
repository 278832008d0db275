#!/usr/bin/env bash
# Plays all of this on one machine, on addresses of loopback, and kills one thing after the other: ./deploy/two-servers/try.sh, as root, after
# ./lavacrum build. Needs nginx, libnginx-mod-stream, mosquitto, mosquitto-clients, postgresql, curl and openssl. Nothing outside a new folder is touched.
set -euo pipefail
here=$(cd "$(dirname "$(readlink -f "$0")")" && pwd); root=$(cd "$here/../.." && pwd)
programs=$(ls -d /usr/lib/postgresql/*/bin | tail -1)
place=$(mktemp -d /tmp/lavacrum-two-XXXXXX); chmod 755 "$place"; chown postgres "$place"
one=127.0.0.2 two=127.0.0.3 front=127.0.0.4 first=127.0.0.5 second=127.0.0.6
db_port=${DB_PORT:-15432} app_port=${APP_PORT:-14180} mqtt_port=${MQTT_PORT:-14183} tls_port=${TLS_PORT:-18443} plain_port=${PLAIN_PORT:-18080} devices_port=${DEVICES_PORT:-11883} broker_port=${BROKER_PORT:-18883}
declare -A app=()

say() { printf '%4d s  %s\n' "$SECONDS" "$*"; }
fail() { say "FAILED: $*"; tail -n 5 "$place"/*.log 2>/dev/null; exit 1; }
as_postgres() { runuser -u postgres -- "$@"; }
end_all() {
  set +e
  for pid in "${app[@]}"; do kill -9 "$pid"; done
  [ -e "$place/nginx.pid" ] && kill "$(cat "$place/nginx.pid")"
  [ -n "${mosquitto:-}" ] && kill "$mosquitto"
  for each in db-one db-two; do [ -d "$place/$each" ] && as_postgres "$programs/pg_ctl" -D "$place/$each" -m immediate stop; done
  rm -rf "$place"
} >/dev/null 2>&1
trap end_all EXIT
until_true() { local what=$1 seconds=$2; shift 2; local start=$SECONDS; until "$@" >/dev/null 2>&1; do [ $((SECONDS - start)) -lt "$seconds" ] || fail "$what within $seconds s"; sleep 0.3; done; say "  $what after $((SECONDS - start)) s"; }

say "database and standby"
install -d -o postgres -m 700 "$place/db-one" "$place/db-two" "$place/sockets"
as_postgres "$programs/initdb" -N -D "$place/db-one" --auth-local=peer --auth-host=scram-sha-256 -E UTF8 --locale=C >/dev/null
sed -e "s/^listen_addresses.*//" "$here/postgresql.conf" >> "$place/db-one/postgresql.conf"
printf 'port = %s\nunix_socket_directories = '\''%s'\''\nfsync = off\n' "$db_port" "$place/sockets" >> "$place/db-one/postgresql.conf"
sed -e 's#10\.7\.0\.0/24#127.0.0.0/8#' "$here/pg_hba.conf" >> "$place/db-one/pg_hba.conf"
start_db() { as_postgres "$programs/pg_ctl" -w -D "$place/$1" -l "$place/sockets/$1.log" -o "-c listen_addresses=$2 -c unix_socket_directories=$place/sockets/$1" start >/dev/null; }
install -d -o postgres "$place/sockets/db-one" "$place/sockets/db-two"
start_db db-one "$first"
as_postgres "$programs/psql" -q -h "$place/sockets/db-one" -p "$db_port" -d postgres < "$here/roles.sql" >/dev/null
PRIMARY=$first PRIMARY_PORT=$db_port PG_PROGRAMS=$programs PG_FOLDER=$place/db-two "$here/standby.sh" >"$place/standby.log" 2>&1 || fail "the standby is not made"
start_db db-two "$second"
follows() { [ "$(as_postgres "$programs/psql" -h "$place/sockets/db-one" -p "$db_port" -d postgres -Atc "select state from pg_stat_replication where application_name = 'standby'")" = streaming ]; }
until_true "the standby follows" 30 follows

say "front"
mkdir -p "$place/tls" "$place/run"
openssl req -x509 -newkey rsa:2048 -nodes -days 2 -subj /CN=shop.example -addext "subjectAltName=DNS:shop.example,IP:$front" -keyout "$place/tls/shop.example.key" -out "$place/tls/shop.example.pem" 2>/dev/null
sed -e "s#app-one:4180#$one:$app_port#; s#app-two:4180#$two:$app_port#; s#app-one:4183#$one:$mqtt_port#; s#app-two:4183#$two:$mqtt_port#" \
  -e "s#listen 80;#listen $front:$plain_port;#; s#listen 443 ssl#listen $front:$tls_port ssl#; s#listen 1883;#listen $front:$devices_port;#; /listen \[::\]/d" \
  -e "s#/etc/nginx/tls#$place/tls#; s#/run/nginx.pid#$place/nginx.pid#; s#/var/log/nginx#$place#" "$here/nginx.conf" > "$place/nginx.conf"
# the name db, which means the primary of the moment
point_db() { printf 'server { listen 127.0.0.7:%s; proxy_pass %s:%s; proxy_connect_timeout 1s; }\n' "$db_port" "$1" "$db_port" > "$place/db.inc"; }
point_db "$first"
sed -i "s#^stream {#stream {\n  include $place/db.inc;#" "$place/nginx.conf"
nginx -q -t -c "$place/nginx.conf" 2>"$place/nginx-test.log" || fail "nginx refuses its file"
nginx -c "$place/nginx.conf"

start_app() {
  local name=$1 address=$2 data="$place/data-$1"; mkdir -p "$data"
  grep -v '^#' "$here/lavacrum.env" | sed -e "s#@db:5432#@127.0.0.7:$db_port#; s#=0\.0\.0\.0#=$address#; s#=4180#=$app_port#; s#=4183#=$mqtt_port#; s#front:1883#$front:$devices_port#; s#/mnt/lavacrum-backups#$place/backups#; s#^LAVACRUM_NAME=.*#LAVACRUM_NAME=$name#" > "$place/$name.env"
  (set -a; . "$place/$name.env"; LAVACRUM_DATA=$data NODE_ENV=production; exec node "$root/dist/main.mjs") > "$place/$name.log" 2>&1 & app[$name]=$!
}
kill_app() { kill -9 "${app[$1]}"; wait "${app[$1]}" 2>/dev/null || true; unset "app[$1]"; }
https() { curl -sf --max-time 10 --cacert "$place/tls/shop.example.pem" --resolve "shop.example:$tls_port:$front" -b "$place/jar" -c "$place/jar" "$@"; }
base=https://shop.example:$tls_port/api
healthy() { https "$base/health" | grep -q '"database":"ok"'; }
say "two app servers, started at once on an empty database"
start_app app-one "$one"; start_app app-two "$two"
until_true "they serve" 120 healthy
both() { for each in $one $two; do curl -sf --max-time 5 "http://$each:$app_port/api/health" | grep -q '"database":"ok"' || return 1; done; }
until_true "both are ready" 60 both
https -H 'content-type: application/json' -d '{"workshopName":"Two","timeZone":"UTC","personName":"Lead","email":"lead@two.example","password":"long towel under joint 9"}' "$base/setup" > "$place/session.json" || fail "the first visit"
token=$(sed -e 's/.*"token":"\([^"]*\)".*/\1/' "$place/session.json")
workshop=$(sed -e 's/.*"workshopId":"\([^"]*\)".*/\1/' "$place/session.json")
makes() { https -H 'content-type: application/json' -H "x-lavacrum-token: $token" -d "$1" "$base/$2"; }
grep -q Secure "$place/jar" || grep -q TRUE "$place/jar" || fail "the cookie is not for TLS alone"
[ "$(curl -s -o /dev/null -w '%{http_code}' -H 'Host: shop.example' "http://$front:$plain_port/today")" = 301 ] || fail "plain requests are not sent to TLS"
makes '{"name":"By the door"}' benches > "$place/bench.json" || fail "a bench"
bench=$(sed -e 's/.*"id":"\([^"]*\)".*/\1/' "$place/bench.json")
makes '{}' "benches/$bench/access" > "$place/access.json" || fail "a secret of its devices"
secret=$(sed -e 's/.*"secret":"\([^"]*\)".*/\1/' "$place/access.json")
guarded() { timeout 4 mosquitto_sub -h "$front" -p "$devices_port" -u "$workshop.$bench" -P "$secret" -t "lavacrum/$workshop/$bench/guard" -C 1 2>/dev/null | grep -q '"on":true'; }
until_true "devices reach the guard through the front" 30 guarded
speaking() { https "$base/servers" | tr '{' '\n' | grep '"speaks":true' | sed -e 's/.*"name":"\([^"]*\)".*/\1/'; }
# either may answer, and one learns of it some seconds after the other: who was named is kept
known() { gone=$(speaking) && [ -n "$gone" ]; }
until_true "it is known who speaks" 20 known

say "the server that speaks is killed"
kill_app "$gone"
signed_in() { https "$base/session" | grep -q '"signedIn":true'; }
until_true "requests are answered, signed in as before" 10 signed_in
until_true "devices reach the guard of the other" 30 guarded
makes '{"name":"By the window"}' benches >/dev/null || fail "something new is kept"
start_app "$gone" "$([ "$gone" = app-one ] && echo "$one" || echo "$two")"
until_true "it came back" 60 both

say "the primary is lost"
follows || fail "the standby does not follow"
if PRIMARY=$first PRIMARY_PORT=$db_port PG_PORT=$db_port PG_SOCKET=$place/sockets/db-two "$here/promote.sh" >/dev/null 2>&1; then fail "a standby became a primary beside one that answers"; fi
as_postgres "$programs/pg_ctl" -D "$place/db-one" -m immediate stop >/dev/null; mv "$place/db-one" "$place/db-lost"
away() { ! https "$base/health" >/dev/null; }
until_true "the servers say that the database is away" 20 away
PRIMARY=$first PRIMARY_PORT=$db_port PG_PORT=$db_port PG_SOCKET=$place/sockets/db-two "$here/promote.sh" >/dev/null || fail "the standby is not promoted"
point_db "$second"; nginx -s reload -c "$place/nginx.conf"
until_true "the servers work on what was the standby" 60 healthy
until_true "people are signed in as before" 20 signed_in
https "$base/workshop" | grep -q 'By the window' || fail "what was kept is gone"
makes '{"name":"By the sink"}' benches >/dev/null || fail "something new is kept on it"
until_true "devices reach the guard again" 60 guarded

say "an outside broker"
for each in app-one app-two; do kill_app "$each"; done
cp "$place/tls/shop.example.pem" "$place/tls/ca.pem"; cp "$place/tls/shop.example.pem" "$place/tls/front.pem"; cp "$place/tls/shop.example.key" "$place/tls/front.key"; chmod 644 "$place"/tls/*
touch "$place/passwords"; chmod 600 "$place/passwords"
mosquitto_passwd -b "$place/passwords" lavacrum change-me-broker 2>/dev/null; mosquitto_passwd -b "$place/passwords" "$workshop.$bench" device 2>/dev/null
sed -e "s#00000000-0000-4000-8000-000000000001#$workshop#g; s#00000000-0000-4000-8000-000000000002#$bench#g" "$here/mosquitto.acl" > "$place/lavacrum.acl"
sed -e "s#/etc/mosquitto#$place#; s#^listener 8883#listener $broker_port $front#; s#^persistence.*##" "$here/mosquitto.conf" > "$place/mosquitto.conf"
chown mosquitto "$place/passwords" "$place/lavacrum.acl" 2>/dev/null || true; chmod 700 "$place/lavacrum.acl"
mosquitto -c "$place/mosquitto.conf" > "$place/mosquitto.log" 2>&1 & mosquitto=$!
sed -i "s|^# MQTT_URL=.*||" "$place/app-one.env"
export NODE_EXTRA_CA_CERTS=$place/tls/ca.pem MQTT_URL=mqtts://lavacrum:change-me-broker@$front:$broker_port
start_app app-one "$one"; start_app app-two "$two"
until_true "both are ready" 60 both
device() { local program=$1; shift; timeout 5 "$program" -h "$front" -p "$broker_port" --cafile "$place/tls/ca.pem" -u "$workshop.$bench" -P device "$@"; }
guarded_outside() { device mosquitto_sub -t "lavacrum/$workshop/$bench/guard" -C 1 2>/dev/null | grep -q '"on":true'; }
device mosquitto_pub -r -q 1 -t "lavacrum/$workshop/$bench/gauge/state" -m '{"online":true,"unit":"kPa"}'
device mosquitto_pub -q 1 -t "lavacrum/$workshop/$bench/gauge/reading" -m '{"value":49.8,"unit":"kPa"}'
seen() { https "$base/instruments" | grep -q '"value":49.8'; }
again() { device mosquitto_pub -q 1 -t "lavacrum/$workshop/$bench/gauge/reading" -m '{"value":49.8,"unit":"kPa"}'; seen; }
until_true "a reading arrives" 30 again
until_true "the guard says that it watches" 30 guarded_outside
if https "$base/instruments" | grep -q change-me-broker; then fail "the broker's password is shown"; fi
until_true "it is known who speaks" 20 known
kill_app "$gone"
device mosquitto_pub -q 1 -t "lavacrum/$workshop/$bench/gauge/reading" -m '{"value":50.4,"unit":"kPa"}'
newer() { device mosquitto_pub -q 1 -t "lavacrum/$workshop/$bench/gauge/reading" -m '{"value":50.4,"unit":"kPa"}'; https "$base/instruments" | grep -q '"value":50.4'; }
until_true "the other one reads on" 40 newer
say "all of it held"
