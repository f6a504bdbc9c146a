import { shareAlong, type Plot } from './plot';

const SIZE = { width: 720, height: 480 };
const AREA = { left: 84, top: 48, width: 612, height: 356 };
/** A picture to be printed or sent is on white, whatever the theme of the page is. */
const INK = { text: '#1d2b26', line: '#c9d3ce', edge: '#0f4f3c', band: '#cfe3da' };
const TEXT = { fontFamily: 'B612, sans-serif', fontSize: 16, fill: INK.text };

/** A chart as a picture that stands by itself: its points with their bars, the fit with its band, the choice, axes and title. */
export function ChartPicture({ plot }: { plot: Plot }) {
  const { label, x, y, points, fit, pick } = plot;
  const round = (value: number): number => Math.round(value * 100) / 100;
  const across = (value: number): number => round(AREA.left + AREA.width * shareAlong(x, value));
  const down = (value: number): number => round(AREA.top + AREA.height * (1 - shareAlong(y, value)));
  const bottom = AREA.top + AREA.height;
  const path = (places: readonly { readonly x: number; readonly y: number }[]): string =>
    places.map((place, index) => `${index === 0 ? 'M' : 'L'}${across(place.x)} ${down(place.y)}`).join('');
  const band = [
    ...fit.map((one) => ({ x: one.x, y: one.high })),
    ...[...fit].reverse().map((one) => ({ x: one.x, y: one.low })),
  ];
  return (
    <svg xmlns="http://www.w3.org/2000/svg" viewBox={`0 0 ${SIZE.width} ${SIZE.height}`} {...SIZE}>
      <title>{label}</title>
      <defs>
        <clipPath id="area">
          <rect x={AREA.left} y={AREA.top} width={AREA.width} height={AREA.height} />
        </clipPath>
      </defs>
      <rect {...SIZE} fill="#fff" />
      <text x={AREA.left} y={28} {...TEXT} fontWeight="bold">
        {label}
      </text>
      {x.ticks.map(({ at, text }) => (
        <g key={at}>
          <line x1={across(at)} x2={across(at)} y1={AREA.top} y2={bottom} stroke={INK.line} />
          <text x={across(at)} y={bottom + 24} textAnchor="middle" {...TEXT}>
            {text}
          </text>
        </g>
      ))}
      {y.ticks.map(({ at, text }) => (
        <g key={at}>
          <line x1={AREA.left} x2={AREA.left + AREA.width} y1={down(at)} y2={down(at)} stroke={INK.line} />
          <text x={AREA.left - 10} y={down(at) + 5} textAnchor="end" {...TEXT}>
            {text}
          </text>
        </g>
      ))}
      <text x={AREA.left + AREA.width / 2} y={SIZE.height - 16} textAnchor="middle" {...TEXT}>
        {x.title}
      </text>
      <text transform={`translate(24 ${AREA.top + AREA.height / 2}) rotate(-90)`} textAnchor="middle" {...TEXT}>
        {y.title}
      </text>
      <g clipPath="url(#area)">
        {pick?.low !== undefined && pick.high !== undefined && (
          <rect
            className="interval"
            x={across(pick.low)}
            y={AREA.top}
            width={round(across(pick.high) - across(pick.low))}
            height={AREA.height}
            fill={INK.band}
          />
        )}
        {fit.length > 0 && <path className="band" d={`${path(band)}Z`} fill={INK.band} fillOpacity={0.7} />}
        {fit.length > 0 && <path className="fit" d={path(fit)} fill="none" stroke={INK.text} strokeWidth={2} />}
        {pick && (
          <line
            className="chosen"
            x1={across(pick.x)}
            x2={across(pick.x)}
            y1={AREA.top}
            y2={bottom}
            stroke={INK.edge}
            strokeWidth={3}
          />
        )}
      </g>
      {points.map((point, index) => (
        <g key={index} className="point" stroke={INK.edge} strokeWidth={2}>
          {point.sigma !== undefined && (
            <line
              x1={across(point.x)}
              x2={across(point.x)}
              y1={down(point.y - point.sigma)}
              y2={down(point.y + point.sigma)}
            />
          )}
          <circle cx={across(point.x)} cy={down(point.y)} r={5} fill={point.hollow ? '#fff' : INK.edge} />
        </g>
      ))}
    </svg>
  );
}
