"""Reference vectors for core/signal, made with scipy. Run: python3 scripts/reference/filters.py > core/signal/fixtures/reference.json"""
import json
import numpy as np
from scipy import signal

fs = 500.0
i = np.arange(240)
x = 30 * np.sin(2 * np.pi * 1.7 * i / fs) + 5 * np.sin(2 * np.pi * 31 * i / fs) + 0.01 * (i % 17) ** 2
b, a = signal.butter(2, 60, fs=fs)
_, density = signal.welch(x, fs, window="hann", nperseg=64, noverlap=32, detrend="constant", scaling="density")
print(json.dumps({
    "sampleRateHz": fs,
    "x": x.tolist(),
    "lowPass60Hz": signal.filtfilt(b, a, x).tolist(),
    "derivative11": signal.savgol_filter(x, 11, 3, deriv=1, delta=1 / fs).tolist(),
    "welch64": density.tolist(),
}))
