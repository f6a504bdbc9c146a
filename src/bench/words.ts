const WORD = /([A-Z])\s*([+-]?(?:\d+\.?\d*|\.\d+))/gy;

/** The words of one line of a program, by letter in order; a message when it cannot be read. Comments are dropped. */
export function readWords(line: string): ReadonlyMap<string, readonly number[]> | string {
  const text = line
    .replace(/\([^)]*\)/g, '')
    .replace(/;.*/, '')
    .trim()
    .toUpperCase();
  const words = new Map<string, number[]>();
  WORD.lastIndex = 0;
  let read = 0;
  for (let match = WORD.exec(text); match; match = WORD.exec(text)) {
    words.set(match[1]!, [...(words.get(match[1]!) ?? []), Number(match[2])]);
    read = WORD.lastIndex;
    while (text[read] === ' ') WORD.lastIndex = ++read;
  }
  return read === text.length ? words : `cannot read "${text.slice(read)}"`;
}
