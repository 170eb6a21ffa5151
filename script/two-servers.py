#!/usr/bin/env python3
"""Two servers on one PostgreSQL and one S3-compatible store: pictures put in at one are seen at the other, events reach both, and a job that
one has begun is finished by the other after a kill. `script/two-servers.py`; Python 3, and `moto` for the store, which is fetched into
target/tools. Everything runs on loopback in a folder of its own under the system's temporary folder, with the build that script/start makes
(METROSK_BIN names another)."""

import importlib.util, json, os, signal, subprocess, sys, threading, time, urllib.request

TOP = os.path.dirname(os.path.dirname(os.path.abspath(__file__)))
spec = importlib.util.spec_from_file_location("crash", f"{TOP}/script/crash.py")
crash = importlib.util.module_from_spec(spec)
spec.loader.exec_module(crash)

STORE = {"AWS_ACCESS_KEY_ID": "metrosk", "AWS_SECRET_ACCESS_KEY": "metrosk", "AWS_REGION": "us-east-1", "AWS_ALLOW_HTTP": "true"}
BUCKET = "club-pictures"


def tools():
    """The store's program, fetched once."""
    folder = f"{TOP}/target/tools"
    if not os.path.exists(f"{folder}/bin/moto_server"):
        subprocess.check_call([sys.executable, "-m", "venv", folder])
        subprocess.check_call([f"{folder}/bin/pip", "--quiet", "install", "moto[server,s3]==5.2.5"])
    return f"{folder}/bin/moto_server"


def until(what, probe, seconds=60):
    for _ in range(seconds * 20):
        found = probe()
        if found:
            return found
        time.sleep(0.05)
    raise SystemExit(f"{what}: not within {seconds} s")


class Server:
    """One of the two, with its own port."""

    def __init__(self, house, store):
        self.port = crash.free_port()
        self.environment = {**os.environ, **STORE, "AWS_ENDPOINT": f"http://127.0.0.1:{store}", "RUST_LOG": "off",
                            "DATABASE_URL": f"postgres://metrosk@127.0.0.1:{house.db_port}/postgres"}
        self.process = subprocess.Popen([os.environ.get("METROSK_BIN", f"{TOP}/target/start/metrosk"), "serve", "--demo", "--pictures", f"s3://{BUCKET}",
                                         "--listen", f"127.0.0.1:{self.port}", "--web", f"{TOP}/web/dist"], env=self.environment, stdout=subprocess.PIPE, text=True)
        if not self.process.stdout.readline().startswith("Metrosk is at"):
            raise SystemExit("a server did not start")

    def kill(self):
        self.process.send_signal(signal.SIGKILL)
        self.process.wait()


class Listener(threading.Thread):
    """Somebody who listens to a server's event stream."""

    def __init__(self, editor):
        super().__init__(daemon=True)
        self.events = []
        request = urllib.request.Request(f"http://127.0.0.1:{editor.house.port}/api/events")
        self.stream = editor.cookies.open(request, timeout=120)
        self.start()

    def run(self):
        try:
            for line in self.stream:
                if line.startswith(b"data: {"):
                    self.events.append(json.loads(line[6:]))
        except (OSError, ValueError):
            pass  # Its server is gone.

    def heard(self, **wanted):
        return next((e for e in list(self.events) if all(e.get(k) == v for k, v in wanted.items())), None)


def pictures_and_events(a, b):
    """What is put in and changed at one is seen and heard at the other."""
    heard = [Listener(a), Listener(b)]
    pixels = crash.picture()
    told = a.until("POST", "/api/pictures?name=shared", pixels)
    same = b.until("GET", f"/api/pictures/{told['id']}/original", raw=True) == pixels
    print(f"a picture put in at one is the same at the other: {same}")
    page = next(p for p in a.until("GET", "/api/pages") if p["name"].startswith("Kites"))
    body = {"revision": page["revision"], "station": "words", "patch": {"words": {"note": "two servers"}}, "reason": "a note"}
    saved = a.until("PATCH", f"/api/pages/{page['id']}/plan", body)
    for listener in heard:
        until("the event", lambda: listener.heard(what="page", thing=page["id"], revision=saved["revision"]))
    print("a change made at one is heard at both: True")
    return same


def job_after_kill(first, a, b):
    """A job that is begun on one server, which is then killed, is finished by the other."""
    scans = [p for p in a.until("GET", "/api/pictures") if "sketch" in p["name"].lower() or "scan" in p["name"].lower()]
    scan = (scans or a.until("GET", "/api/pictures"))[0]
    listener = Listener(b)
    # More of them than the other server can have begun by then: some are surely the first one's.
    jobs = [a.until("POST", f"/api/pictures/{scan['id']}/reading?width=12&height=12")["id"] for _ in range(6)]
    begun = until("a job begun", lambda: [j for j in jobs if listener.heard(thing=j, state="running")])
    first.kill()
    killed = time.monotonic()
    states = {}

    def all_ended():
        for job in jobs:
            states[job] = b.until("GET", f"/api/jobs/{job}")["state"]
        return all(s == "done" for s in states.values())

    until("all jobs done", all_ended, 120)
    again = sum(1 for j in jobs if len([e for e in listener.events if e["thing"] == j and e.get("state") == "running" and not e.get("progress")]) > 1)
    print(f"{len(jobs)} jobs, {len(begun)} begun when a server was killed; all done {time.monotonic() - killed:.1f} s later, {again} of them taken over")
    return again


def main():
    house = crash.House()
    house.server.kill()
    store_port = crash.free_port()
    store = subprocess.Popen([tools(), "-H", "127.0.0.1", "-p", str(store_port)], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)
    servers = []
    try:
        address = f"http://127.0.0.1:{store_port}"

        def answers():
            try:
                urllib.request.urlopen(address, timeout=1)
                return True
            except OSError:
                return False

        until("the store", answers)
        urllib.request.urlopen(urllib.request.Request(f"{address}/{BUCKET}", method="PUT"), timeout=10)
        servers = [Server(house, store_port), Server(house, store_port)]
        editors = []
        for server in servers:
            editor = crash.Editor(type("Place", (), {"port": server.port}))
            editor.until("POST", "/api/session/demo")
            editors.append(editor)
        same = pictures_and_events(*editors)
        taken_over = job_after_kill(servers[0], *editors)
        if not (same and taken_over):
            raise SystemExit("something is amiss")
    finally:
        for server in servers:
            server.process.kill()
        store.kill()
        house.close()


if __name__ == "__main__":
    main()
