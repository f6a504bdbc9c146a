"""What a native vision library takes for decoding a photo, finding its markers, straightening the card and averaging its cells.

One job as JSON on standard input, its times in ms as JSON on standard output, a median of the rounds after the first.
It needs Debian's python3-opencv, in which the library's own threads are held to one.
"""
import json
import sys
import time

import cv2
import numpy as np

cv2.setNumThreads(1)
job = json.load(sys.stdin)
file = np.fromfile(job["jpeg"], np.uint8)
light = np.array(job["light"], np.float32)
to_photo = np.array(job["toPhoto"]).reshape(3, 3)
per_mm, box = job["pxPerMm"], job["boxPx"]
size = (round(job["widthMm"] * per_mm), round(job["heightMm"] * per_mm))

dictionary = cv2.aruco.custom_dictionary(0, 6)
dictionary.bytesList = np.concatenate(
    [cv2.aruco.Dictionary_getByteListFromBits(np.array(bits, np.uint8)) for bits in job["codes"]]
)
asked = cv2.aruco.DetectorParameters_create()
asked.adaptiveThreshWinSizeMax = 43
asked.cornerRefinementMethod = cv2.aruco.CORNER_REFINE_SUBPIX

times, found = [], 0
for _ in range(job["rounds"]):
    laps = [time.perf_counter()]
    photo = cv2.imdecode(file, cv2.IMREAD_COLOR)
    laps.append(time.perf_counter())

    # Markers are hatched: of the photo made smaller, and a little softer, they are solid.
    gray = cv2.cvtColor(photo, cv2.COLOR_BGR2GRAY)
    small = cv2.blur(cv2.resize(gray, None, fx=1 / job["factor"], fy=1 / job["factor"], interpolation=cv2.INTER_AREA), (5, 5))
    _, ids, _ = cv2.aruco.detectMarkers(small, dictionary, parameters=asked)
    found = 0 if ids is None else len(ids)
    laps.append(time.perf_counter())

    # In linear light, each pixel of the straightened card the mean of a square of the photo's: of the part that shows the card.
    corners = cv2.perspectiveTransform(
        np.array([[[0, 0], [job["widthMm"], 0], [job["widthMm"], job["heightMm"]], [0, job["heightMm"]]]], np.float64), to_photo
    )[0]
    left, top = np.maximum(0, np.floor(corners.min(axis=0)).astype(int) - 4)
    right, bottom = np.ceil(corners.max(axis=0)).astype(int) + 4
    part = cv2.blur(cv2.LUT(photo[top:bottom, left:right], light), (box, box))
    # Pixel centres of the straightened card lie half a pixel inside it.
    card = np.array([[per_mm, 0, -0.5], [0, per_mm, -0.5], [0, 0, 1]])
    moved = np.array([[1, 0, -left], [0, 1, -top], [0, 0, 1]]) @ to_photo
    straight = cv2.warpPerspective(part, card @ np.linalg.inv(moved), size, flags=cv2.INTER_LINEAR)
    laps.append(time.perf_counter())

    means = [cv2.mean(straight[y0:y1, x0:x1]) for x0, y0, x1, y1 in job["cells"]]
    laps.append(time.perf_counter())
    times.append([1000 * (after - before) for before, after in zip(laps, laps[1:])])

decode, markers, straightening, cells = np.median(np.array(times[1:]), axis=0)
print(
    json.dumps(
        {
            "version": cv2.__version__,
            "found": found,
            "decode": decode,
            "markers": markers,
            "straightening": straightening,
            "cells": cells,
            "means": [list(mean[2::-1]) for mean in means],
        }
    )
)
