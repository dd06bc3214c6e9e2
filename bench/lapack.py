"""Times of compiled linear algebra (numpy on this machine), in milliseconds, as one line of JSON: best of several."""

import json
import time

import numpy as np


def best(run, times):
    run()
    found = []
    for _ in range(times):
        start = time.perf_counter()
        run()
        found.append(time.perf_counter() - start)
    return min(found) * 1e3


rng = np.random.default_rng(7)
n = 200
a = rng.uniform(-1, 1, (n, n)) + 1j * rng.uniform(-1, 1, (n, n))
b = rng.uniform(-1, 1, (n, n)) + 1j * rng.uniform(-1, 1, (n, n))
column = np.ones((n, 1), dtype=complex)
w = np.arange(1.0, 1_000_001.0)

print(
    json.dumps(
        {
            "product": best(lambda: a @ b, 12),
            "solve": best(lambda: np.linalg.solve(a, column), 12),
            "inverse": best(lambda: np.linalg.inv(a), 8),
            "eigen": best(lambda: np.linalg.eig(a), 3),
            "svd": best(lambda: np.linalg.svd(a), 3),
            "sweep": best(lambda: 1 / (1 + 1j * w * 10 * 3e-6), 12),
        }
    )
)
