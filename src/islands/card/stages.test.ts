import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { layCard } from '../../core/card/lay';
import { cardKind } from '../../cards/registry';
import type { ThresholdPlan } from '../../cards/threshold/plan';
import { stageAfter, stageInHash, stageOf, stagesOf, wasSeen, type Stage } from './stages';

const pairing = demoPairing('heron', 'birch');

function laid(kind: string, change: object = {}) {
  const { plan } = cardKind(kind).propose({ pairing, facts: [] });
  return { kind, layout: layCard(cardKind(kind), { ...plan, ...change }, pairing, { cardNumber: 1 }) };
}

type View = Parameters<typeof stageOf>[0];

/** A card's page as it is before anything was done. */
const view = (card: object, done: Partial<Record<keyof View, unknown>> = {}): View =>
  ({ card, burns: [], photos: [], reading: null, answers: [], kept: [], search: null, ...done }) as unknown as View;

const BURNED = { burns: [{ status: 'done' }] };
const strip = laid('threshold');
const search = laid('threshold', { way: 'search' } satisfies Partial<ThresholdPlan>);

describe('the steps of a card', () => {
  it('have a photo where the kind asks for one and there are markers, or a sheet, to read it by', () => {
    expect(stagesOf(strip)).toEqual(['burn', 'photo', 'look', 'find']);
    expect(stagesOf(search)).toEqual(['burn', 'look', 'find']);
    expect(stagesOf(laid('focus'))).toEqual(['burn', 'photo', 'look', 'find']);
    expect(stagesOf(laid('kerf'))).toEqual(['burn', 'look', 'find']);
    const { frame } = cardKind('grid').propose({ pairing, facts: [] }).plan;
    expect(stagesOf(laid('grid', { frame: { ...frame, markers: 'on-sheet' } }))).toContain('photo');
  });
  it.each<[string, Stage, View]>([
    ['nothing was burned', 'burn', view(strip)],
    ['a burn was stopped', 'burn', view(strip, { burns: [{ status: 'stopped' }] })],
    ['it is burned', 'photo', view(strip, BURNED)],
    ['a photo came from elsewhere', 'photo', view(strip, { photos: [{}] })],
    ['it is read', 'look', view(strip, { ...BURNED, reading: {} })],
    ['the eye has answered without a photo', 'find', view(strip, { ...BURNED, answers: [{}] })],
    ['it is burned and has no markers', 'look', view(search, BURNED)],
    ['the search goes on', 'burn', view(search, { ...BURNED, answers: [{}], search: { go: true } })],
    ['the search has ended', 'find', view(search, { ...BURNED, answers: [{}], search: { go: false } })],
  ])('begin, when %s, with %s', (_when, stage, at) => {
    expect(stageOf(at)).toBe(stage);
  });
  it('end in a finding as soon as something was seen, in whatever light', () => {
    const of = (done: object) => wasSeen({ reading: null, through: null, answers: [], ...done });
    expect([of({}), of({ reading: {} }), of({ through: {} }), of({ answers: [{}] })]).toEqual([
      false,
      true,
      true,
      true,
    ]);
  });
  it('have a photo of holes that may be left out', () => {
    const squares = laid('cut');
    expect(stagesOf(squares)).toEqual(['burn', 'photo', 'look', 'find']);
    expect(stageOf(view(squares, BURNED))).toBe('look');
    expect([stageAfter('burn', squares), stageAfter('photo', squares)]).toEqual(['look', 'look']);
  });
  it('follow each other without the photo that a card cannot have, and end with the finding', () => {
    expect(stageAfter('burn', strip)).toBe('photo');
    expect(stageAfter('burn', search)).toBe('look');
    expect(stageAfter('find', strip)).toBe('find');
  });
  it('are found in an address, also by their earlier names, but only those that the card has', () => {
    expect(stageInHash('#photo', strip)).toBe('photo');
    expect(stageInHash('#photo', search)).toBeNull();
    expect(stageInHash('#pick', strip)).toBe('find');
    expect(stageInHash('#toString', strip)).toBeNull();
    expect(stageInHash('', strip)).toBeNull();
  });
});
