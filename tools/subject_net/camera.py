"""A picture as a camera keeps it: tone, cast, noise, compression."""

import cv2
import numpy as np
from numpy.random import Generator
from numpy.typing import NDArray

Floats = NDArray[np.float32]
Bytes = NDArray[np.uint8]


def photographed(light: Floats, rng: Generator) -> Bytes:
    """``light`` is encoded 0..1, shape (rows, columns, 3); what comes back 0..255."""
    uniform = rng.uniform
    light = np.clip(light, 0, 1) ** uniform(0.7, 1.45)
    light = light * (1 + uniform(-0.1, 0.1, 3)) * uniform(0.75, 1.15)
    if uniform() < 0.3:
        grey = light.mean(2, keepdims=True)
        light = grey + (light - grey) * uniform(0.1, 1.5)
    if uniform() < 0.5:
        rows, columns = light.shape[:2]
        channels = 1 if uniform() < 0.5 else 3
        noise = rng.normal(0, uniform(0, 0.04), (rows, columns, channels))
        if uniform() < 0.4:
            noise = cv2.GaussianBlur(noise, (0, 0), 0.7).reshape(rows, columns, -1) * 1.6
        light = light + noise
    picture = (np.clip(light, 0, 1) * 255).astype(np.uint8)
    if uniform() < 0.6:
        quality = [cv2.IMWRITE_JPEG_QUALITY, int(rng.integers(35, 96))]
        picture = cv2.imdecode(cv2.imencode(".jpg", picture, quality)[1], cv2.IMREAD_COLOR)
    return np.asarray(picture, np.uint8)
