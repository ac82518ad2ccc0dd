# Shared by bin/demo, bin/test and bin/bench: installs what is missing and
# runs PostgreSQL on loopback in the project's own folder.
set -euo pipefail
ROOT="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
cd "$ROOT"
LOCAL="$ROOT/.local"
mkdir -p "$LOCAL"

say() { printf '%s\n' "$*" >&2; }
die() { say "$*"; exit 1; }

# need_tools: Go and Node must be there; they are not ours to install.
need_tools() {
    command -v go >/dev/null || die "Go is missing. Install Go 1.26 or newer, then run this again."
    local gv; gv="$(go env GOVERSION | sed 's/^go//')"
    older "$gv" 1.26 && die "Go $gv is too old; 1.26 or newer is needed."
    command -v node >/dev/null || die "Node is missing. Install Node 20.19 or newer, then run this again."
    local nv; nv="$(node --version | sed 's/^v//')"
    older "$nv" 20.19 && die "Node $nv is too old; 20.19 or newer is needed."
    command -v npm >/dev/null || die "npm is missing. It comes with Node; install it, then run this again."
    local free; free="$(df -Pm "$ROOT" | awk 'NR==2 {print $4}')"
    [ "$free" -ge 1500 ] || die "Only $free MB are free on this disk; about 1500 MB are needed. Nothing was changed."
}

# older A B: true when version A is before B.
older() { [ "$1" != "$2" ] && [ "$(printf '%s\n%s\n' "$1" "$2" | sort -V | head -1)" = "$1" ]; }

as_root() {
    if [ "$(id -u)" = 0 ]; then "$@"; else
        command -v sudo >/dev/null || die "Installing packages needs root or sudo: $*"
        sudo "$@"
    fi
}

APT_FRESH=
apt_install() {
    command -v apt-get >/dev/null || die "Missing: $*. This system has no apt-get; install them by hand, then run this again."
    say "Installing $* ..."
    if [ -z "$APT_FRESH" ]; then as_root apt-get update -q >"$LOCAL/apt.log" 2>&1 || die "apt-get update failed; see $LOCAL/apt.log"; APT_FRESH=1; fi
    as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends "$@" >>"$LOCAL/apt.log" 2>&1 || die "Installing $* failed; see $LOCAL/apt.log"
}

pg_bin() { ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1; }

need_postgres() {
    [ -n "$(pg_bin)" ] && [ -x "$(pg_bin)/initdb" ] && return
    # Without its own cluster: Debian would otherwise start one that nobody asked for.
    if [ ! -e /etc/postgresql-common/createcluster.conf ]; then
        as_root mkdir -p /etc/postgresql-common
        echo 'create_main_cluster = false' | as_root tee /etc/postgresql-common/createcluster.conf >/dev/null
    fi
    apt_install postgresql postgresql-contrib
}

need_chromium() { command -v chromium >/dev/null || apt_install chromium; }

# An independent reader of map files, for the tests of the formats.
need_ogrinfo() { command -v ogrinfo >/dev/null || apt_install gdal-bin; }

# Independent readers of what is printed.
need_pdf() { { command -v qpdf && command -v pdftotext; } >/dev/null || apt_install qpdf poppler-utils; }

# The server refuses to run as root; then it runs as the postgres user.
if [ "$(id -u)" = 0 ]; then
    as_pg() { runuser -u postgres -- "$@"; }
else
    as_pg() { "$@"; }
fi

# free_port FIRST: the first free port from FIRST on.
free_port() {
    local p="$1"
    while (exec 3<>"/dev/tcp/127.0.0.1/$p") 2>/dev/null; do p=$((p + 1)); done
    echo "$p"
}

# start_postgres NAME [OPTIONS]: starts (making it first when needed) the
# cluster .local/NAME and sets PGPORT and PG_URL (without a database name).
start_postgres() {
    local name="$1" extra="${2:-}" dir="$LOCAL/$1"
    need_postgres
    if [ "$(id -u)" = 0 ] && ! as_pg test -x "$ROOT"; then
        dir="/var/tmp/mainstay-$(printf '%s' "$ROOT" | cksum | cut -d' ' -f1)-$name"
        say "The postgres user cannot enter $ROOT; the database lives in $dir instead."
    fi
    PGDIR="$dir"
    if [ ! -s "$dir/PG_VERSION" ]; then
        rm -rf "$dir"
        mkdir -p "$dir"
        [ "$(id -u)" != 0 ] || chown postgres "$dir"
        chmod 700 "$dir"
        as_pg "$(pg_bin)/initdb" -D "$dir" -U mainstay --auth=trust --encoding=UTF8 --locale=C.UTF-8 >"$LOCAL/$name.initdb.log" 2>&1 || die "initdb failed; see $LOCAL/$name.initdb.log"
    fi
    if as_pg "$(pg_bin)/pg_ctl" -D "$dir" status >/dev/null 2>&1; then
        PGPORT="$(sed -n 4p "$dir/postmaster.pid")"
        PG_OURS=
    else
        rm -f "$dir/postmaster.pid"
        PGPORT="$(free_port 54320)"
        local log="$dir/server.log"
        as_pg "$(pg_bin)/pg_ctl" -D "$dir" -w -t 60 -l "$log" -o "-p $PGPORT -c listen_addresses=127.0.0.1 -c unix_socket_directories='' $extra" start >/dev/null || die "PostgreSQL did not start; see $log"
        PG_OURS=1
    fi
    export PG_URL="postgres://mainstay@127.0.0.1:$PGPORT"
}

stop_postgres() {
    [ -n "${PG_OURS:-}" ] || return 0
    as_pg "$(pg_bin)/pg_ctl" -D "$PGDIR" -m fast -w stop >/dev/null 2>&1 || true
    PG_OURS=
}

psql_do() { "$(pg_bin)/psql" -qAt "$PG_URL/$1" -c "$2"; }

make_database() {
    [ "$(psql_do postgres "select 1 from pg_database where datname = '$1'")" = 1 ] || psql_do postgres "create database $1"
}

# make_app_role: the role under which the application works; it owns nothing.
make_app_role() {
    [ "$(psql_do postgres "select 1 from pg_roles where rolname = 'mainstay_app'")" = 1 ] || psql_do postgres "create role mainstay_app login"
    APP_URL="postgres://mainstay_app@127.0.0.1:$PGPORT"
}

# build_web: builds the web application when its sources are newer than the build.
build_web() {
    if [ ! -d web/node_modules ] || [ web/package-lock.json -nt web/node_modules/.package-lock.json ]; then
        say "Installing the web packages ..."
        (cd web && npm ci --no-audit --no-fund --loglevel=error) >"$LOCAL/npm.log" 2>&1 || die "npm ci failed; see $LOCAL/npm.log"
    fi
    if [ ! -f web/dist/index.html ] || [ -n "$(find web/src web/index.html web/package-lock.json web/vite.config.ts web/public/*.* core cmd/fieldjudge -newer web/dist/index.html -print -quit)" ]; then
        say "Building the web application ..."
        (cd web && npm run --silent build) >"$LOCAL/vite.log" 2>&1 || { tail -30 "$LOCAL/vite.log" >&2; die "The web build failed; see $LOCAL/vite.log"; }
    fi
}

build_server() {
    say "Building the server ..."
    go build -o "$LOCAL/mainstay" ./cmd/mainstay
}
