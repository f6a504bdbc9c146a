/** A material that is never burned, with the reason. Usual shop cautions; local codes and licensed practice come first. */
export interface BannedMaterial {
  readonly id: string;
  readonly name: string;
  readonly reason: string;
  /** Words in a material's type or name that give it away, lower case. */
  readonly words: readonly string[];
}

export const BANNED_MATERIALS: readonly BannedMaterial[] = [
  {
    id: 'pvc',
    name: 'PVC, vinyl and anything chlorinated',
    reason: 'It gives off hydrogen chloride, which harms lungs and eats the machine.',
    words: ['pvc', 'vinyl', 'chlorinated', 'neoprene'],
  },
  {
    id: 'ptfe',
    name: 'PTFE and other fluoropolymers',
    reason: 'Its fumes are highly toxic fluorine compounds.',
    words: ['ptfe', 'fluoropolymer', 'fluorinated'],
  },
  {
    id: 'polycarbonate',
    name: 'Polycarbonate',
    reason: 'It burns with soot and flame before it cuts and gives off harmful fumes.',
    words: ['polycarbonate'],
  },
  {
    id: 'abs',
    name: 'ABS',
    reason: 'It melts, flames and gives off hydrogen cyanide and styrene.',
    words: ['abs'],
  },
  {
    id: 'composite',
    name: 'Fibreglass and carbon composites',
    reason: 'Resin and fibre fumes are toxic and the fibres become airborne.',
    words: ['fibreglass', 'fiberglass', 'carbon fibre', 'carbon fiber', 'epoxy glass', 'circuit board'],
  },
  {
    id: 'chrome-leather',
    name: 'Leather of chrome or unknown tanning',
    reason: 'Chrome-tanned leather can give off hexavalent chromium.',
    words: ['chrome', 'chrome-tanned', 'unknown tanning'],
  },
  {
    id: 'unknown-plastic',
    name: 'Unknown plastic or coating',
    reason: 'What is not known may hold chlorine or worse. Unknown means no, until a data sheet says otherwise.',
    words: ['unknown'],
  },
];

const BY_ID = new Map(BANNED_MATERIALS.map((material) => [material.id, material]));

export function bannedMaterial(id: string): BannedMaterial | undefined {
  return BY_ID.get(id);
}

/**
 * The ban that a free description falls under, if any: whole words, any case ("ABS sheet" but not "absorbent"; "PVC-free" and
 * "free of PVC" are still stopped, since the check cannot judge the claim).
 */
export function banNamedIn(description: string): BannedMaterial | undefined {
  const text = ` ${description.toLowerCase().replace(/[^a-z]+/g, ' ')} `;
  return BANNED_MATERIALS.find((material) =>
    material.words.some((word) => text.includes(` ${word.replace(/[^a-z]+/g, ' ')} `)),
  );
}
