import type { BedPlace } from '../core/card/check';
import type { Pairing } from '../core/card/contract';
import type { Layout } from '../core/card/layout';
import { burnRunUpMm } from '../core/card/path';
import { CHANNELS } from '../core/card/channels';
import type { Step } from '../core/card/steps';
import { tiltChecks } from '../core/card/tilt';
import { setupChecks, setupWords, type WorkSetup } from '../core/card/work-setup';
import {
  formatInterval,
  formatLength,
  formatPower,
  formatSize,
  formatSpeed,
  plainNumber,
} from '../core/quantities/format';
import { stepColour } from './step-colours';
import { layerName } from './steps-dxf';
import { escapeXml } from './xml';

const STYLE = `body{font:11pt/1.4 sans-serif;margin:12mm;color:#000}h1{font-size:16pt;margin:0 0 2mm}table{border-collapse:collapse;width:100%}
th,td{border:0.2mm solid #777;padding:1mm 1.6mm;text-align:left;vertical-align:top}thead{display:table-header-group}tr{break-inside:avoid}
.box{display:inline-block;width:4mm;height:4mm;border:0.3mm solid #000}.swatch{display:inline-block;width:7mm;height:3mm;border:0.2mm solid #000}
li{margin:0.6mm 0}@page{margin:10mm}`;

const cell = (text: string): string => `<td>${escapeXml(text)}</td>`;

/**
 * What to set for each step of a card, in burn order, as a page to be printed and ticked off: for machines whose settings are typed by
 * hand. Powers and speeds in the operator's units. Deterministic.
 */
export function listOfSteps(
  steps: readonly Step[],
  layout: Layout,
  pairing: Pairing,
  { bed, setup }: { readonly bed: BedPlace; readonly setup: WorkSetup },
): string {
  const { machine, lens, stock } = pairing;
  const liked = machine.likedUnits;
  const mirrors = machine.head === 'galvo';
  const heads = [
    'Done',
    'No.',
    'Layer or group',
    'Colour',
    'Does',
    'Power',
    'Speed',
    'Interval',
    'Passes',
    'Focus',
    'Air',
    'Lines',
    ...(mirrors ? ['Angle', 'Frequency'] : ['Run-up']),
  ];
  const rows = steps.map((step, index) => {
    const { settings, does } = step;
    const fills = does !== 'follow';
    const run = burnRunUpMm({ shape: step.shapes[0]!, settings }, machine);
    return [
      '<tr><td><span class="box"></span></td>',
      cell(String(step.number)),
      cell(layerName(step.name)),
      `<td><span class="swatch" style="background:${stepColour(index).hex}"></span></td>`,
      cell(fills ? 'fills' : 'follows lines'),
      cell(formatPower(settings.powerFraction)),
      cell(formatSpeed(settings.speedMmPerS, liked)),
      cell(fills ? formatInterval(settings.intervalMm, liked) : ''),
      cell(String(settings.passes)),
      cell(settings.focusOffsetMm === 0 ? 'as set' : CHANNELS.focus.show(settings.focusOffsetMm, liked)),
      cell(settings.air),
      cell(
        fills
          ? `${settings.direction === 'horizontal' ? 'along X' : 'along Y'}, ${settings.bothWays ? 'both ways' : 'one way'}`
          : '',
      ),
      ...(mirrors
        ? [
            cell(fills ? `${settings.lineAngleDeg}°${settings.crossHatch ? ', crossed' : ''}` : ''),
            cell(settings.frequencyKHz === null ? '' : `${plainNumber(settings.frequencyKHz)} kHz`),
          ]
        : [cell(run === 0 ? 'none' : formatLength(run, liked, 3))]),
      '</tr>',
    ].join('');
  });
  const place = `upper left corner ${formatLength(bed.leftMm, liked, 4)} from the bed’s left edge and ${formatLength(bed.rearMm, liked, 4)} from its rear edge`;
  return [
    '<!doctype html>',
    `<html lang="en"><head><meta charset="utf-8"><title>Settings of card ${escapeXml(layout.code)}</title><style>${STYLE}</style></head><body>`,
    `<h1>Card ${escapeXml(layout.code)}</h1>`,
    `<p>${escapeXml(`${stock.name} on ${machine.name}, lens ${lens.name}. ${formatSize(layout.widthMm, layout.heightMm, liked)}; ${place}.`)}</p>`,
    ...(setupWords(setup).length > 0 ? [`<p>${escapeXml(`Set up: ${setupWords(setup).join(', ')}.`)}</p>`] : []),
    '<p>Burn the steps from the first to the last: the strongest come last. Focus counts from the focus you set: plus raises the head. Stay with the machine.</p>',
    `<ul>${[...setupChecks(setup), ...tiltChecks(layout.tilt, liked)]
      .map((text) => `<li><span class="box"></span> ${escapeXml(text)}</li>`)
      .join('')}</ul>`,
    `<table><thead><tr>${heads.map((head) => `<th scope="col">${head}</th>`).join('')}</tr></thead><tbody>`,
    ...rows,
    '</tbody></table></body></html>',
    '',
  ].join('\n');
}
