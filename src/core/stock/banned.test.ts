import { describe, expect, it } from 'vitest';
import { assessStock } from './assess';
import { banNamedIn } from './banned';

// Usual shop cautions, common practice without a published source; local codes come first.
describe('a banned material is found by any of its names', () => {
  it.each([
    [
      'pvc',
      'PVC foam; uPVC window bead; U-PVC; CPVC pipe; PVC-U; polyvinyl chloride; Poly-vinyl chloride sheet; polyvinylchloride; white vinyl; Vinyls, assorted; adhesive VINYL film; chlorinated rubber; neoprene mat; pvc 3mm',
    ],
    ['ptfe', 'PTFE tape; FEP film; PVDF sheet; PFA tube; fluoropolymer; polytetrafluoroethylene; fluorinated coat'],
    [
      'polycarbonate',
      'polycarbonate; Poly-carbonate, clear; PC sheet; PC-sheet 2mm; clear PC; PC; 12 mm PC; PC 12mm; 3 mm pc 100 mm',
    ],
    ['abs', 'ABS sheet; abs/grey; acrylonitrile butadiene styrene'],
    ['polystyrene', 'polystyrene; expanded polystyrene; XPS board; EPS packing; high impact polystyrene'],
    ['polyurethane-foam', 'polyurethane foam; PU foam; PU-foam block'],
    [
      'composite',
      'FR4; FR-4 offcut; fr 4; GRP panel; GFRP; CFRP plate; glass fibre; glass-fiber mat; fiberglass; fibreglass; Carbon fibre plate; carbon fiber; phenolic board; paper phenolic; circuit board',
    ],
    ['chrome-leather', 'chrome-tanned hide; chromium tanned; Chromium-tanned leather; wet blue; hide, tanning unknown'],
    [
      'unknown-imitation-leather',
      'faux leather; Faux-leather brown; PU leather; pu-leather; imitation leather; artificial leather',
    ],
    [
      'treated-timber',
      'pressure treated pine; pressure-impregnated spruce; treated timber; flame-retardant plywood; fire retardant MDF; impregnated decking',
    ],
    ['polyacetal', 'POM block; POM-C; acetal rod; Polyacetal; polyoxymethylene; acetal copolymer'],
    ['unknown-foam', 'foam sheet; packing foam; Foam, black; foamboard; foam core'],
    [
      'unknown-plastic',
      'unknown plastic; unidentified sheet; plastic, no label; plastic, unlabeled; unlabelled plastic',
    ],
  ])('%s', (id, descriptions) => {
    for (const description of descriptions.split('; ')) expect(banNamedIn(description)?.id, description).toBe(id);
  });

  const HARMLESS =
    'vinyl-free; vinyl-free leatherette; free of PVC; PVC free board; non-chlorinated; without PVC; ' +
    'cast acrylic; cork; absorbent card; birch ply; Glass bead tile; untreated pine; heat-treated ash; ' +
    'wool felt; ethylene vinyl acetate; chrome-free leather; fibre board; glazed tile; 10 pc coasters; ' +
    'pc 10 mm coasters; coasters, 2 mm pc; x mm pc; pc, few mm; abstract print card; carbon black rubber; ' +
    'faux leather, PVC-free; PU leather free of chlorine; monochrome card; two-layer, moss over cream; ' +
    'removable laser coat, data sheet on file; step 4 sample; lime board; EVA foam; polyethylene foam; ' +
    'PE foam; pomelo wood; polyvinyl acetal; ethylene vinyl acetate foam';
  it.each(HARMLESS.split('; '))('"%s" passes', (description) => expect(banNamedIn(description)?.id).toBeUndefined());

  it('reads "vinyl, free offcut" as vinyl', () => expect(banNamedIn('vinyl, free offcut')?.id).toBe('pvc'));
});

describe('stock', () => {
  const plain = { family: 'plywood', type: 'birch ply', name: 'Board', coating: '' };
  it('is stopped by its name, its type and its coating alike', () => {
    for (const change of [{ name: 'uPVC board' }, { type: 'FR4' }, { coating: 'vinyl foil' }, { family: 'abs' }])
      expect(assessStock({ ...plain, ...change })[0], JSON.stringify(change)).toMatchObject({
        severity: 'stop',
        code: 'banned-material',
      });
    expect(assessStock(plain)).toEqual([]);
  });
  it('takes foam whose make-up is known by its family and type, whatever its name, and no other', () => {
    const foam = { family: 'foam', type: 'EVA foam', name: 'Foam sheet, blue', coating: '' };
    expect(assessStock(foam)).toEqual([]);
    expect(assessStock({ ...foam, type: 'foam' })).toHaveLength(1);
    expect(assessStock({ ...foam, family: 'rubber' })).toHaveLength(1);
    expect(assessStock({ ...foam, name: 'PU foam' })).toHaveLength(1);
  });
  it('does not let one field deny what another says', () => {
    expect(assessStock({ ...plain, type: 'vinyl', name: 'free board' })).toHaveLength(1);
    expect(assessStock({ ...plain, name: 'not', type: 'PVC' })).toHaveLength(1);
  });
});
