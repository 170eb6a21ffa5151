# What script/start and script/test share. Sourced, not run.

say() { printf '%s\n' "$*" >&2; }
die() { say "metrosk: $*"; exit 1; }

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
  say "Installing ${missing[*]}"
  "${as_root[@]}" apt-get update -qq
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
}

# The folder of PostgreSQL's server programs: the newest that Debian's package brought.
postgres_bin() {
  local found
  found=$(find /usr/lib/postgresql -maxdepth 2 -name bin -type d 2>/dev/null | sort -V | tail -n 1)
  if [ -z "$found" ] && command -v pg_config >/dev/null 2>&1; then found=$(pg_config --bindir); fi
  [ -n "$found" ] && [ -x "$found/initdb" ] && printf '%s\n' "$found"
}

need_postgres() {
  postgres_bin >/dev/null && return 0
  # Debian's package starts a cluster of its own unless it is told not to; none is needed here.
  if [ "$(id -u)" = 0 ] && [ ! -e /etc/postgresql-common/createcluster.conf ]; then
    mkdir -p /etc/postgresql-common
    printf 'create_main_cluster = false\n' >/etc/postgresql-common/createcluster.conf
  fi
  need_packages no-such-command postgresql
  postgres_bin >/dev/null || die "PostgreSQL's server programs were not found after installing Debian's postgresql"
}

# Rust comes from Debian's packages only where they are new enough, so it is named rather than installed.
need_rust() {
  [ -n "${CARGO_HOME:-}" ] || [ ! -f "$HOME/.cargo/env" ] || . "$HOME/.cargo/env"
  command -v cargo >/dev/null 2>&1 && return 0
  need_packages rustup rustup
  rustup default stable >/dev/null || die "Rust 1.95 or newer is needed; rustup could not bring it"
}

need_node() {
  need_packages node nodejs npm npm
  local major
  major=$(node --version | sed 's/^v\([0-9]*\).*/\1/')
  [ "$major" -ge 20 ] || die "Node 20 or newer is needed to build the front end; found $(node --version)"
}

# npm packages as locked, only when the lock has changed since the last time.
need_npm_packages() {
  local stamp=web/node_modules/.metrosk-lock
  if ! cmp -s web/package-lock.json "$stamp"; then
    say "Fetching the front end's packages"
    (cd web && npm ci --no-audit --no-fund --loglevel=error)
    cp web/package-lock.json "$stamp"
  fi
}
