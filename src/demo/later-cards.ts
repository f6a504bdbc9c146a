import type { AppContext } from '../app/context';
import { keepFinding } from '../app/findings';
import { readGauge } from '../app/gauges';
import { getCard } from '../app/cards';
import { photographCard } from '../app/burns';
import { answerCard } from '../app/seen';
import { cardKind } from '../cards/registry';
import type { ChannelId } from '../core/card/channels';

/** A card that was burned after the first one of its bench. */
export interface LaterCard {
  /** Place of the bench among the stories. */
  readonly bench: number;
  readonly kind: string;
  readonly photo: boolean;
  /** What an eye said of its cells in the order of a channel's levels; null where nobody has looked yet. */
  readonly said: { readonly field: string; readonly along: ChannelId; readonly words: readonly string[] } | null;
  /** Whether gauges were set on it as often as it asks for. */
  readonly measured: boolean;
  /** Null when nothing was kept yet. */
  readonly note: string | null;
}

export const LATER_CARDS: readonly LaterCard[] = [
  { bench: 0, kind: 'threshold', photo: true, said: null, measured: false, note: 'White stays white below this.' },
  { bench: 0, kind: 'focus', photo: false, said: null, measured: false, note: null },
  {
    bench: 1,
    kind: 'interval',
    photo: false,
    said: { field: 'lines', along: 'interval', words: ['mud', 'even', 'even', 'even', 'apart', 'apart'] },
    measured: false,
    note: 'Looked at from an arm’s length.',
  },
  {
    bench: 3,
    kind: 'kerf',
    photo: false,
    said: { field: 'drop', along: 'size', words: ['clean', 'clean', 'clean', 'clean'] },
    measured: true,
    note: 'Shelf brackets.',
  },
  {
    bench: 3,
    kind: 'slots',
    photo: false,
    said: {
      field: 'fit',
      along: 'clearance',
      words: ['no', 'no', 'no', 'press', 'snug', 'snug', 'slip', 'slip', 'loose', 'loose'],
    },
    measured: false,
    note: 'Drawer dividers.',
  },
];

/** What is done with a later card once it is burned: looked at, measured, kept. */
export async function judge(
  ctx: AppContext,
  cardId: number,
  { photo, said, measured, note }: LaterCard,
): Promise<void> {
  const { kind, layout, number } = await getCard(ctx, cardId);
  if (photo) {
    await photographCard(ctx, cardId, { shotSeed: `demo later ${number}` });
    await ctx.readings.idle();
  }
  if (said) {
    const { field, along, words } = said;
    const sorted = [...layout.cells].sort(
      (a, b) => Number(a.levels[along]) - Number(b.levels[along]) || a.index - b.index,
    );
    for (const [place, value] of words.entries())
      await answerCard(ctx, cardId, { field, cellIndex: sorted[place]!.index, repeat: 0, value });
  }
  if (measured) {
    for (const ask of cardKind(kind).asks) {
      if (ask.by !== 'gauge') continue;
      for (const { index } of layout.cells) {
        for (let repeat = 0; repeat < ask.repeats; repeat++) {
          const { text } = await readGauge(ctx, cardId, { field: ask.field, cellIndex: index, repeat });
          await answerCard(ctx, cardId, { field: ask.field, cellIndex: index, repeat, value: Number(text) });
        }
      }
    }
  }
  if (note !== null) await keepFinding(ctx, { cardId, wish: null, choice: {}, note });
}
