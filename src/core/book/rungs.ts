export type Foot = 'machine' | 'common' | 'engrave' | 'cut';

export interface Rung {
  readonly name: string;
  readonly question: string;
  /** The engrave and the cut side rise from a common step, and that rests on what holds for every stock of a machine. */
  readonly foot: Foot;
  /** Rungs whose answers this one starts from. */
  readonly standsOn: readonly string[];
}

/** The questions of a pairing from the ground up, in the order people answer them. Only what can be answered here stands in it. */
export const RUNGS = {
  stock: { name: 'Stock', question: 'What is it, and how thick really?', foot: 'common', standsOn: [] },
  safety: { name: 'Safety', question: 'May it be burned at all?', foot: 'common', standsOn: ['stock'] },
  grid: { name: 'Grid', question: 'Which power and speed engrave it well?', foot: 'engrave', standsOn: ['safety'] },
  threshold: {
    name: 'Threshold',
    question: 'What is the minimum power that marks?',
    foot: 'engrave',
    standsOn: ['grid'],
  },
  ceiling: {
    name: 'Ceiling',
    question: 'Past which power does it get no darker?',
    foot: 'engrave',
    standsOn: ['threshold'],
  },
  line: { name: 'Line', question: 'How wide does one line mark?', foot: 'engrave', standsOn: ['grid'] },
  interval: { name: 'Interval', question: 'How far apart may lines be?', foot: 'engrave', standsOn: ['grid'] },
  tone: {
    name: 'Tone',
    question: 'Which grey gives which darkness?',
    foot: 'engrave',
    standsOn: ['ceiling', 'interval'],
  },
  picture: { name: 'Picture', question: 'Does a picture come out as wanted?', foot: 'engrave', standsOn: ['tone'] },
  focus: {
    name: 'Focus',
    question: 'Where is it sharp, and where do gaps close?',
    foot: 'engrave',
    standsOn: ['interval'],
  },
  showpiece: {
    name: 'Showpiece',
    question: 'What do broad, small and pointed parts do?',
    foot: 'engrave',
    standsOn: ['grid', 'interval'],
  },
  ways: { name: 'Ways', question: 'Do lines of both ways meet?', foot: 'machine', standsOn: ['grid'] },
  'run-up': { name: 'Run-up', question: 'How far must the head run up?', foot: 'machine', standsOn: ['grid'] },
  bed: { name: 'Bed', question: 'Is the bed level, and the beam even over it?', foot: 'machine', standsOn: ['focus'] },
  cut: { name: 'Cut', question: 'Which power and speed drop a part?', foot: 'cut', standsOn: ['safety'] },
  'cut-focus': {
    name: 'Cut focus',
    question: 'Where in the sheet is a cut straightest?',
    foot: 'cut',
    standsOn: ['cut'],
  },
  passes: { name: 'Passes', question: 'How many passes keep fine detail?', foot: 'cut', standsOn: ['cut'] },
  kerf: { name: 'Kerf', question: 'How much does a cut take away?', foot: 'cut', standsOn: ['cut'] },
  fit: { name: 'Fit', question: 'How wide is a slot for each fit?', foot: 'cut', standsOn: ['kerf'] },
  score: { name: 'Score', question: 'Which line folds, and which tears?', foot: 'cut', standsOn: ['cut'] },
  hinge: { name: 'Hinge', question: 'How far does a slit sheet bend?', foot: 'cut', standsOn: ['cut'] },
  part: { name: 'Part', question: 'Does a part come out as drawn?', foot: 'cut', standsOn: ['kerf', 'fit'] },
} as const satisfies Readonly<Record<string, Rung>>;

export type RungId = keyof typeof RUNGS;

export const RUNG_IDS = Object.keys(RUNGS) as RungId[];

/** The rungs a rung stands on, those below them included, lowest first. */
export function groundOf(rung: RungId): RungId[] {
  const below = (RUNGS[rung].standsOn as readonly RungId[]).flatMap((id) => [...groundOf(id), id]);
  return RUNG_IDS.filter((id) => below.includes(id));
}
