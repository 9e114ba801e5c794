# Sourced by the commands in bin/: makes sure that Node, the Debian packages and the npm packages are there.
# Says in one sentence what to do when something cannot be had.
set -euo pipefail
export PATH="$PATH:/usr/sbin:/sbin"
root="$(cd "$(dirname "${BASH_SOURCE[1]}")/.." && pwd)"
cd "$root"

stop() { printf '%s\n' "$1" >&2; exit 1; }

need_node() {
  command -v node >/dev/null 2>&1 || stop 'Node.js is not installed: install Node 20.19 or newer, then run this again.'
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' \
    || stop "Node $(node --version) is too old: install Node 20.19 or newer, then run this again."
}

# need_debian PROGRAM PACKAGE …: installs the packages when the program is missing.
need_debian() {
  local program="$1"; shift
  command -v "$program" >/dev/null 2>&1 && return 0
  command -v apt-get >/dev/null 2>&1 || stop "The program $program is missing and this is not Debian: install $* in this system's own way, then run this again."
  local as_root=()
  if [ "$(id -u)" -ne 0 ]; then
    if sudo -n true 2>/dev/null; then as_root=(sudo -n)
    else stop "The program $program is missing and needs an administrator: run  sudo apt-get install $*  then run this again."
    fi
  fi
  printf 'Installing %s …\n' "$*"
  local log; log="$(mktemp)"
  # Another installation may be running: wait for its lock instead of failing.
  if ! { "${as_root[@]}" apt-get -o DPkg::Lock::Timeout=300 update -qq \
      && DEBIAN_FRONTEND=noninteractive "${as_root[@]}" apt-get -o DPkg::Lock::Timeout=300 install -y -qq --no-install-recommends "$@"; } >"$log" 2>&1; then
    tail -n 5 "$log" >&2
    stop "The packages $* could not be installed: see the lines above, put that right, then run this again."
  fi
  rm -f "$log"
}

need_npm_packages() {
  local wanted; wanted="$(node -e 'const c = require("node:crypto"), f = require("node:fs"); process.stdout.write(c.createHash("sha256").update(f.readFileSync("package-lock.json")).update(process.version).digest("hex"))')"
  [ -f node_modules/.installed-for ] && [ "$(cat node_modules/.installed-for)" = "$wanted" ] && return 0
  printf 'Installing the npm packages …\n'
  local log; log="$(mktemp)"
  npm ci --no-audit --no-fund --loglevel=error >"$log" 2>&1 || { tail -n 15 "$log" >&2; stop 'The npm packages could not be installed: see the lines above (disk full? no way to the registry?), then run this again.'; }
  rm -f "$log"
  printf '%s' "$wanted" > node_modules/.installed-for
}
