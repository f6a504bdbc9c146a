import { describe, expect, it } from 'vitest';
import { escapeXml, pathData, xmlNumber } from './xml';
import { points } from '../../tests/support/points';
import { listed } from '../../tests/support/listed';

describe('what SVG and HTML files share', () => {
  it('numbers are short, to a micrometre, and never empty', () => {
    expect([1, 1.5, 1.2345, 10, 0, -0.0001, 100.1].map(xmlNumber)).toEqual(listed('1; 1.5; 1.234; 10; 0; 0; 100.1'));
  });
  it('words cannot end what they stand in', () => {
    expect(escapeXml(`<a title="x" class='y'>&`)).toBe('&#60;a title=&#34;x&#34; class=&#39;y&#39;&#62;&#38;');
  });
  it('paths move to their first point and draw lines to the others, closed where asked', () => {
    const lines = [points([0, 1], [2.5, 1], [2, 3]), points([9, 9], [8, 9])];
    expect(pathData(lines, false)).toBe('M0 1L2.5 1L2 3M9 9L8 9');
    expect(pathData(lines, true)).toBe('M0 1L2.5 1L2 3zM9 9L8 9z');
    expect(pathData([], true)).toBe('');
  });
});
