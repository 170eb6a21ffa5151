#!/usr/bin/env python3
"""Kills the server, or PostgreSQL, at random moments of an editing run, and checks that nothing that was shown as saved is
lost and that the application comes back by itself: `script/crash.py [ROUNDS]` (50 by default). Python 3, standard library
only. It runs everything on loopback in a folder of its own under the system's temporary folder, with the release build."""

import http.cookiejar, json, os, pwd, random, shutil, signal, socket, subprocess, sys, tempfile, time, urllib.error, urllib.request, uuid

ROUNDS = int(sys.argv[1]) if len(sys.argv) > 1 else 50
TOP = os.path.dirname(os.path.dirname(os.path.abspath(__file__)))
BIN = subprocess.check_output("ls -d /usr/lib/postgresql/*/bin | sort -V | tail -n 1", shell=True, text=True).strip()
random.seed(20261127)


def free_port():
    with socket.socket() as s:
        s.bind(("127.0.0.1", 0))
        return s.getsockname()[1]


class House:
    """A PostgreSQL and a server; both can be killed and started again."""

    def __init__(self):
        self.folder = tempfile.mkdtemp(prefix="metrosk-crash-")
        self.data = os.path.join(self.folder, "data")
        self.db_port, self.port = free_port(), free_port()
        self.owner = {}
        if os.getuid() == 0:
            person = pwd.getpwnam("postgres")
            self.owner = {"user": person.pw_uid, "group": person.pw_gid}
            os.chmod(self.folder, 0o755)
            os.chown(self.folder, person.pw_uid, person.pw_gid)
        subprocess.check_call([f"{BIN}/initdb", "-D", self.data, "-U", "metrosk", "--auth=trust", "--encoding=UTF8", "--locale=C.UTF-8"],
                              stdout=subprocess.DEVNULL, cwd="/", **self.owner)
        self.database = self.server = None
        self.start_database()
        self.start_server()

    def start_database(self):
        log = open(os.path.join(self.folder, "log"), "ab")
        # fsync stays on: that is what is being tried.
        self.database = subprocess.Popen([f"{BIN}/postgres", "-D", self.data, "-p", str(self.db_port), "-c", "listen_addresses=127.0.0.1",
                                          "-c", "unix_socket_directories="], stdout=log, stderr=log, cwd="/", **self.owner)
        while subprocess.call([f"{BIN}/pg_isready", "-q", "-h", "127.0.0.1", "-p", str(self.db_port)]) != 0:
            time.sleep(0.05)

    def start_server(self):
        self.server = subprocess.Popen([f"{TOP}/target/release/metrosk", "serve", "--demo", "--pictures", f"{self.folder}/pictures", "--listen", f"127.0.0.1:{self.port}", "--web", f"{TOP}/web/dist"],
                                       env={**os.environ, "DATABASE_URL": f"postgres://metrosk@127.0.0.1:{self.db_port}/postgres", "RUST_LOG": "off"},
                                       stdout=subprocess.DEVNULL)

    def kill_server(self):
        self.server.send_signal(signal.SIGKILL)
        self.server.wait()
        self.start_server()

    def kill_database(self):
        """All of PostgreSQL's processes at once, as when the power goes."""
        children = subprocess.run(["pgrep", "-P", str(self.database.pid)], capture_output=True, text=True).stdout.split()
        for pid in [self.database.pid, *map(int, children)]:
            try:
                os.kill(pid, signal.SIGKILL)
            except ProcessLookupError:
                pass
        self.database.wait()
        time.sleep(0.3)
        pid_file = os.path.join(self.data, "postmaster.pid")
        if os.path.exists(pid_file):
            os.remove(pid_file)
        self.start_database()

    def close(self):
        self.server.kill()
        self.database.terminate()
        self.database.wait()
        shutil.rmtree(self.folder, ignore_errors=True)


class Editor:
    """Somebody who edits a page, one change after another, each under its own key, until it is said to be saved."""

    def __init__(self, house):
        self.house = house
        self.cookies = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar()))
        self.statuses = {}

    def ask(self, method, path, body=None, key=None):
        headers = {"content-type": "application/json"} | ({"idempotency-key": key} if key else {})
        data = None if body is None else json.dumps(body).encode()
        request = urllib.request.Request(f"http://127.0.0.1:{self.house.port}{path}", data=data, method=method, headers=headers)
        with self.cookies.open(request, timeout=10) as answer:
            return json.load(answer)

    def until(self, method, path, body=None, key=None):
        """Tries again while nobody answers; any answer but 'not now' counts."""
        for _ in range(400):
            try:
                return self.ask(method, path, body, key)
            except urllib.error.HTTPError as e:
                self.statuses[e.code] = self.statuses.get(e.code, 0) + 1
                if e.code not in (502, 503, 504):
                    raise SystemExit(f"{method} {path}: {e.code} {e.read().decode()}")
            except (urllib.error.URLError, ConnectionError, TimeoutError, OSError, http.client.HTTPException):
                pass
            time.sleep(0.05)
        raise SystemExit(f"{method} {path}: the application did not come back within 20 s")


def main():
    house = House()
    editor = Editor(house)
    try:
        editor.until("POST", "/api/session/demo")
        card = next(p for p in editor.until("GET", "/api/pages") if p["name"].startswith("Kites"))
        page = editor.until("GET", f"/api/pages/{card['id']}")
        saved, kills, slowest = [], {"server": 0, "database": 0}, 0.0
        for n in range(ROUNDS):
            which = random.choice(["server", "database"])
            kills[which] += 1
            blow = time.monotonic() + random.uniform(0.02, 0.5)
            killed = False
            for k in range(8):
                if not killed and time.monotonic() >= blow - 0.02:
                    killed = True
                    pid = os.fork()
                    if pid == 0:
                        # The blow falls while the next write is under way.
                        time.sleep(max(0.0, blow - time.monotonic()) + random.uniform(0, 0.03))
                        os.kill(house.server.pid if which == "server" else house.database.pid, signal.SIGKILL)
                        os._exit(0)
                    plan, reason, key = page["plan"], f"round {n} change {k}", str(uuid.uuid4())
                    begun = time.monotonic()
                    body = {"revision": page["revision"], "plan": plan, "reason": reason}
                    try:
                        page = editor.ask("PUT", f"/api/pages/{page['id']}/plan", body, key)
                        done = True
                    except Exception:
                        done = False
                    os.waitpid(pid, 0)
                    house.kill_server() if which == "server" else house.kill_database()
                    if not done:
                        # The same write, under the same key: it acts once, whether it had got through or not.
                        page = editor.until("PUT", f"/api/pages/{page['id']}/plan", body, key)
                    editor.until("GET", f"/api/pages/{page['id']}")
                    slowest = max(slowest, time.monotonic() - begun)
                else:
                    reason = f"round {n} change {k}"
                    body = {"revision": page["revision"], "plan": page["plan"], "reason": reason}
                    page = editor.until("PUT", f"/api/pages/{page['id']}/plan", body, str(uuid.uuid4()))
                saved.append((page["revision"], reason))
                time.sleep(random.uniform(0, 0.08))
        history, before = {}, None
        while True:
            part = editor.until("GET", f"/api/pages/{page['id']}/revisions" + (f"?before={before}" if before else ""))
            if not part:
                break
            history |= {r["revision"]: r["reason"] for r in part}
            before = part[-1]["revision"]
        lost = [s for s in saved if history.get(s[0]) != s[1]]
        reasons = [r for r in history.values() if r.startswith("round ")]
        twice = len(reasons) - len(set(reasons))
        print(f"{sum(kills.values())} blows ({kills['server']} at the server, {kills['database']} at PostgreSQL), {len(saved)} changes shown as saved: "
              f"{len(lost)} lost, {twice} done twice; back within {slowest:.1f} s at the most; answers meanwhile: {editor.statuses or 'none'}")
        raise SystemExit(1 if lost or twice else 0)
    finally:
        house.close()


if __name__ == "__main__":
    import http.client
    main()
