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
