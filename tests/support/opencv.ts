import { createRequire } from 'node:module';

type OpenCv = typeof import('@techstark/opencv-js');

let box: Promise<{ cv: OpenCv }> | null = null;

/**
 * The reference library, initialised once for a test file. It is required, not imported, and handed over in a box: its object
 * has a `then` of its own and would be awaited forever.
 */
export function opencv(): Promise<{ cv: OpenCv }> {
  box ??= new Promise((resolve) => {
    const cv = createRequire(import.meta.url)('@techstark/opencv-js') as OpenCv & { onRuntimeInitialized: () => void };
    if (typeof cv.Mat === 'function') resolve({ cv });
    else cv.onRuntimeInitialized = () => resolve({ cv });
  });
  return box;
}

interface Dictionary {
  generateImageMarker(id: number, sidePx: number, image: unknown, borderBits: number): void;
}

/** The library's own 36h12 dictionary; its types leave the marker module out. */
export function markerDictionary(cv: OpenCv): Dictionary {
  const module = cv as unknown as { getPredefinedDictionary(id: unknown): Dictionary; DICT_ARUCO_MIP_36h12: unknown };
  return module.getPredefinedDictionary(module.DICT_ARUCO_MIP_36h12);
}
