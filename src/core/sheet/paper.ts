/** Office paper sends back so much of what white would: L* 94, give or take 1.5 (from memory, without a source). */
export const PAPER_LUMINANCE = 0.853;
