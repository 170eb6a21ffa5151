"""Trains the network that tells what each pixel of a sketch's picture shows, and writes its weights for `crates/vision`.

Not needed to build, run or test. With `torch`, `numpy` and `safetensors` installed, from the project's folder:

    cargo run --release --package metrosk-drawn --example pairs -- 10000000 4500 part1.bin
    cargo run --release --package metrosk-drawn --example pairs -- 20000000 4500 part2.bin
    python crates/drawn/train/train.py --minutes 60 --out crates/vision/weights/sketch.safetensors part1.bin part2.bin

The network is a small U-Net (Ronneberger, Fischer and Brox 2015): 320 x 320 pixels of RGB in, 160 x 160 places out, each with nine classes
(outside, page, photo, mat, paper, title, writing, cluster, accent) and an edge. It is trained by Adam with one cycle of the learning rate.
"""

import argparse
import os
import time

import numpy as np
import torch
import torch.nn.functional as F
from safetensors.torch import save_file
from torch import nn

SEED = 20260131
SIDE, HALF = 320, 160
CLASSES = 9
# The first pictures of each file tell how well it goes, and are not trained with.
FIRST = 40
RECORD = SIDE * SIDE * 3 + 2 * HALF * HALF
# Small things matter as much as large ones: a class weighs by the root of how rare it is.
WEIGHTS = torch.tensor([0.6, 0.7, 0.7, 2.2, 1.2, 2.0, 1.8, 2.5, 2.5])
EDGES_WEIGH = 4.0


def twice(ins, outs, stride=1):
    def conv(a, b, s):
        return [nn.Conv2d(a, b, 3, s, 1, bias=False), nn.BatchNorm2d(b), nn.ReLU(inplace=True)]

    return nn.Sequential(*conv(ins, outs, stride), *conv(outs, outs, 1))


def once(ins, outs, size=3):
    return nn.Sequential(nn.Conv2d(ins, outs, size, 1, size // 2, bias=False), nn.BatchNorm2d(outs), nn.ReLU(inplace=True))


class Marks(nn.Module):
    def __init__(self, widths=(24, 40, 64, 96, 128)):
        super().__init__()
        self.down = nn.ModuleList([twice(3, widths[0], 2)] + [twice(a, b) for a, b in zip(widths, widths[1:])])
        pairs = list(zip(widths[::-1], widths[-2::-1]))
        self.narrow = nn.ModuleList([once(a, b, 1) for a, b in pairs])
        self.join = nn.ModuleList([once(2 * b, b) for _, b in pairs])
        self.head = nn.Conv2d(widths[0], CLASSES + 1, 1)

    def forward(self, x):
        seen = []
        for n, step in enumerate(self.down):
            x = step(x if n == 0 else F.max_pool2d(x, 2))
            seen.append(x)
        for narrow, join, beside in zip(self.narrow, self.join, seen[-2::-1]):
            x = join(torch.cat([F.interpolate(narrow(x), scale_factor=2.0, mode="nearest"), beside], 1))
        return self.head(x)


def records(path):
    """The records of a file, which may still be written to."""
    whole = os.path.getsize(path) // RECORD
    return np.memmap(path, np.uint8, "r", shape=(whole, RECORD))


def batches(paths, size, luck):
    """Endless batches, each picture turned, mirrored, tinted and blurred at random."""
    while True:
        parts = [records(path)[FIRST:] for path in paths]
        order = [(p, n) for p, part in enumerate(parts) for n in range(len(part))]
        luck.shuffle(order)
        for at in range(0, len(order) - size + 1, size):
            yield [varied(parts[p][n], luck) for p, n in order[at : at + size]]


def varied(record, luck):
    rgb = record[: SIDE * SIDE * 3].reshape(SIDE, SIDE, 3).astype(np.float32) / 255
    rest = record[SIDE * SIDE * 3 :].reshape(2, HALF, HALF)
    kinds, edges = rest[0], rest[1]
    # Words are read one way only: a mirrored one is still a word here, so quarter turns are what to be sparing with.
    turns = luck.choice([0, 0, 0, 0, 1, 2, 3])
    rgb, kinds, edges = np.rot90(rgb, turns), np.rot90(kinds, turns), np.rot90(edges, turns)
    if luck.random() < 0.5:
        rgb, kinds, edges = rgb[:, ::-1], kinds[:, ::-1], edges[:, ::-1]
    if luck.random() < 0.25:
        rgb = rgb.mean(2, keepdims=True).repeat(3, 2)
    if luck.random() < 0.3:
        rgb = rgb[:, :, luck.permutation(3)]
    contrast, light = luck.uniform(0.7, 1.25), luck.uniform(-0.12, 0.08)
    tint = luck.uniform(0.9, 1.1, 3).astype(np.float32)
    rgb = ((rgb - 0.5) * contrast + 0.5 + light) * tint
    if luck.random() < 0.3:
        rgb = (rgb + np.roll(rgb, 1, 0) + np.roll(rgb, 1, 1) + np.roll(rgb, (1, 1), (0, 1))) / 4
    if luck.random() < 0.5:
        rgb = rgb + luck.normal(0, luck.uniform(0, 0.04), rgb.shape)
    rgb = np.clip(rgb, 0, 1).astype(np.float32)
    return np.ascontiguousarray(rgb.transpose(2, 0, 1)), np.ascontiguousarray(kinds), np.ascontiguousarray(edges)


def loss_of(out, kinds, edges):
    by_class = F.cross_entropy(out[:, :CLASSES], kinds, weight=WEIGHTS)
    heavy = torch.tensor(EDGES_WEIGH)
    by_edge = F.binary_cross_entropy_with_logits(out[:, CLASSES], edges, pos_weight=heavy)
    return by_class + 0.5 * by_edge


def stacked(batch):
    rgb, kinds, edges = (torch.from_numpy(np.stack(part)) for part in zip(*batch))
    return rgb.contiguous(memory_format=torch.channels_last), kinds.long(), edges.float()


def main():
    ask = argparse.ArgumentParser()
    ask.add_argument("parts", nargs="+")
    ask.add_argument("--minutes", type=float, default=60)
    ask.add_argument("--out", required=True)
    ask.add_argument("--batch", type=int, default=8)
    ask.add_argument("--rate", type=float, default=4e-3)
    given = ask.parse_args()
    torch.manual_seed(SEED)
    luck = np.random.default_rng(SEED)
    kept = [varied(record, luck) for path in given.parts for record in records(path)[:FIRST]]
    model = Marks().to(memory_format=torch.channels_last)
    print(sum(p.numel() for p in model.parameters()), "weights", flush=True)
    adam = torch.optim.AdamW(model.parameters(), lr=given.rate, weight_decay=1e-4)
    begun, step, mean = time.time(), 0, 0.0
    for batch in batches(given.parts, given.batch, luck):
        gone = (time.time() - begun) / (60 * given.minutes)
        if gone >= 1:
            break
        rate = given.rate * (gone / 0.05 if gone < 0.05 else 0.5 * (1 + np.cos(np.pi * (gone - 0.05) / 0.95)))
        for group in adam.param_groups:
            group["lr"] = max(rate, 1e-5)
        rgb, kinds, edges = stacked(batch)
        loss = loss_of(model(rgb), kinds, edges)
        adam.zero_grad()
        loss.backward()
        adam.step()
        mean, step = 0.98 * mean + 0.02 * loss.item() if step else loss.item(), step + 1
        if step % 100 == 0:
            print(f"{step:6} {time.time() - begun:7.0f} s  {mean:.4f}", flush=True)
        if step % 1000 == 0:
            checked(model, kept)
            write(model, given.out)
    checked(model, kept)
    write(model, given.out)


def checked(model, kept):
    model.eval()
    right, there, said = np.zeros(CLASSES), np.zeros(CLASSES), np.zeros(CLASSES)
    with torch.no_grad():
        for at in range(0, len(kept), 8):
            rgb, kinds, _ = stacked(kept[at : at + 8])
            found = model(rgb)[:, :CLASSES].argmax(1)
            for c in range(CLASSES):
                right[c] += ((found == c) & (kinds == c)).sum().item()
                there[c] += (kinds == c).sum().item()
                said[c] += (found == c).sum().item()
    model.train()
    print("overlap by class", (right / np.maximum(there + said - right, 1)).round(2), flush=True)


def folded(steps):
    """A convolution's weights and offsets with the normalisation that follows it, as half floats."""
    conv, norm = steps
    by = norm.weight / torch.sqrt(norm.running_var + norm.eps)
    return conv.weight * by[:, None, None, None], norm.bias - norm.running_mean * by


def write(model, path):
    layers = {"head": (model.head.weight, model.head.bias)}
    for n, step in enumerate(model.down):
        layers[f"down.{n}.0"], layers[f"down.{n}.1"] = folded(step[0:2]), folded(step[3:5])
    for n in range(len(model.narrow)):
        layers[f"narrow.{n}"], layers[f"join.{n}"] = folded(model.narrow[n][0:2]), folded(model.join[n][0:2])
    tensors = {}
    for name, (weights, offsets) in layers.items():
        tensors[f"{name}.weights"] = weights.detach().half().contiguous()
        tensors[f"{name}.offsets"] = offsets.detach().half().contiguous()
    save_file(tensors, path)


if __name__ == "__main__":
    main()
