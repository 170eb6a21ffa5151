#!/usr/bin/env python3
"""Kills the server, or PostgreSQL, at random moments of an editing run, and checks that nothing that was shown as saved is
lost and that the application comes back by itself: `script/crash.py [ROUNDS]` (50 by default). Python 3, standard library
only. It runs everything on loopback in a folder of its own under the system's temporary folder, with the build
that script/start makes (METROSK_BIN names another)."""

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
        self.server = subprocess.Popen([os.environ.get("METROSK_BIN", f"{TOP}/target/start/metrosk"), "serve", "--demo", "--pictures", f"{self.folder}/pictures", "--listen", f"127.0.0.1:{self.port}", "--web", f"{TOP}/web/dist"],
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

    def ask(self, method, path, body=None, key=None, raw=False):
        headers = {"content-type": "application/json"} | ({"idempotency-key": key} if key else {})
        data = body if isinstance(body, bytes) or body is None else json.dumps(body).encode()
        request = urllib.request.Request(f"http://127.0.0.1:{self.house.port}{path}", data=data, method=method, headers=headers)
        with self.cookies.open(request, timeout=10) as answer:
            return answer.read() if raw else json.load(answer)

    def until(self, method, path, body=None, key=None, raw=False):
        """Tries again while nobody answers; any answer but 'not now' counts."""
        for _ in range(400):
            try:
                return self.ask(method, path, body, key, raw)
            except urllib.error.HTTPError as e:
                self.statuses[e.code] = self.statuses.get(e.code, 0) + 1
                if e.code not in (502, 503, 504):
                    raise SystemExit(f"{method} {path}: {e.code} {e.read().decode()}")
            except (urllib.error.URLError, ConnectionError, TimeoutError, OSError, http.client.HTTPException):
                pass
            time.sleep(0.05)
        raise SystemExit(f"{method} {path}: the application did not come back within 20 s")


def picture():
    """A small PNG of noise, made here so that every picture differs from the others."""
    import struct, zlib
    side = 160
    rows = b"".join(b"\0" + random.randbytes(side * 3) for _ in range(side))
    chunk = lambda kind, data: struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", struct.pack(">IIBBBBB", side, side, 8, 2, 0, 0, 0)) + chunk(b"IDAT", zlib.compress(rows)) + chunk(b"IEND", b"")


class Work:
    """What is edited: a page's plan, a sketch of the drawer, and pictures that are put in. Each is checked at the end against what was said
    to be saved."""

    def __init__(self, editor):
        self.editor = editor
        card = next(p for p in editor.until("GET", "/api/pages") if p["name"].startswith("Kites"))
        self.page = editor.until("GET", f"/api/pages/{card['id']}")
        self.sketch = editor.until("GET", "/api/sketches")[0]
        self.plans, self.sketches, self.pictures = [], [], {}

    def next(self, label):
        """A write of one of the three kinds: how to ask for it, and what to do with its answer."""
        kind, key = random.choice(["plan", "plan", "sketch", "picture"]), str(uuid.uuid4())
        if kind == "plan":
            body = {"revision": self.page["revision"], "station": "words", "patch": {"words": {"note": label}}, "reason": label}
            return ("PATCH", f"/api/pages/{self.page['id']}/plan", body, key), lambda page: self.saved_plan(page, label)
        if kind == "sketch":
            # A rewrite has no key: it names the revision that it starts from, and a second one finds it taken.
            return ("PUT", f"/api/sketches/{self.sketch['id']}", {"revision": self.sketch["revision"], "tags": [label]}, None), lambda sketch: self.saved_sketch(sketch, label)
        pixels = picture()
        return ("POST", f"/api/pictures?name=round-{len(self.pictures)}", pixels, key), lambda told: self.pictures.update({told["id"]: pixels})

    def saved_plan(self, page, label):
        self.page = page
        self.plans.append((page["revision"], label))

    def saved_sketch(self, sketch, label):
        self.sketch = sketch
        self.sketches.append((sketch["revision"], label))

    def check(self):
        history, before = [], None
        while before is None or before > 1:
            part = self.editor.until("GET", f"/api/pages/{self.page['id']}/revisions" + (f"?before={before}" if before else ""))
            history += [(r["revision"], r["reason"]) for r in part]
            before = part[-1]["revision"]
        labels = [reason for _, reason in history if reason.startswith("round ")]
        lost = [entry for entry in self.plans if entry not in history]
        for revision, label in self.sketches:
            if self.editor.until("GET", f"/api/sketches/{self.sketch['id']}/revisions/{revision}").get("tags") != [label]:
                lost.append((revision, label))
        for id, pixels in self.pictures.items():
            if self.editor.until("GET", f"/api/pictures/{id}/original", raw=True) != pixels:
                lost.append((id, "picture"))
        return lost, len(labels) - len(set(labels))


def main():
    house = House()
    editor = Editor(house)
    try:
        editor.until("POST", "/api/session/demo")
        work = Work(editor)
        kills, slowest = {"server": 0, "database": 0}, 0.0
        for n in range(ROUNDS):
            which = random.choice(["server", "database"])
            kills[which] += 1
            strike = random.randrange(8)
            for k in range(8):
                asked, saved = work.next(f"round {n} change {k}")
                if k != strike:
                    saved(editor.until(*asked))
                    continue
                pid = os.fork()
                if pid == 0:
                    # The blow falls while the write is under way.
                    time.sleep(random.uniform(0, 0.03))
                    os.kill(house.server.pid if which == "server" else house.database.pid, signal.SIGKILL)
                    os._exit(0)
                begun = time.monotonic()
                try:
                    answer = editor.ask(*asked)
                except Exception:
                    answer = None
                os.waitpid(pid, 0)
                house.kill_server() if which == "server" else house.kill_database()
                if answer is None and asked[3] is None:
                    # Whether it got through is told by the sketch itself.
                    now = editor.until("GET", asked[1])
                    answer = now if now["tags"] == asked[2]["tags"] else editor.until(*asked)
                elif answer is None:
                    # The same write, under the same key: it acts once, whether it had got through or not.
                    answer = editor.until(*asked)
                editor.until("GET", f"/api/pages/{work.page['id']}")
                slowest = max(slowest, time.monotonic() - begun)
                saved(answer)
        lost, twice = work.check()
        print(f"{ROUNDS} blows ({kills['server']} on the server, {kills['database']} on the database), "
              f"{len(work.plans)} plans, {len(work.sketches)} sketches, {len(work.pictures)} pictures saved; "
              f"lost {len(lost)}, twice {twice}; back within {slowest:.1f} s; answers meanwhile {editor.statuses}")
        if lost or twice:
            raise SystemExit(f"lost: {lost[:5]}")
    finally:
        house.close()


if __name__ == "__main__":
    main()
