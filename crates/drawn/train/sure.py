"""Fits how sure a block is, from what `--example evidence` wrote, and tells how far that can be believed.

    cargo run --release --package metrosk-drawn --example evidence -- 0 100 > a.jsonl        # and 200 100
    cargo run --release --package metrosk-drawn --example evidence -- 1000 60 demo > b.jsonl # and 1100 60
    python crates/drawn/train/sure.py a.jsonl --also b.jsonl --out crates/vision/weights/sure.json [--check checking.jsonl]

A logistic regression for each kind, by Newton's method, its weights drawn towards those of all kinds together, so that a rare kind says
nothing wild.
"""

import argparse
import json

import numpy as np

NAMES = ["traced", "own", "page", "photo", "edge", "least_edge", "around", "shows", "size"]


def lines(path):
    return [json.loads(line) for line in open(path)]


def matrix(rows):
    x = np.array([[1.0] + row["evidence"] for row in rows])
    return x, np.array([float(row["right"]) for row in rows])


def fitted(x, y, towards, pull):
    def loss(w):
        z = x @ w
        return np.sum(np.logaddexp(0, z) - y * z) + pull / 2 * np.sum((w - towards) ** 2)

    w, now = towards.copy(), loss(towards)
    for _ in range(100):
        p = 1 / (1 + np.exp(-np.clip(x @ w, -40, 40)))
        slope = x.T @ (y - p) - pull * (w - towards)
        curve = (x * (p * (1 - p))[:, None]).T @ x + pull * np.eye(len(w))
        step, share = np.linalg.solve(curve, slope), 1.0
        # A step of Newton's that goes too far is shortened.
        while share > 1e-6 and loss(w + share * step) > now:
            share /= 2
        w, before, now = w + share * step, now, loss(w + share * step)
        if before - now < 1e-9 * (1 + abs(now)):
            break
    return w


def table(says, right):
    print("said        blocks  right")
    for low in np.arange(0, 1, 0.1):
        these = (says >= low) & (says < low + 0.1)
        if these.sum():
            print(f"{low:.1f} to {low + 0.1:.1f}  {these.sum():6}  {right[these].mean():.2f}")


def main():
    ask = argparse.ArgumentParser()
    ask.add_argument("tuning")
    ask.add_argument("--also", help="the demo's hand, which counts four times: there are fewer of its blocks")
    ask.add_argument("--out", required=True)
    ask.add_argument("--check")
    given = ask.parse_args()
    rows = lines(given.tuning) + (4 * lines(given.also) if given.also else [])
    x, y = matrix(rows)
    all_kinds = fitted(x, y, np.zeros(x.shape[1]), 1.0)
    weights = {}
    for kind in sorted({row["kind"] for row in rows}):
        x, y = matrix([row for row in rows if row["kind"] == kind])
        # Of a kind that nobody drew nothing can be learned.
        if y.sum() == 0:
            continue
        w = fitted(x, y, all_kinds, 3.0)
        weights[kind] = {"offset": round(w[0], 4), "weights": [round(v, 4) for v in w[1:]]}
        print(f"{kind:8} {len(y):6} blocks, {y.mean():.2f} right", dict(zip(NAMES, weights[kind]["weights"])))
    with open(given.out, "w") as out:
        json.dump(weights, out, indent=1)
        out.write("\n")
    rows = lines(given.check or given.tuning)
    says = []
    for row in rows:
        w = weights.get(row["kind"])
        if w is None:
            says.append(row["evidence"][0])
            continue
        says.append(1 / (1 + np.exp(-(w["offset"] + np.dot(w["weights"], row["evidence"])))))
    table(np.array(says), np.array([row["right"] for row in rows]))


if __name__ == "__main__":
    main()
