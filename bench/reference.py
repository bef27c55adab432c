"""The usual scientific libraries on the same job as bench/analysis.ts: two channels of 600,000 samples at 1000 Hz.

Prints the median of five runs after a warm-up, in ms. One thread. Run by `npm run bench` where scipy is at hand.
"""
import os

for name in ("OMP_NUM_THREADS", "OPENBLAS_NUM_THREADS", "MKL_NUM_THREADS"):
    os.environ[name] = "1"
import time

import numpy as np
from scipy import signal

FS, N = 1000.0, 600_000
t = np.arange(N) / FS
rng = np.random.default_rng(3)


def ride(phase):
    return 25 + 12 * np.sin(7 * t + phase) + 8 * np.maximum(0, np.sin(1.3 * t)) ** 8 + 2 * rng.random(N)


def low(x, hz):
    b, a = signal.butter(2, hz, fs=FS)
    return signal.filtfilt(b, a, x)


def channel(raw):
    x = low(raw, 60)
    v = signal.savgol_filter(x, 21, 3, deriv=1, delta=1 / FS) * 1.5
    support = low(x, 3) - low(x, 0.3)
    chatter = low(x, 25) - low(x, 8)
    signal.welch(x, FS, nperseg=2048, noverlap=1024, detrend="constant")
    np.histogram(x, bins=50, range=(0, 100))
    np.histogram(v, bins=80, range=(-4000, 4000))
    np.quantile(x, [0.05, 0.5, 0.95])
    np.quantile(v[v > 0], 0.95)
    np.quantile(-v[v < 0], 0.95)
    signal.find_peaks(x, prominence=6, distance=60)
    return np.sqrt(np.mean(support**2)), np.sqrt(np.mean(chatter**2)), np.mean(x)


def job(a, b):
    channel(a)
    channel(b)
    lags = range(5, 61)
    f, r = a[::10] - a.mean(), b[::10] - b.mean()
    return max(np.dot(f[:-k], r[k:]) for k in lags)


front, rear = ride(0), ride(0.4)
job(front, rear)
times = []
for _ in range(5):
    start = time.perf_counter()
    job(front, rear)
    times.append(time.perf_counter() - start)
print(sorted(times)[2] * 1000)
