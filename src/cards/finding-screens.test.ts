import { createElement, type ComponentType } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../stand-ins/demo';
import { factNow } from '../../stand-ins/facts';
import { readingOf } from '../../stand-ins/made-up-reading';
import { observerOf } from '../../stand-ins/observers';
import type { FindingProps } from '../components/finding-props';
import type { Answer, Seen } from '../core/card/asks';
import type { Known, Pairing } from '../core/card/contract';
import { deliveredBy } from '../core/card/energy';
import { layCard } from '../core/card/lay';
import { mainBurn, type Layout } from '../core/card/layout';
import type { BurnSettings } from '../core/card/settings';
import { coverageOfBurn, type Shape } from '../core/card/shape';
import { unpackGreys } from '../core/picture/greys';
import type { CellReading } from '../core/reading/observations';
import { responseOf } from '../core/stock/response';
import { CARD_KIND_NAMES, cardKind, type CardKindName } from './registry';

/** What a kind's screen shows of a card, as HTML. */
async function htmlOf(name: CardKindName, view: FindingProps['view']): Promise<string> {
  const screen = (await import(`./${name}/ui/Finding.tsx`)) as { default: ComponentType<FindingProps> };
  const props = {
    view,
    selected: null,
    onSelect: () => undefined,
    tabs: null,
    title: null,
    ladder: null,
    onKept: () => undefined,
    onAnswered: () => Promise.resolve(),
  };
  return renderToStaticMarkup(createElement(screen.default, props));
}

/** A picture that came out in proportion to what was wanted, at every third place. */
function pictureIn(shape: Shape): CellReading['picture'] {
  if (shape.do !== 'picture') return null;
  const { columns, rows } = shape.wanted;
  const bytes = unpackGreys(shape.wanted);
  const [wide, high] = [Math.floor(columns / 3), Math.floor(rows / 3)];
  const deltas = Array.from({ length: wide * high }, (_, at) => {
    const [column, row] = [at % wide, Math.floor(at / wide)];
    return -40 * (bytes[(3 * row + 1) * columns + 3 * column + 1]! / 255);
  });
  return { columns: wide, rows: high, deltas };
}

/** What a photo might show: cells as dark as the energy laid down in them makes them. */
const readingsOf = (layout: Layout, on: Pairing): CellReading[] =>
  layout.order.map((cellIndex): CellReading => {
    const burn = mainBurn(layout.cells[cellIndex]!);
    const energy = deliveredBy(burn.settings, on).arealJPerMm2 * coverageOfBurn(burn);
    const deltaLightness = -40 * (1 - Math.exp((-3 * energy) / responseOf(on.stock, on.machine).energies.deep));
    const lightness = on.stock.bareLightness + deltaLightness;
    return { ...readingOf(cellIndex), lightness, deltaLightness, picture: pictureIn(burn.shape) };
  });
/** Each cell called by the first word that its kind asks for. */
const answersOf = (name: CardKindName, layout: Layout): Answer[] =>
  cardKind(name).asks.flatMap((ask): Answer[] =>
    ask.by === 'eye' && ask.of === 'cell'
      ? layout.order.map((cellIndex) => ({ field: ask.field, cellIndex, repeat: 0, value: ask.options[0]!.id }))
      : ask.by === 'gauge'
        ? layout.order.map((cellIndex) => ({ field: ask.field, cellIndex, repeat: 0, value: 9.9 }))
        : [],
  );

describe.each(CARD_KIND_NAMES)('what a card of kind %s says on the screen', (name) => {
  const kind = cardKind(name);
  const observer = observerOf(name);
  const pairing = demoPairing(observer.on[0] as never, observer.on[1] as never);
  const known: Known = { pairing, facts: observer.facts?.(pairing) ?? [] };
  const layout = layCard(kind, kind.propose(known).plan, pairing, { cardNumber: 5 });
  const shown = async (seen: Seen): Promise<string> => {
    const view = {
      card: { id: 1, kind: name, layout, madeFor: pairing },
      pairing: { ...pairing, id: 1, remarks: [] },
      known,
      reading:
        seen.readings.length > 0
          ? { photoId: 1, shown: [{ photoId: 1, station: null }], cells: seen.readings, doubts: [] }
          : null,
      through: null,
      answers: seen.answers,
      kept: [],
      photos: [],
      burnedCells: layout.order,
    } as unknown as FindingProps['view'];
    return htmlOf(name, view);
  };
  const plain = (html: string): string =>
    html
      .replaceAll('&#x27;', "'")
      .replaceAll('&amp;', '&')
      .replaceAll('&quot;', '"')
      .replaceAll('&lt;', '<')
      .replaceAll('&gt;', '>');

  it.each([
    ['nothing', (): Seen => ({ readings: [], answers: [] })],
    ['a photo', (): Seen => ({ readings: readingsOf(layout, pairing), answers: [] })],
    ['words and gauges', (): Seen => ({ readings: [], answers: answersOf(name, layout) })],
    ['both', (): Seen => ({ readings: readingsOf(layout, pairing), answers: answersOf(name, layout) })],
  ])('is what its finding says of %s, with no number that is none', async (_, see) => {
    const seen = see();
    const finding = kind.find(layout, seen, known, kind.wish(pairing));
    const html = plain(await shown(seen));
    if (finding.missing.length > 0) for (const words of finding.missing) expect(html).toContain(words);
    else expect(html).toContain(finding.says);
    expect(html).not.toMatch(/NaN|undefined|Infinity|\[object/);
  });
});

describe('a sheet check whose power has to be shifted, on the screen', () => {
  const pairing = demoPairing('heron', 'birch');
  const kind = cardKind('sheet-check');
  const guess = kind.propose({ pairing, facts: [] }).plan as unknown as { constants: BurnSettings };
  const settings = { ...guess.constants, powerFraction: 0.5, speedMmPerS: 40, passes: 1 };
  const kept = factNow('engrave', { settings, lightness: 40, lightnessSigma: 0.4, confidence: 1 });
  const known: Known = { pairing, facts: [kept] };
  const layout = layCard(kind, kind.propose(known).plan, pairing, { cardNumber: 5 });
  const shown = async (at: number, burns: object[]): Promise<string> => {
    const cells = layout.order.map((cellIndex) => {
      const { powerFraction } = mainBurn(layout.cells[cellIndex]!).settings;
      return { cellIndex, lightness: at - 30 * Math.log(powerFraction / 0.5), lightnessSigma: 0.4 };
    });
    const view = {
      card: { id: 1, kind: kind.kind, layout, madeFor: pairing },
      known,
      burns,
      reading: { photoId: 1, shown: [], cells, doubts: [] },
      answers: [],
      kept: [],
      photos: [],
      burnedCells: layout.order,
      through: null,
    } as unknown as FindingProps['view'];
    return htmlOf('sheet-check', view);
  };
  const BURNS = [{ machineId: 7, startedAt: '2026-05-01T10:00:00Z' }];
  it('says what that tells of the machine, were it the very same sheet, and offers to note it', async () => {
    const html = await shown(43, BURNS);
    expect(html).toMatch(/If this is the very sheet it was found on/);
    expect(html).toMatch(/this machine gives 9\.5 % \(± [\d.]+ %\) less light/);
    expect(html).toMatch(/Note it in the diary/);
    expect(await shown(37, BURNS)).toMatch(/1[01](\.\d)? % \(± [\d.]+ %\) more light/);
  });
  it('says nothing of it where the setting holds, or nothing was burned here', async () => {
    expect(await shown(40, BURNS)).not.toMatch(/very sheet/);
    expect(await shown(43, [])).not.toMatch(/very sheet/);
  });
});
