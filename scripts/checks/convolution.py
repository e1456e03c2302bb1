"""Checks the convolver against numpy, from outside: /usr/bin/python3 scripts/checks/convolution.py (Debian's python3-numpy).

The command line answers a click, which gives the impulse, and a noise; numpy convolves the noise with that impulse by
itself. Prints the largest difference in dB under the peak and leaves with 1 when it is not under -100 dB."""
import json
import struct
import subprocess
import sys
import tempfile
from pathlib import Path

import numpy as np

RATE = 48_000
PLACES = ["boatShed", "saltCistern", "brassBoiler"]


def write(path, samples):
    data = np.asarray(samples, "<f4").tobytes()
    head = b"RIFF" + struct.pack("<I", 36 + len(data)) + b"WAVEfmt " + struct.pack("<IHHIIHH", 16, 3, 1, RATE, RATE * 4, 4, 32)
    path.write_bytes(head + b"data" + struct.pack("<I", len(data)) + data)


def read(path):
    raw = path.read_bytes()
    at = 12
    channels = 0
    while at < len(raw):
        name, size = raw[at:at + 4], struct.unpack("<I", raw[at + 4:at + 8])[0]
        if name == b"fmt ":
            channels = struct.unpack("<H", raw[at + 10:at + 12])[0]
        if name == b"data":
            return np.frombuffer(raw[at + 8:at + 8 + size], "<f4").reshape(-1, channels)[:, 0].astype(float)
        at += 8 + size + size % 2
    raise ValueError(f"{path} holds no samples")


def treated(folder, name, samples, chain):
    write(folder / f"{name}.wav", samples)
    command = ["npm", "run", "-s", "cli", "--", "process", str(folder / f"{name}.wav"), str(folder / f"{name}-out.wav"), "--chain", str(chain), "--hear", "wet", "--tail", "9", "--bits", "32f"]
    subprocess.run(command, check=True, stderr=subprocess.DEVNULL)
    return read(folder / f"{name}-out.wav")


def main():
    worst = -999.0
    with tempfile.TemporaryDirectory() as made:
        folder = Path(made)
        noise = np.random.default_rng(5).uniform(-0.02, 0.02, 2 * RATE)
        click = np.zeros(64)
        click[0] = 1
        for place in PLACES:
            chain = folder / "chain.json"
            chain.write_text(json.dumps({"chain": [{"effect": "convolver", "preset": "neutral", "params": {"impulse": place}}]}))
            impulse = treated(folder, "click", click, chain)
            ours = treated(folder, "noise", noise, chain)
            size = 1 << int(np.ceil(np.log2(len(noise) + len(impulse))))
            theirs = np.fft.irfft(np.fft.rfft(noise, size) * np.fft.rfft(impulse, size), size)
            frames = min(len(ours), len(theirs))
            difference = 20 * np.log10(np.max(np.abs(ours[:frames] - theirs[:frames])) / np.max(np.abs(theirs)))
            print(f"{place}: {difference:.1f} dB")
            worst = max(worst, difference)
    return 0 if worst < -100 else 1


sys.exit(main())
