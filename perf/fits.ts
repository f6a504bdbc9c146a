import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { CholeskyDecomposition, Matrix } from 'ml-matrix';
import { CARD_KIND_NAMES, cardKind } from '../src/cards/registry';
import { layCard } from '../src/core/card/lay';
import { gaussianProcess } from '../src/core/stats/gaussian-process';
import { leastSquares } from '../src/core/stats/least-squares';
import { median } from '../src/core/stats/robust';
import { burnedCard } from '../stand-ins/burn';
import { demoPairing } from '../stand-ins/demo';
import { observerOf } from '../stand-ins/observers';

/**
 * How long each kind's finding takes over its proposed card, burned and looked at, and how the numerical parts stand to libraries of the registry that do
 * the same in the same run. Written into docs/performance.md.
 */
const ROUNDS = 15;

/** Median milliseconds of several rounds, the first ones left out: the runtime is still learning then. */
function time(work: () => unknown): number {
  const times = Array.from({ length: ROUNDS }, () => {
    const from = performance.now();
    work();
    return performance.now() - from;
  });
  return median(times.slice(3));
}

const findings = CARD_KIND_NAMES.map((name) => {
  const kind = cardKind(name);
  const observer = observerOf(name);
  const pairing = demoPairing(observer.on[0] as never, observer.on[1] as never);
  const known = { pairing, facts: observer.facts?.(pairing) ?? [] };
  const layout = layCard(kind, kind.propose(known).plan, pairing, { cardNumber: 5 });
  const burned = burnedCard(layout, pairing, 'perf');
  const wish = observer.wish?.(burned, 'perf look 2') ?? kind.wish(pairing);
  const seen = observer.seeAll?.(burned) ?? observer.look(burned, 'perf look 2');
  return { name, cells: layout.cells.length, ms: time(() => kind.find(layout, seen, known, wish)) };
});

/** Points of a saturating curve, as darkness over energy is one, a little off it. */
const X = Array.from({ length: 60 }, (_, at) => 0.1 * 1.06 ** at);
const curve =
  ([top, scale, shape]: readonly number[]) =>
  (x: number): number =>
    top! * (1 - Math.exp(-((x / scale!) ** shape!)));
const Y = X.map((x, at) => curve([42, 0.7, 1.3])(x) + 0.4 * Math.sin(12.9898 * at));
const START = [30, 1, 1];
const SLOPE_STEP = 1e-6;
const ownFit = () =>
  leastSquares((parameters) => {
    const at = curve(parameters);
    const columns = parameters.map((value, place) =>
      curve(parameters.map((one, other) => (other === place ? value + SLOPE_STEP : one))),
    );
    return {
      residuals: X.map((x, k) => at(x) - Y[k]!),
      jacobian: X.map((x) => columns.map((moved) => (moved(x) - at(x)) / SLOPE_STEP)),
    };
  }, START);
/** The library does not see that it has settled: it is given as many steps as it needs to leave no more than ours, and no others. */
const LIBRARY_STEPS = 8;
const libraryFit = () =>
  levenbergMarquardt({ x: X, y: Y }, (parameters) => curve([...parameters]), {
    initialValues: START,
    maxIterations: LIBRARY_STEPS,
  });
const misses = (parameters: readonly number[]): number =>
  X.reduce((sum, x, k) => sum + (curve(parameters)(x) - Y[k]!) ** 2, 0);
const [ownLeft, libraryLeft] = [misses(ownFit().parameters), misses([...libraryFit().parameterValues])];

/** Forty-two places of a grid, as levels of a surface. */
const PLACES = Array.from({ length: 42 }, (_, at) => [(at % 7) / 3.5 - 1, Math.floor(at / 7) / 3 - 1]);
const VALUES = PLACES.map(([x, y]) => Math.sin(2 * x!) + y!);
const ownProcess = () =>
  gaussianProcess(
    PLACES,
    VALUES,
    PLACES.map(() => 0.1),
    PLACES.map(() => []),
    { amplitude: 1, reach: 0.8 },
    [],
  ).at([0.1, 0.2], []);
const libraryProcess = () => {
  const covariance = (a: readonly number[], b: readonly number[]): number => {
    const apart = (Math.sqrt(5) * Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!)) / 0.8;
    return (1 + apart + apart ** 2 / 3) * Math.exp(-apart);
  };
  const matrix = new Matrix(PLACES.map((a, i) => PLACES.map((b, j) => covariance(a, b) + (i === j ? 0.01 : 0))));
  const factor = new CholeskyDecomposition(matrix);
  const across = Matrix.columnVector(PLACES.map((place) => covariance([0.1, 0.2], place)));
  const weights = factor.solve(Matrix.columnVector(VALUES));
  const value = across.dot(weights);
  return { value, sigma: Math.sqrt(1 - across.dot(factor.solve(across))) };
};

const pairs = [
  {
    what: 'damped least squares of 60 points, 3 parameters, against ml-levenberg-marquardt',
    own: ownFit,
    library: libraryFit,
  },
  {
    what: 'a process of 42 places and one place foretold, against ml-matrix',
    own: ownProcess,
    library: libraryProcess,
  },
].map(({ what, own, library }) => {
  // Turn about, so that both have the same machine.
  const rounds = Array.from({ length: 5 }, () => ({ own: time(own), library: time(library) }));
  return { what, own: median(rounds.map((one) => one.own)), library: median(rounds.map((one) => one.library)) };
});

const file = 'docs/performance.md';
const HEAD = '\n# Findings and fits\n';
const PAGES = '\n# Pages\n';
const text = existsSync(file) ? readFileSync(file, 'utf8') : '';
const [upTo = '', pages = ''] = text.split(PAGES);
const slow = Math.max(...findings.map(({ ms }) => ms));
const section = `${HEAD}
Made by \`npm run perf\` in the same way: ms, medians of ${ROUNDS - 3} rounds after three that warm up. Wanted: every finding under 200 ms; the slowest takes ${slow.toFixed(0)}.

| finding of | cells | ms |
|---|---|---|
${findings.map(({ name, cells, ms }) => `| ${name} | ${cells} | ${ms.toFixed(1)} |`).join('\n')}

| numerical part | own ms | library ms | times |
|---|---|---|---|
${pairs.map(({ what, own, library }) => `| ${what} | ${own.toFixed(2)} | ${library.toFixed(2)} | ${(own / library).toFixed(2)} |`).join('\n')}

Wanted: no part takes more than twice what the library does. Sum of squares left: ${ownLeft.toFixed(3)} by our own, ${libraryLeft.toFixed(3)} by the library.
`;
writeFileSync(file, `${upTo.split(HEAD)[0]!.trimEnd()}\n${section}${pages === '' ? '' : `${PAGES}${pages}`}`);
console.log(section);
