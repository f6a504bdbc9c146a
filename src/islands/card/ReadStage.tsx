import { useState, type KeyboardEvent } from 'react';
import type { OperatorOutcome, Verdict } from '../../core/card/contract';
import { BenchFrame, Figures, TicketPart } from '../../components/BenchFrame';
import { Button } from '../../components/Button';
import { CardDrawing } from '../../components/CardDrawing';
import { Mat } from '../../components/Mat';
import { Notice, ProblemNotice } from '../../components/Notice';
import { formatPower, formatSpeed, plainNumber } from '../../core/quantities/format';
import { LOW_CONFIDENCE, type Doubt } from '../../core/reading/observations';
import { send, useAction } from '../api';
import type { StageProps } from './stage-props';
import styles from './ReadStage.module.css';

const OUTCOMES: readonly { key: string; outcome: OperatorOutcome; name: string }[] = [
  { key: 'g', outcome: 'good', name: 'good' },
  { key: 'n', outcome: 'no-mark', name: 'no mark' },
  { key: 'c', outcome: 'charred', name: 'charred' },
  { key: 'b', outcome: 'burned-through', name: 'burned through' },
  { key: 'f', outcome: 'flare-up', name: 'flare-up' },
  { key: 'r', outcome: 'residue', name: 'residue stays' },
];

const DOUBTS: Readonly<Record<Doubt, string>> = {
  clipped: 'the photo is blown out or black there',
  blurred: 'the photo shows too few pixels of it',
  uneven: 'it is uneven within itself',
  'stock-varies': 'the bare stock around it varies',
  'off-frame': 'the card is not quite where the markers say',
  'few-markers': 'the frame was set by hand or by three markers',
  'far-from-bare-stock': 'too little bare stock can be seen near it',
};

const EMPTY = (cellIndex: number): Verdict => ({ cellIndex, grade: null, outcome: null, note: '' });

export function ReadStage({ view, tabs, title, ladder, selected, onSelect, onChanged, onNext }: StageProps) {
  const { card, verdicts } = view;
  const reading = view.reading!;
  const { machine } = card.madeFor;
  const readings = new Map(reading.cells.map((cell) => [cell.cellIndex, cell]));
  const byCell = new Map(verdicts.map((verdict) => [verdict.cellIndex, verdict]));
  const asked = reading.cells.filter((cell) => cell.confidence < LOW_CONFIDENCE && !byCell.has(cell.cellIndex));
  const [undo, setUndo] = useState<readonly Verdict[]>([]);
  const [showNumbers, setShowNumbers] = useState(true);
  const action = useAction();

  const put = (verdict: Verdict): Promise<void> =>
    send(`/api/cards/${card.id}/verdicts`, { method: 'PUT', json: verdict }).then(onChanged);
  const judge = (cellIndex: number, change: Partial<Verdict>): void => {
    const before = byCell.get(cellIndex) ?? EMPTY(cellIndex);
    setUndo([...undo, before]);
    action.run(() => put({ ...before, ...change }));
  };
  const takeBack = (): void => {
    const last = undo.at(-1);
    if (!last) return;
    setUndo(undo.slice(0, -1));
    onSelect(last.cellIndex);
    action.run(() => put(last));
  };
  const onCellKey = (event: KeyboardEvent, cellIndex: number): void => {
    const key = event.key.toLowerCase();
    if (key === 'u' || (key === 'z' && event.ctrlKey)) takeBack();
    else if (event.ctrlKey || event.metaKey || event.altKey) return;
    else if (/^[1-5]$/.test(key)) judge(cellIndex, { grade: Number(key) });
    else if (key === '0' || key === 'backspace') judge(cellIndex, EMPTY(cellIndex));
    else {
      const hit = OUTCOMES.find((candidate) => candidate.key === key);
      if (!hit) return;
      judge(cellIndex, { outcome: hit.outcome });
    }
    event.preventDefault();
  };

  const cell = selected === null ? undefined : readings.get(selected);
  const verdict = selected === null ? undefined : byCell.get(selected);
  const settings = selected === null ? undefined : card.layout.cells[selected]?.settings;

  const ticket = (
    <>
      {tabs}
      <TicketPart title="What the photo shows">
        <Figures
          rows={[
            ['Cells read', reading.cells.length],
            ['Markers', reading.markers === 0 ? 'corners by hand' : `${reading.markers} of 4`],
            ['Frame error', `${plainNumber(reading.frameErrorMm, 2)} mm`],
            ['Read in', `${plainNumber(reading.tookS, 2)} s`],
          ]}
        />
        {asked.length > 0 ? (
          <Notice look="straw" title={`${asked.length} cells need your eye`}>
            <p>They are framed in dashes: the photo alone cannot be trusted there. Look at the piece and grade them.</p>
            <Button
              onClick={() =>
                onSelect((asked.find((candidate) => candidate.cellIndex > (selected ?? -1)) ?? asked[0]!).cellIndex)
              }
            >
              Next of them
            </Button>
          </Notice>
        ) : (
          <Notice>No cell is in doubt.</Notice>
        )}
        <Button look="main" onClick={onNext}>
          Pick a cell
        </Button>
      </TicketPart>
      {cell && settings ? (
        <TicketPart
          title={`Cell ${cell.cellIndex + 1}: ${formatPower(settings.powerFraction)}, ${formatSpeed(settings.speedMmPerS, machine.likedUnits)}`}
        >
          <div className={styles.grades} role="group" aria-label="Grade">
            {[1, 2, 3, 4, 5].map((grade) => (
              <Button
                key={grade}
                aria-pressed={verdict?.grade === grade}
                aria-label={`grade ${grade}`}
                onClick={() => judge(cell.cellIndex, { grade })}
              >
                {grade}
              </Button>
            ))}
          </div>
          <div className={styles.outcomes} role="group" aria-label="Outcome">
            {OUTCOMES.map(({ key, outcome, name }) => (
              <Button
                key={key}
                shortcut={key.toUpperCase()}
                aria-pressed={verdict?.outcome === outcome}
                onClick={() => judge(cell.cellIndex, { outcome })}
              >
                {name}
              </Button>
            ))}
          </div>
          <div className={styles.grades2}>
            <Button shortcut="U" disabled={undo.length === 0} onClick={takeBack}>
              Undo
            </Button>
            <Button shortcut="0" disabled={!verdict} onClick={() => judge(cell.cellIndex, EMPTY(cell.cellIndex))}>
              Clear
            </Button>
          </div>
          <ProblemNotice problem={action.problem} />
          <Figures
            rows={[
              ['Lightness', `L* ${plainNumber(cell.lightness, 3)} ± ${plainNumber(2 * cell.lightnessSigma, 2)}`],
              ['Against bare stock', `${cell.deltaLightness > 0 ? '+' : ''}${plainNumber(cell.deltaLightness, 3)}`],
              ['Spread within', `${plainNumber(cell.spread, 2)} L*`],
              [
                'Line visibility',
                cell.lineVisibility === null ? 'not resolved' : `${plainNumber(cell.lineVisibility * 100, 2)} %`,
              ],
              ['Edge halo', `${plainNumber(cell.edgeHalo, 2)} L*`],
              ['Edge width', cell.edgeWidthMm === null ? 'no edge' : `${plainNumber(cell.edgeWidthMm, 2)} mm`],
              ['Blown out', `${plainNumber(cell.clippedShare * 100, 2)} %`],
              ['Confidence', `${plainNumber(cell.confidence * 100, 3)} %`],
            ]}
          />
          {cell.doubts.length > 0 && (
            <Notice look="straw">In doubt: {cell.doubts.map((doubt) => DOUBTS[doubt]).join('; ')}.</Notice>
          )}
        </TicketPart>
      ) : (
        <TicketPart>
          <p>
            Choose a cell on the mat. Arrows move, 1 to 5 grade, the letters on the buttons say what happened, U undoes.
          </p>
        </TicketPart>
      )}
    </>
  );

  const { layout } = card;
  return (
    <BenchFrame
      title={title}
      ladder={ladder}
      ticket={ticket}
      mat={
        <Mat
          label="The straightened photo with its cells"
          extent={{ x: -2, y: -2, width: layout.widthMm + 4, height: layout.heightMm + 4 }}
          tools={
            <button type="button" aria-pressed={showNumbers} onClick={() => setShowNumbers(!showNumbers)}>
              Numbers
            </button>
          }
        >
          {() => (
            <>
              <image
                href={`/api/photos/${reading.photoId}/images/straightened`}
                width={layout.widthMm}
                height={layout.heightMm}
                preserveAspectRatio="none"
              />
              <CardDrawing
                layout={layout}
                marksVisible={false}
                selected={selected}
                onSelect={onSelect}
                onCellKey={onCellKey}
                look={(drawn) => ({
                  fill: 'transparent',
                  ...(asked.some(({ cellIndex }) => cellIndex === drawn.index) ? { ring: 'asked' as const } : {}),
                })}
                describe={(drawn) => {
                  const seen = readings.get(drawn.index);
                  const said = byCell.get(drawn.index);
                  const words = [
                    formatPower(drawn.settings.powerFraction),
                    formatSpeed(drawn.settings.speedMmPerS, machine.likedUnits),
                  ];
                  if (seen)
                    words.push(
                      `L* ${plainNumber(seen.lightness, 3)}${seen.confidence < LOW_CONFIDENCE ? ', low confidence' : ''}`,
                    );
                  if (said?.grade) words.push(`grade ${said.grade}`);
                  if (said?.outcome) words.push(said.outcome);
                  return words.join(', ');
                }}
              />
              <g className={styles.numbers} aria-hidden="true">
                {layout.order.map((index) => {
                  const drawn = layout.cells[index]!;
                  const seen = readings.get(index);
                  const said = byCell.get(index);
                  return (
                    <g key={index} className={seen && seen.lightness < 50 ? styles.onDark : styles.onLight}>
                      <rect
                        className={styles.outline}
                        x={drawn.x}
                        y={drawn.y}
                        width={drawn.width}
                        height={drawn.height}
                      />
                      {showNumbers && seen && (
                        <text
                          x={drawn.x + drawn.width / 2}
                          y={drawn.y + drawn.height / 2 - 0.1}
                          fontSize={drawn.width * 0.34}
                        >
                          {seen.lightness.toFixed(0)}
                        </text>
                      )}
                      {said && (
                        <text
                          x={drawn.x + drawn.width / 2}
                          y={drawn.y + drawn.height * 0.86}
                          fontSize={drawn.width * 0.24}
                        >
                          {[
                            said.grade,
                            said.outcome && OUTCOMES.find(({ outcome }) => outcome === said.outcome)!.key.toUpperCase(),
                          ]
                            .filter(Boolean)
                            .join(' ')}
                        </text>
                      )}
                    </g>
                  );
                })}
              </g>
            </>
          )}
        </Mat>
      }
    />
  );
}
