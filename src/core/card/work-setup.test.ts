import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { FAMILIES } from '../stock/families';
import { focus } from '../../cards/focus';
import { layCard } from './lay';
import {
  focusScatterMm,
  isSaid,
  momentWords,
  nextPhotoShows,
  proposeSetup,
  setupChecks,
  setupFields,
  setupWords,
  UNSAID_SETUP,
} from './work-setup';
import { listed } from '../../../tests/support/listed';

describe('how a sheet is set up', () => {
  it('asks nothing where nothing was said', () => {
    expect(setupChecks(UNSAID_SETUP)).toEqual([]);
    expect(setupWords(UNSAID_SETUP)).toEqual([]);
    expect(isSaid(UNSAID_SETUP)).toBe(false);
  });
  it('checks what holds the sheet also where nobody said how the focus was set', () => {
    const setup = { ...UNSAID_SETUP, support: 'pins', heldBy: 'magnets' } as const;
    expect(setupChecks(setup)).toEqual(['The sheet lies on pins, held by magnets.']);
    expect(isSaid(setup)).toBe(true);
  });
  it('scatters by how the focus is set, most by a ruler, least by a motor', () => {
    const ways = ['automatic', 'spacer', 'trial', 'ruler'] as const;
    const scatters = ways.map((focusSetBy) => focusScatterMm({ focusSetBy })!);
    expect(scatters).toEqual([...scatters].sort((a, b) => a - b));
    expect(focusScatterMm({ focusSetBy: 'not-said' })).toBeNull();
    const on = demoPairing('heron', 'birch');
    const { plan } = focus.propose({ pairing: on, facts: [] });
    const laid = (focusSetBy: (typeof ways)[number] | 'not-said') =>
      layCard(focus, { ...plan, setup: { ...plan.setup, focusSetBy } }, on, { cardNumber: 1 }).focusScatterMm;
    expect(laid('spacer')).toBe(0.1);
    expect(laid('not-said')).toBeUndefined();
  });
  it('names face and focus, and what is done afterwards', () => {
    const setup = {
      ...UNSAID_SETUP,
      masked: true,
      coatedWith: 'chalk white',
      focusSetBy: 'spacer',
      airPressureKPa: 80,
      finish: 'washed',
    } as const;
    expect(setupChecks(setup)).toEqual([
      'The face is masked without bubbles, coated with chalk white.',
      'The sheet lies on the bare bed, focus set by a spacer.',
    ]);
    expect(setupWords(setup).join('; ')).toContain('air: 80 kPa; washed afterwards, looked at before the finish');
  });
});

describe('a photo before or after the finish', () => {
  const washed = { ...UNSAID_SETUP, finish: 'washed' } as const;
  it('shows what the piece is to be looked at as, and of both first the one before', () => {
    expect(nextPhotoShows(UNSAID_SETUP, [])).toBeNull();
    expect(nextPhotoShows({ ...washed, lookedAt: 'after' }, [])).toBe('after');
    expect(nextPhotoShows({ ...washed, lookedAt: 'before' }, ['before'])).toBe('before');
    expect(nextPhotoShows({ ...washed, lookedAt: 'both' }, [null])).toBe('before');
    expect(nextPhotoShows({ ...washed, lookedAt: 'both' }, ['before', null])).toBe('after');
  });
  it('says so in words, and nothing where nothing is done or known', () => {
    expect(momentWords(washed, 'before')).toBe('before it is washed');
    expect(momentWords(washed, 'after')).toBe('after it was washed');
    expect(momentWords(washed, null)).toBeNull();
    expect(momentWords(UNSAID_SETUP, 'after')).toBeNull();
  });
});

describe('a set-up to start from', () => {
  it('wipes hard faces before and after, and looks at them both times', () => {
    expect(proposeSetup(demoPairing('marl', 'slate'))).toMatchObject({
      wiped: true,
      finish: 'wiped',
      lookedAt: 'both',
    });
    expect(proposeSetup(demoPairing('heron', 'birch'))).toMatchObject({
      wiped: false,
      finish: 'none',
      lookedAt: 'before',
    });
  });
  it('names the coat and waits until it is dry', () => {
    const on = demoPairing('heron', 'birch');
    const coated = { ...on, stock: { ...on.stock, coating: 'chalk white', coatingSide: 'top' as const } };
    expect(proposeSetup(coated)).toMatchObject({ coatedWith: 'chalk white', dried: true });
    expect(proposeSetup({ ...coated, stock: { ...coated.stock, coatingSide: 'none' } })).toMatchObject({
      coatedWith: '',
      dried: false,
    });
    expect(proposeSetup({ ...coated, stock: { ...coated.stock, coating: '' } })).toMatchObject({
      coatedWith: '',
      dried: false,
    });
  });
  it('lies on honeycomb under a gantry and on a board under mirrors; focus is set by a spacer or by the machine', () => {
    expect(proposeSetup(demoPairing('heron', 'birch'))).toMatchObject({ support: 'honeycomb', focusSetBy: 'spacer' });
    expect(proposeSetup(demoPairing('marl', 'mdf'))).toMatchObject({ support: 'honeycomb', focusSetBy: 'automatic' });
    expect(proposeSetup(demoPairing('tern', 'twoLayer'))).toMatchObject({ support: 'board' });
  });
  it('asks of air only where the machine has some', () => {
    const paths = (airAssist: 'none' | 'on-off') =>
      setupFields({ ...demoPairing('heron', 'birch').machine, airAssist }).map(({ path }) => path);
    expect(paths('on-off')).toEqual(
      expect.arrayContaining(['setup.airNozzle', 'setup.airPressureKPa', 'setup.airFlowLPerMin']),
    );
    expect(paths('none').filter((path) => path.includes('air'))).toEqual([]);
    // Everything that is recorded can be typed.
    expect(paths('on-off').sort()).toEqual(
      Object.keys(UNSAID_SETUP)
        .map((key) => `setup.${key}`)
        .sort(),
    );
  });
  it('is asked for in words', () => {
    const fields = setupFields({ ...demoPairing('heron', 'birch').machine, airAssist: 'on-off' });
    const told = fields.map(({ label, as, unit, optional, options }) =>
      [
        label,
        as,
        ...(unit ? [unit] : []),
        ...(optional ? ['or nothing'] : []),
        ...(options ?? []).map(({ value, name }) => `${value}=${name}`),
      ].join(' | '),
    );
    expect(told).toEqual([
      'Masked with transfer tape | flag',
      'Wiped clean before | flag',
      'Coated with | text',
      'Dried before | flag',
      'Lies on | choice | bed=the bare bed | honeycomb=honeycomb | pins=pins | board=a waste board',
      'Held by | choice | nothing=nothing: it lies flat | magnets=magnets | clamps=clamps | tape=tape',
      'Focus set by | choice | not-said=not said | spacer=a spacer | automatic=the machine itself | ruler=a ruler | trial=a trial line',
      'Air nozzle | text',
      'Air pressure | number | kPa | or nothing',
      'Air flow | number | l/min | or nothing',
      'Finish after the burn | choice | none=nothing | wiped=wiped | washed=washed | brushed=brushed | sanded=sanded | stained=stained',
      'Looked at | choice | before=before the finish | after=after the finish | both=before and after',
    ]);
    expect(fields.map(({ group }) => group)).toEqual(fields.map(() => 'setup'));
    expect(fields.flatMap(({ hint }) => hint ?? [])).toEqual([
      'what, and with what pigment; empty for nothing',
      'coats until they are dry, wood and leather to the room’s damp',
      'in your own words; empty if it is the usual one',
      '1 bar is 100 kPa; empty when not known',
      'empty when not known',
      'soot is brushed or blown off, never rubbed in',
    ]);
  });
  // Common practice: what is wiped before it is burned, since its face is smooth or its coat thin.
  it('wipes hard and smooth families only', () => {
    const wiped = FAMILIES.filter(({ id }) => {
      const on = demoPairing('marl', 'slate');
      return proposeSetup({ ...on, stock: { ...on.stock, family: id } }).wiped;
    });
    expect(wiped.map(({ id }) => id).sort()).toEqual(
      listed('acrylic-cast; acrylic-extruded; glass; light-stone; slate; solid-surface; tile; two-layer'),
    );
  });
  it('is told in one line of words', () => {
    const setup = {
      ...UNSAID_SETUP,
      wiped: true,
      dried: true,
      support: 'pins',
      heldBy: 'magnets',
      focusSetBy: 'trial',
      airNozzle: 'wide',
      airFlowLPerMin: 20,
      finish: 'stained',
      lookedAt: 'after',
    } as const;
    expect(setupWords(setup)).toEqual(
      listed(
        'wiped clean; dried; on pins; held by magnets; focus by a trial line; air: nozzle wide, 20 l/min; ' +
          'stained afterwards, looked at after the finish',
      ),
    );
    expect(setupWords({ ...UNSAID_SETUP, focusSetBy: 'ruler' })).toEqual(['on the bare bed', 'focus by a ruler']);
    expect(setupWords({ ...UNSAID_SETUP, coatedWith: 'chalk white', support: 'board' })).toEqual([
      'coated with chalk white',
      'on a waste board',
    ]);
    expect(setupChecks({ ...UNSAID_SETUP, dried: true })).toEqual(['The face is dry.']);
    expect(setupChecks({ ...UNSAID_SETUP, support: 'pins' })).toEqual(['The sheet lies on pins.']);
    expect(setupChecks({ ...UNSAID_SETUP, heldBy: 'tape' })).toEqual(['The sheet lies on the bare bed, held by tape.']);
    expect(setupChecks({ ...UNSAID_SETUP, focusSetBy: 'ruler' })).toEqual([
      'The sheet lies on the bare bed, focus set by a ruler.',
    ]);
  });
});
