import { TicketPart } from '../../../components/BenchFrame';
import { Button } from '../../../components/Button';
import { Notice } from '../../../components/Notice';
import { QuantityField } from '../../../components/QuantityField';
import { kindOfChannel, type QuantityKinds } from '../../../components/quantity-kinds';
import { CHANNELS } from '../../../core/card/channels';
import type { Machine } from '../../../core/machine/machine';
import { formatDuration, plainNumber } from '../../../core/quantities/format';
import type { SurfaceFound } from '../find';
import { isWithin, type GridSurface, type Level, type SurfaceEdge } from '../surface';
import { exchangeWords } from './exchange-words';
import { foretoldRows } from './foretold-rows';
import styles from './Finding.module.css';

interface Props {
  readonly found: SurfaceFound;
  readonly surface: GridSurface;
  readonly place: Level | null;
  readonly onPlace: (place: Level | null) => void;
  readonly machine: Machine;
  readonly kinds: QuantityKinds;
  readonly shows: 'card' | 'surface';
  readonly onShow: (what: 'card' | 'surface') => void;
}

/** What all cells say together: a setting between them for the wanted tone, what one setting is worth of the other, and any place of the operator's own. */
export function SurfacePart({ found, surface, place, onPlace, machine, kinds, shows, onShow }: Props) {
  const { trusted, offL, scatter, foretold } = found;
  const words = exchangeWords(found);
  const shown = place ?? foretold;
  const ends = ({ levels, channel }: SurfaceEdge): string =>
    [levels[0]!, levels.at(-1)!].map((level) => CHANNELS[channel].show(level, machine.likedUnits)).join(' to ');
  const field = (which: 'across' | 'down') => {
    const edge = surface[which];
    return (
      <QuantityField
        label={CHANNELS[edge.channel].name}
        hint={ends(edge)}
        kind={kindOfChannel(edge.channel, kinds)}
        value={shown?.[which] ?? null}
        onChange={(level) => {
          if (level === null) return;
          const middle = { across: surface.across.levels[0]!, down: surface.down.levels[0]!, ...shown };
          const next = { across: middle.across, down: middle.down, [which]: level };
          if (isWithin(surface, next)) onPlace(next);
        }}
      />
    );
  };
  return (
    <TicketPart title="Between the cells">
      {trusted ? (
        <>
          {foretold ? (
            <Notice look="plain" title="Foretold for this wish">
              {foretoldRows(surface, foretold, machine)
                .slice(0, -1)
                .map(([, value]) => value)
                .join(', ')}
              ; 10 × 10 cm take {formatDuration(foretold.timeS)}.
            </Notice>
          ) : (
            <p className={styles.caption}>No place between the cells gives this tone surely enough under this cap.</p>
          )}
          {foretold && !place && <Button onClick={() => onPlace(foretold)}>Take this place</Button>}
          {words && <p>{words}</p>}
          {field('across')}
          {field('down')}
          {place && <Button onClick={() => onPlace(null)}>Back to the cells</Button>}
        </>
      ) : (
        <Notice look="straw" title="No setting is taken from between the cells">
          {`A surface through them misses its own cells by ${plainNumber(offL, 2)} L*: only what was burned is proposed.`}
        </Notice>
      )}
      <p className={styles.caption}>
        {`Each cell is foretold by all others to ${plainNumber(offL, 2)} L*; patches of the same settings differ by ${plainNumber(scatter, 2)} L*.`}
      </p>
      <Button onClick={() => onShow(shows === 'card' ? 'surface' : 'card')}>
        {shows === 'card' ? 'Show the surface' : 'Show the card'}
      </Button>
    </TicketPart>
  );
}
