# What script/start and script/test share. Sourced, not run.

say() { printf '%s\n' "$*" >&2; }
die() { say "metrosk: $*"; exit 1; }

# One line for each thing that is looked after, with what was found or how long it took.
begun=$SECONDS
done_step() { printf '  %-22s %s\n' "$1" "$2" >&2; }

# Runs a command, shows what it is while it runs, and tells how long it took.
timed() {
  local name=$1 start=$SECONDS
  shift
  say "  $name …"
  "$@" || die "$name failed; its last lines stand above"
  done_step "$name" "done in $((SECONDS - start)) s"
}

# Whether a version is at least another: 20.3 and 18 for example.
at_least() { [ "$(printf '%s\n%s\n' "$2" "$1" | sort -V | head -n 1)" = "$2" ]; }

# Installs Debian packages that are missing. Names come in pairs: a command that the package brings, and the package.
need_packages() {
  local missing=() command package
  while [ $# -gt 0 ]; do
    command=$1 package=$2
    shift 2
    command -v "$command" >/dev/null 2>&1 || missing+=("$package")
  done
  [ ${#missing[@]} -gt 0 ] || return 0
  local as_root=()
  if [ "$(id -u)" != 0 ]; then
    command -v sudo >/dev/null 2>&1 || die "missing: ${missing[*]}. Install them as root: apt-get install ${missing[*]}"
    as_root=(sudo)
  fi
  say "  Installing Debian's ${missing[*]} …"
  local start=$SECONDS
  "${as_root[@]}" apt-get update -qq
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
  done_step "${missing[*]}" "installed in $((SECONDS - start)) s"
}

# The folder of PostgreSQL's server programs: the newest that Debian's package brought.
postgres_bin() {
  local found
  found=$(find /usr/lib/postgresql -maxdepth 2 -name bin -type d 2>/dev/null | sort -V | tail -n 1)
  if [ -z "$found" ] && command -v pg_config >/dev/null 2>&1; then found=$(pg_config --bindir); fi
  [ -n "$found" ] && [ -x "$found/initdb" ] && printf '%s\n' "$found"
}

need_postgres() {
  if ! postgres_bin >/dev/null; then
    # Debian's package starts a cluster of its own unless it is told not to; none is needed here.
    if [ "$(id -u)" = 0 ] && [ ! -e /etc/postgresql-common/createcluster.conf ]; then
      mkdir -p /etc/postgresql-common
      printf 'create_main_cluster = false\n' >/etc/postgresql-common/createcluster.conf
    fi
    need_packages no-such-command postgresql
    postgres_bin >/dev/null || die "PostgreSQL's server programs were not found after installing Debian's postgresql"
  fi
  local version
  version=$("$(postgres_bin)/postgres" --version | sed 's/^[^0-9]*\([0-9.]*\).*/\1/')
  at_least "$version" 13 || die "PostgreSQL 13 or newer is needed, found $version: install a newer postgresql package (Debian 12 has 15)"
  done_step PostgreSQL "$version is there"
}

# Rust comes from Debian's packages only where they are new enough, so it is named rather than installed.
need_rust() {
  [ -n "${CARGO_HOME:-}" ] || [ ! -f "$HOME/.cargo/env" ] || . "$HOME/.cargo/env"
  if ! command -v cargo >/dev/null 2>&1; then
    need_packages rustup rustup
    rustup default stable >/dev/null || die "Rust 1.95 or newer is needed; rustup could not bring it"
  fi
  local version
  version=$(cargo --version | sed 's/^cargo \([0-9.]*\).*/\1/')
  at_least "$version" 1.95 || die "Rust 1.95 or newer is needed, found $version: run 'rustup update stable' (Debian's own cargo is older)"
  done_step Rust "$version is there"
}

need_node() {
  need_packages node nodejs npm npm
  local version
  version=$(node --version | sed 's/^v//')
  at_least "$version" 20 || die "Node 20 or newer is needed to build the front end, found $version: install a newer nodejs (Debian 13 has 20)"
  done_step Node "$version is there"
}

# npm packages as locked, only when the lock has changed since the last time.
need_npm_packages() {
  local stamp=web/node_modules/.metrosk-lock
  if cmp -s web/package-lock.json "$stamp"; then
    done_step "npm packages" "are there"
    return 0
  fi
  timed "npm packages" fetch_npm_packages
  cp web/package-lock.json "$stamp"
}
fetch_npm_packages() { (cd web && npm ci --no-audit --no-fund --loglevel=error); }
