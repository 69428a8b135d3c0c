#!/usr/bin/env python3
"""How much a windowed plate shears, by plane-stress finite elements: what windowedShear_mm is held against.

A quarter of one pitch (from the middle of a post to the middle of a window, from the middle line up): quads with Wilson's incompatible modes,
the flange's shear of 1 N/mm along the free upper edge, by symmetry no upright move at the post's middle, no level move on the middle line, and
an upright edge that moves as one at the window's middle. Needs numpy and scipy.

usage: windows.py      prints the figures that windows.json holds: height, window's length and height, pitch, thickness of a whole plate of 1 mm
"""
import json

import numpy as np
import scipy.sparse as sp
import scipy.sparse.linalg as sl

E, G = 205000.0, 79000.0
NU = E / (2 * G) - 1
FINE = 12  # quads over the least side

CASES = [(96, 60, 56, 100), (96, 60, 46, 100), (96, 40, 36, 100), (96, 120, 56, 180), (96, 60, 64, 90), (146, 90, 86, 150), (96, 60, 36, 160),
         (146, 60, 76, 110), (96, 20, 20, 100), (96, 40, 56, 60), (76, 80, 36, 130), (120, 200, 70, 260), (96, 30, 46, 50), (196, 150, 116, 220),
         (60, 30, 24, 60)]


def element(hx, hy):
    d = E / (1 - NU * NU) * np.array([[1, NU, 0], [NU, 1, 0], [0, 0, (1 - NU) / 2]])
    k, a, c = np.zeros((8, 8)), np.zeros((4, 4)), np.zeros((8, 4))
    g = 1 / np.sqrt(3)
    for x in (-g, g):
        for y in (-g, g):
            n = np.array([[-(1 - y), 1 - y, 1 + y, -(1 + y)], [-(1 - x), -(1 + x), 1 + x, 1 - x]]) / 4
            n[0] *= 2 / hx
            n[1] *= 2 / hy
            b = np.zeros((3, 8))
            b[0, 0::2], b[1, 1::2], b[2, 0::2], b[2, 1::2] = n[0], n[1], n[1], n[0]
            m = np.zeros((3, 4))
            m[0, 0] = m[2, 1] = -4 * x / hx
            m[1, 3] = m[2, 2] = -4 * y / hy
            j = hx * hy / 4
            k += b.T @ d @ b * j
            a += m.T @ d @ m * j
            c += b.T @ d @ m * j
    return k - c @ np.linalg.solve(a, c.T)


def sides(parts):
    at = [0.0]
    for length, count in parts:
        at += list(at[-1] + length * np.arange(1, count + 1) / count)
    return np.array(at)


def whole(b, w, high, s):
    strip, post = (b - high) / 2, (s - w) / 2
    d = min(post, strip, high / 2, w / 2) / FINE
    count = lambda length: max(2, round(length / d))
    xs = sides([(post, count(post)), (w / 2, count(w / 2))])
    ys = sides([(high / 2, count(high / 2)), (strip, count(strip))])
    nx, ny = len(xs), len(ys)
    at = lambda i, j: i * ny + j
    rows, cols, values, known = [], [], [], {}
    used = np.zeros(nx * ny, bool)
    for i in range(nx - 1):
        for j in range(ny - 1):
            if xs[i] >= post - 1e-9 and ys[j + 1] <= high / 2 + 1e-9:
                continue
            key = (round(xs[i + 1] - xs[i], 9), round(ys[j + 1] - ys[j], 9))
            if key not in known:
                known[key] = element(*key)
            nodes = [at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j + 1)]
            used[nodes] = True
            dof = np.array([[2 * n, 2 * n + 1] for n in nodes]).ravel()
            rows += list(np.repeat(dof, 8))
            cols += list(np.tile(dof, 8))
            values += list(known[key].ravel())
    total = 2 * nx * ny
    k = sp.csr_matrix((values, (rows, cols)), shape=(total, total))
    f = np.zeros(total)
    for i in range(nx - 1):
        h = xs[i + 1] - xs[i]
        f[2 * at(i, ny - 1)] += h / 2
        f[2 * at(i + 1, ny - 1)] += h / 2
    right = [2 * at(nx - 1, j) + 1 for j in range(ny) if used[at(nx - 1, j)]]
    f[right[0]] += b / 2
    held = {2 * at(0, j) + 1 for j in range(ny)} | {2 * at(i, 0) for i in range(nx) if xs[i] <= post + 1e-9}
    held |= {d for n in range(nx * ny) if not used[n] for d in (2 * n, 2 * n + 1)}
    tie = sp.identity(total, format="lil")
    for r in right[1:]:
        tie[r, r], tie[r, right[0]] = 0, 1
    free = [d for d in range(total) if d not in held and d not in right[1:]]
    t = tie.tocsr()[:, free]
    load = t.T @ f
    energy = 0.5 * load @ sl.spsolve((t.T @ k @ t).tocsc(), load)
    return b * s / (8 * G * energy)


print(json.dumps([[*case, round(whole(*case), 5)] for case in CASES]))
