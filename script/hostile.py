#!/usr/bin/env python3
"""Hostile input against a running demo (script/start), one kind after the other, and what each came to: status, seconds, and the server's
memory. `script/hostile.py [ADDRESS]`. Python 3, standard library only; loopback only."""

import http.cookiejar, json, struct, sys, time, urllib.error, urllib.request, zlib

AT = sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:4870"
if not AT.startswith(("http://127.0.0.1:", "http://localhost:")):
    raise SystemExit("this goes to this machine only")
browser = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar()))


def ask(method, path, body=None):
    data = body if isinstance(body, bytes) or body is None else json.dumps(body).encode()
    request = urllib.request.Request(AT + path, data=data, method=method, headers={"content-type": "application/json"})
    try:
        with browser.open(request, timeout=120) as answer:
            return answer.status, answer.read()
    except urllib.error.HTTPError as e:
        return e.code, e.read()


def memory():
    """The server's resident memory in MB, now and at its highest, told by the system."""
    import subprocess
    pid = subprocess.run(["pgrep", "-nf", "metrosk serve"], capture_output=True, text=True).stdout.split()
    lines = open(f"/proc/{pid[0]}/status").read().splitlines() if pid else []
    return {k: int(v.split()[0]) // 1024 for k, v in (l.split(":") for l in lines if l.startswith(("VmRSS", "VmHWM")))}


def png(w, h, bits, channels):
    """A PNG of one tone, small as a file whatever its pixels take."""
    row = b"\0" + bytes(w * channels * bits // 8)
    deflate, packed = zlib.compressobj(9), b""
    for _ in range(h):
        packed += deflate.compress(row)
    packed += deflate.flush()
    chunk = lambda kind, data: struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
    head = struct.pack(">IIBBBBB", w, h, bits, {1: 0, 3: 2, 4: 6}[channels], 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", packed) + chunk(b"IEND", b"")


def main():
    ask("POST", "/api/session/demo")
    page = json.loads(ask("GET", "/api/pages")[1])[0]
    plan = json.loads(ask("GET", f"/api/pages/{page['id']}")[1])["plan"]
    fit = {"format": "metrosk-fit/1", "unit": plan["unit"]}
    for section in ("sketch", "photos", "fit"):
        fit |= {name: value for name, value in plan.get(section, {}).items() if name not in ("mark", "grounds")}
    target = {"page": {"w": 12, "h": 12}, "pages": 2}
    block = lambda n: {"id": f"p{n}", "kind": "photo", "box": {"x": n % 25 * 0.48, "y": n // 25 * 0.6, "w": 0.4, "h": 0.5}, "turn": n % 7}
    crowd = {"format": "metrosk-sketch/1", "unit": "in", "name": "Crowd", "canvas": {"page": {"w": 12, "h": 12}, "pages": 1},
             "blocks": [block(n) for n in range(500)]}
    title = dict(crowd, canvas={"page": {"w": 12, "h": 12}, "pages": 2}, blocks=[{"id": "t1", "kind": "title", "box": {"x": 14, "y": 2, "w": 6, "h": 1}}])
    base = {"format": "metrosk-fit/1", "unit": "in", "target": target}
    cases = [
        ("a fit of 500 turned photos to a spread", "POST", "/api/fit", base | {"sketch": crowd}),
        ("a spread whose kept page is empty", "POST", "/api/fit", base | {"sketch": title, "target": target | {"pages": 1}, "approach": "one-side"}),
        ("slot choices with 100 000 ids", "POST", "/api/fit", fit | {"slots": [{"photos": [f"p{n}" for n in range(100_000)], "as": "cells", "cols": 2}]}),
        ("choices of another request", "POST", "/api/fit/again", {"fit": fit, "choices": {"approach": "stretch", "sides": {"x": "left"}, "lost": [], "solved": []}}),
        ("ten thousand lines by number", "POST", "/api/notation", {"text": "mat 1/8 around p9\n" * 10_000}),
        ("500 mats around each other", "POST", "/api/notation", {"text": "\n".join(f"mat m{n} 1/8 around m{n + 1}" for n in range(499)) + "\nphoto m499 1x1 at 6, 6"}),
        ("a turn without end", "POST", "/api/notation", {"text": "photo 4x6 at 3, 2 turned 1e999"}),
        ("a picture of 36 million pixels, 64 bits each", "POST", "/api/pictures?name=deep", png(6000, 6000, 16, 4)),
        ("a picture of 59 million pixels", "POST", "/api/pictures?name=large", png(7700, 7700, 8, 3)),
        ("a picture of 400 million pixels", "POST", "/api/pictures?name=huge", png(20_000, 20_000, 8, 1)),
        ("17 MB of nothing", "POST", "/api/pictures?name=long", bytes(17 * 1024 * 1024)),
        ("a picture 120 x 2400", "POST", "/api/pictures?name=narrow", png(120, 2400, 8, 3)),
        ("a nest of 100 000 lists", "POST", "/api/sketches", b"[" * 100_000),
        ("a page named with U+FFFF, its sheet", "PUT", f"/api/pages/{page['id']}", {"details_revision": page["details_revision"], "name": "Kites \uffff"}),
        ("that sheet as PDF", "GET", f"/api/pages/{page['id']}/sheet.pdf", None),
    ]
    before = memory()
    print(f"before: {before}")
    worst = 0.0
    for name, method, path, body in cases:
        begun = time.monotonic()
        status, answer = ask(method, path, body)
        took = time.monotonic() - begun
        worst = max(worst, took)
        said = answer[:160].decode(errors="replace").replace("\n", " ") if status >= 400 else f"{len(answer)} bytes"
        print(f"{status} {took:6.2f} s  {name}: {said}")
        if status in (500, 502, 504) or status == 503 and b"busy" not in answer:
            raise SystemExit("that is no answer")
    assert ask("GET", "/readyz")[0] == 200
    print(f"after: {memory()}; the slowest took {worst:.1f} s")


main()
