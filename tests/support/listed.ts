/** The words of a list in one text: `listed('G21; G90')` is `['G21', 'G90']`. */
export const listed = (text: string): string[] => text.split('; ');
