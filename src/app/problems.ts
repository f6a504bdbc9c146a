import type { FieldProblem, ProblemBody } from '../views/problem';

/** Every way in which a request can fail that is not a fault of the program: status, what happened in general, what to do. */
export const PROBLEMS = {
  'invalid-input': {
    status: 422,
    title: 'Some values cannot be used',
    whatToDo: 'Correct the fields named and send again.',
  },
  'malformed-request': {
    status: 400,
    title: 'The request cannot be read',
    whatToDo: 'Send JSON in the documented shape.',
  },
  'wrong-media-type': {
    status: 415,
    title: 'The body has the wrong type',
    whatToDo: 'Send application/json, or for photos a JPEG, PNG or WebP.',
  },
  'not-found': {
    status: 404,
    title: 'There is no such record',
    whatToDo: 'Check the address; records are retired, never deleted.',
  },
  'method-not-allowed': {
    status: 405,
    title: 'This address does not take that method',
    whatToDo: 'See the list of methods in the Allow header.',
  },
  'cross-site': {
    status: 403,
    title: 'A request from another site was refused',
    whatToDo: 'Open Glass Ladder itself and do it there.',
  },
  'name-taken': {
    status: 409,
    title: 'A machine of this name is in use',
    whatToDo: 'Choose another name, or retire the other machine.',
  },
  'banned-material': {
    status: 409,
    title: 'This material is never burned',
    whatToDo: 'Take it out of the machine and use another stock.',
  },
  'wavelength-passes': {
    status: 409,
    title: 'This source cannot mark this stock',
    whatToDo: 'Choose another machine or another stock.',
  },
  retired: {
    status: 409,
    title: 'The machine, lens or stock is retired',
    whatToDo: 'Bring it back on its page, or choose another.',
  },
  'does-not-fit': {
    status: 409,
    title: 'The card does not fit there',
    whatToDo: 'Make it smaller, or place it elsewhere on the sheet.',
  },
  'outside-bed': {
    status: 409,
    title: 'The beam would have to go where it cannot',
    whatToDo: 'Move the card or the sheet inwards; on a gantry a slower fastest row needs less run-up.',
  },
  'cautions-unticked': {
    status: 409,
    title: 'The pre-burn check is not complete',
    whatToDo: 'Tick each line when it is true, then start.',
  },
  'machine-busy': {
    status: 409,
    title: 'This machine is burning already',
    whatToDo: 'Wait for the burn to end, or stop it.',
  },
  'burn-not-open': {
    status: 409,
    title: 'This burn has ended',
    whatToDo: 'Look at its entry in the logbook; start a new burn if needed.',
  },
  'nothing-burned': {
    status: 409,
    title: 'There is nothing to photograph',
    whatToDo: 'Burn the card on the bench first.',
  },
  'body-too-large': {
    status: 413,
    title: 'The request is too large',
    whatToDo: 'Send less than half a megabyte of JSON.',
  },
  'photo-too-large': {
    status: 413,
    title: 'The photo is too large',
    whatToDo: 'Send at most 25 MB and 40 megapixels.',
  },
  'photo-not-readable': {
    status: 422,
    title: 'This is not a photo that can be opened',
    whatToDo: 'Send a JPEG, PNG or WebP straight from the camera.',
  },
  'photo-heic': {
    status: 415,
    title: 'HEIC photos cannot be read',
    whatToDo: 'Set the phone to “most compatible” (JPEG), or export the photo as JPEG.',
  },
  'too-many-photos': { status: 503, title: 'Too many photos wait to be read', whatToDo: 'Send it again in a minute.' },
  'print-scale': {
    status: 422,
    title: 'The sheet is not printed to scale',
    whatToDo: 'Print it again at 100 %, not “fit to page”, and measure the rule of that print.',
  },
  'sheet-measured': {
    status: 409,
    title: 'This sheet is measured already',
    whatToDo: 'Use it; note another print as a sheet of its own.',
  },
  'sheet-not-measured': {
    status: 422,
    title: 'The photos do not tell the greys',
    whatToDo: 'Take both photos again, in the same light, one of them one to two stops darker.',
  },
  'no-tone': {
    status: 422,
    title: 'No tone can be told there',
    whatToDo:
      'Lay the piece on a frame sheet whose greys were measured, in even light, and take it again; or choose another place.',
  },
  'photo-without-exposure': {
    status: 422,
    title: 'The photo does not say its exposure',
    whatToDo: 'Send it straight from the camera, as a JPEG.',
  },
  'only-photo': {
    status: 409,
    title: 'This is the only photo that counts',
    whatToDo: 'Take another one first, or look at the piece by eye.',
  },
  'nothing-to-keep': {
    status: 409,
    title: 'There is nothing to keep here',
    whatToDo: 'Choose a cell that was burned, or answer what the card still asks.',
  },
  'nothing-to-propose': {
    status: 409,
    title: 'This card makes no sense here',
    whatToDo: 'Choose another kind of card, or another machine or stock.',
  },
  'no-search': {
    status: 409,
    title: 'This card asks for no more cells',
    whatToDo: 'Look at what it found, or plan another card.',
  },
  'cannot-measure': {
    status: 409,
    title: 'The gauge cannot be set on',
    whatToDo: 'Cut it through first, or measure another part.',
  },
  'hand-not-awaited': { status: 409, title: 'The burn waits for no hand', whatToDo: 'Look at how far it has come.' },
  'database-away': {
    status: 503,
    title: 'The database cannot be reached',
    whatToDo: 'Wait a moment and try again; the page keeps what you entered.',
  },
  'internal-fault': {
    status: 500,
    title: 'Something went wrong inside',
    whatToDo: 'Try again; if it stays, look at the server’s log for this time.',
  },
} as const;

export type ProblemCode = keyof typeof PROBLEMS;

/** An expected failure that is told to whoever asked. `safe` says what has not been harmed. */
export class Problem extends Error {
  override readonly name = 'Problem';
  constructor(
    readonly code: ProblemCode,
    readonly detail: string,
    readonly safe = 'Nothing was changed.',
    readonly fields: readonly FieldProblem[] = [],
  ) {
    super(`${code}: ${detail}`);
  }
}

/** Recognised by name: server and pages are separate bundles with a class each. */
export function isProblem(error: unknown): error is Problem {
  return error instanceof Error && error.name === 'Problem' && 'code' in error;
}

export function problemBody(problem: Problem): ProblemBody {
  const { status, title, whatToDo } = PROBLEMS[problem.code];
  return {
    type: `/problems#${problem.code}`,
    title,
    status,
    detail: problem.detail,
    code: problem.code,
    whatIsSafe: problem.safe,
    whatToDo,
    ...(problem.fields.length > 0 ? { fields: problem.fields } : {}),
  };
}

export function notFound(what: string, id: number | string): Problem {
  return new Problem('not-found', `There is no ${what} ${id}.`);
}
