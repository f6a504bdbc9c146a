/** A material that is never burned, with the reason. Usual shop cautions; local codes and licensed practice come first. */
export interface BannedMaterial {
  readonly id: string;
  readonly name: string;
  readonly reason: string;
  /**
   * Names that give it away in a description, normalised: lower case, words apart by one blank, digits apart from letters, British
   * spelling. Blanks inside a name are optional in what is searched, and a plural s may follow.
   */
  readonly names: readonly string[];
  /** A description with one of these beside the name says what the material is, so that the name alone does not stop it. */
  readonly unlessNamed?: readonly string[];
  /** A family of stock that is this material with its make-up known: its type must say which. */
  readonly unlessFamily?: string;
}

const CHLORINE_FREE = ['chlorine free', 'pvc free', 'vinyl free', 'free of chlorine', 'free of pvc', 'free of vinyl'];

export const BANNED_MATERIALS: readonly BannedMaterial[] = [
  {
    id: 'pvc',
    name: 'PVC, vinyl and anything chlorinated',
    reason: 'It gives off hydrogen chloride, which harms lungs and eats the machine.',
    names: [
      'pvc',
      'upvc',
      'cpvc',
      'pvcu',
      'pvdc',
      'vinyl',
      'poly vinyl chloride',
      'poly vinylidene chloride',
      'chlorinated',
      'chloride',
      'neoprene',
      'chloroprene',
      'chloro rubber',
    ],
  },
  {
    id: 'ptfe',
    name: 'PTFE and other fluoropolymers',
    reason: 'Its fumes are highly toxic fluorine compounds.',
    names: [
      'ptfe',
      'fep',
      'pfa',
      'etfe',
      'ectfe',
      'pvdf',
      'fkm',
      'fpm',
      'fluoro polymer',
      'fluoro plastic',
      'fluoro elastomer',
      'fluoro rubber',
      'fluorinated',
      'poly tetra fluoro ethylene',
      'poly vinylidene fluoride',
    ],
  },
  {
    id: 'polycarbonate',
    name: 'Polycarbonate',
    reason: 'It burns with soot and flame before it cuts and gives off harmful fumes.',
    names: [
      'poly carbonate',
      'pc sheet',
      'pc plate',
      'pc panel',
      'pc film',
      'pc board',
      'pc plastic',
      'clear pc',
      'solid pc',
      'pc clear',
    ],
  },
  {
    id: 'abs',
    name: 'ABS',
    reason: 'It melts, flames and gives off hydrogen cyanide and styrene.',
    names: ['abs', 'acrylonitrile', 'acrylonitrile butadiene styrene'],
  },
  {
    id: 'polystyrene',
    name: 'Polystyrene, solid or foamed',
    reason: 'It melts into burning drops and gives off styrene.',
    names: ['poly styrene', 'poly styrol', 'styrene', 'eps', 'xps', 'hips', 'styrene foam'],
  },
  {
    id: 'polyurethane-foam',
    name: 'Polyurethane foam',
    reason: 'It flares at once and gives off isocyanates and hydrogen cyanide.',
    names: ['poly urethane foam', 'pu foam', 'pur foam', 'upholstery foam', 'mattress foam', 'foam rubber'],
  },
  {
    id: 'composite',
    name: 'Fibreglass, carbon and phenolic composites',
    reason: 'Resin and fibre fumes are toxic and the fibres become airborne.',
    names: [
      'fibreglass',
      'glass fibre',
      'glassfibre',
      'grp',
      'gfrp',
      'cfrp',
      'frp',
      'gfk',
      'cfk',
      'fr 4',
      'g 10',
      'carbon fibre',
      'aramid',
      'epoxy glass',
      'glass epoxy',
      'glass reinforced',
      'carbon reinforced',
      'circuit board',
      'pcb',
      'phenolic',
      'phenol resin',
      'phenol formaldehyde',
    ],
  },
  {
    id: 'chrome-leather',
    name: 'Leather of chrome or unknown tanning',
    reason: 'Chrome-tanned leather can give off hexavalent chromium.',
    names: ['chrome', 'chromium', 'wet blue', 'unknown tanning', 'tanning unknown', 'unknown tannage'],
  },
  {
    id: 'unknown-imitation-leather',
    name: 'Imitation leather of unknown make-up',
    reason: 'Much of it is PVC, or has a PVC coat, whatever its name says.',
    names: [
      'faux leather',
      'fake leather',
      'imitation leather',
      'artificial leather',
      'synthetic leather',
      'vegan leather',
      'leather look',
      'pu leather',
      'poly urethane leather',
    ],
    unlessNamed: CHLORINE_FREE,
  },
  {
    id: 'treated-timber',
    name: 'Treated, impregnated or flame-retardant timber',
    reason: 'Preservatives and retardants give off arsenic, copper, chlorine and phosphorus compounds.',
    names: [
      'treated',
      'pressure treated',
      'impregnated',
      'pressure impregnated',
      'flame retardant',
      'fire retardant',
      'flame proofed',
      'fire proofed',
      'creosote',
      'creosoted',
      'railway sleeper',
    ],
  },
  {
    id: 'polyacetal',
    name: 'Polyacetal (POM)',
    reason: 'It gives off formaldehyde and burns with a flame that is hard to see.',
    names: ['pom', 'pom c', 'pom h', 'poly oxy methylene', 'poly acetal', 'acetal', 'acetal copolymer'],
  },
  {
    id: 'unknown-foam',
    name: 'Foam of unknown make-up',
    reason: 'Much foam is polystyrene, polyurethane or PVC. One whose make-up is known has a family of its own.',
    names: ['foam', 'foam board', 'foam core', 'foam sheet'],
    unlessFamily: 'foam',
    unlessNamed: ['eva', 'ethylene vinyl acetate', 'poly ethylene', 'pe foam', 'wool foam'],
  },
  {
    id: 'unknown-plastic',
    name: 'Unknown plastic or coating',
    reason: 'What is not known may hold chlorine or worse. Unknown means no, until a data sheet says otherwise.',
    names: ['unknown', 'unidentified', 'unlabelled', 'no label', 'not known', 'mystery'],
  },
];

const BY_ID = new Map(BANNED_MATERIALS.map((material) => [material.id, material]));

export function bannedMaterial(id: string): BannedMaterial | undefined {
  return BY_ID.get(id);
}

/** Words of a description, one blank apart, with " | " where punctuation parts one statement from the next. */
function normalised(description: string): string {
  const plain = description
    .normalize('NFKD')
    .toLowerCase()
    .replace(/\p{M}/gu, '')
    .replace(/[,;:.()[\]/&+]+/g, ' | ')
    .replace(/[^a-z0-9|]+/g, ' ')
    .replace(/([a-z])(\d)/g, '$1 $2')
    .replace(/(\d)([a-z])/g, '$1 $2')
    .replace(/fiber/g, 'fibre')
    .replace(/\bunlabeled\b/g, 'unlabelled');
  return ` ${plain.replace(/ +/g, ' ').trim()} `;
}

/** What comes before or after a name and says that it is not that: "free of PVC", "vinyl-free", "non-chlorinated". */
const DENIED_BEFORE = / (?:no|non|not|without|never|contains no|free (?:of|from)(?: any)?) $/;
const DENIED_AFTER = /^ free (?!sample|of charge)/;
/** Names that hold a banned word and are something else. */
const SOMETHING_ELSE: readonly RegExp[] = [
  / (?:ethylene )?(?:poly ?)?vinyl ?(?:acetate|alcohol|acetal)s? /g,
  / (?:heat|thermally|thermo|steam|oil|wax|soap) treated /g,
  / (?:sodium|calcium|potassium) chlorides? /g,
];

const patternOf = (name: string): RegExp => new RegExp(` ${name.replace(/ /g, ' ?')}s?(?= )`, 'g');
const PATTERNS = BANNED_MATERIALS.map((material) => ({
  material,
  patterns: material.names.map(patternOf),
  unless: (material.unlessNamed ?? []).map(patternOf),
}));

/**
 * The ban that a free description falls under, if any: by any of its names, any case, with or without hyphens and plural s, whole
 * words only ("ABS sheet" but not "absorbent"). A name that is denied right beside it ("vinyl-free", "free of PVC",
 * "non-chlorinated", "untreated") does not count.
 *
 * banNamedIn('uPVC pipe')?.id === 'pvc'; banNamedIn('vinyl-free leatherette') === undefined
 */
export function banNamedIn(description: string): BannedMaterial | undefined {
  const whole = normalised(description);
  let text = whole;
  // A bare "PC" as the whole description is the plastic; beside other words it may be "pieces".
  if (/^ (?:\d+ mm )?pc(?: \d+ mm)? $/.test(text)) return bannedMaterial('polycarbonate');
  for (const other of SOMETHING_ELSE) text = text.replace(other, ' | ');
  const names = (pattern: RegExp): boolean =>
    [...text.matchAll(pattern)].some((match) => {
      const before = text.slice(0, match.index + 1);
      const after = text.slice(match.index + match[0].length);
      return !DENIED_BEFORE.test(before) && !DENIED_AFTER.test(after);
    });
  return PATTERNS.find(
    ({ patterns, unless }) =>
      patterns.some(names) && !unless.some((pattern) => [...whole.matchAll(pattern)].length > 0),
  )?.material;
}
