import { SurfaceMap, type SurfaceAxis } from '../../../components/chart/SurfaceMap';
import { CHANNELS, letterOf } from '../../../core/card/channels';
import type { Layout } from '../../../core/card/layout';
import type { LikedUnits } from '../../../core/quantities/format';
import type { ReactNode } from 'react';
import type { CellReading } from '../../../core/reading/observations';
import { levelAt, LOOKS, rounded, shareOf, SURE_L, type GridSurface, type Level, type SurfaceEdge } from '../surface';

interface Props {
  readonly surface: GridSurface;
  readonly layout: Layout;
  readonly readings: readonly CellReading[];
  readonly stockColour: string;
  readonly burnedColour: string;
  readonly liked: LikedUnits;
  readonly wanted: number | null;
  readonly place: Level | null;
  readonly onPlace: (place: Level) => void;
  /** Cells that meet the wish. */
  readonly meeting: ReadonlySet<number>;
  readonly tools: ReactNode;
}

/** An edge with its levels as they were burned; not all of them where they are many. */
function axisOf(edge: SurfaceEdge, liked: LikedUnits): SurfaceAxis {
  const { levels, channel } = edge;
  const every = Math.ceil(levels.length / 7);
  const { unit } = letterOf(channel, levels[0]!, liked);
  return {
    title: [CHANNELS[channel].name, unit].filter(Boolean).join(', '),
    ticks: levels
      .filter((_, at) => at % every === 0)
      .map((level) => ({ share: shareOf(edge, level), text: letterOf(channel, level, liked).text })),
    at: (share) => levelAt(edge, share),
  };
}

/** The surface over the card's two settings, its cells on it; a press anywhere takes the settings of that place. */
export function SurfaceBoard(props: Props) {
  const { surface, layout, readings, stockColour, burnedColour, liked, wanted, place, onPlace, meeting } = props;
  const { across, down, looks, bare, fit, darkens } = surface;
  const strongest = darkens ? bare - fit.range.strongest : bare + fit.range.strongest;
  return (
    <SurfaceMap
      label="L*"
      x={axisOf(across, liked)}
      y={axisOf(down, liked)}
      lattice={{ columns: LOOKS, rows: LOOKS, values: looks.map(({ lightness }) => lightness) }}
      sigmas={looks.map(({ sigma }) => sigma)}
      from={{ value: bare, colour: stockColour }}
      to={{ value: strongest, colour: burnedColour }}
      wanted={wanted}
      unsureFrom={SURE_L}
      points={readings.flatMap((reading) => {
        const cell = layout.cells[reading.cellIndex];
        if (!cell || cell.leftOut) return [];
        return [
          {
            x: shareOf(across, Number(cell.levels[across.channel])),
            y: shareOf(down, Number(cell.levels[down.channel])),
            colour: reading.colour,
            ringed: meeting.has(cell.index),
          },
        ];
      })}
      tools={props.tools}
      place={place && { x: shareOf(across, place.across), y: shareOf(down, place.down) }}
      onPlace={(x, y) =>
        onPlace({ across: rounded(across, levelAt(across, x)), down: rounded(down, levelAt(down, y)) })
      }
    />
  );
}
