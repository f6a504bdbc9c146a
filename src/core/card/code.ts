/** Digits and letters that are not taken for one another by eye or in single-stroke lettering (no I, L, O, U, Z). */
const ALPHABET = '0123456789ABCDEFGHJKMNPQRSTVWXY';
const BASE = ALPHABET.length;
const LEAST_DIGITS = 3;

function checkCharacter(body: string): string {
  let sum = 0;
  [...body].forEach((character, place) => {
    sum += ALPHABET.indexOf(character) * (place + 2);
  });
  return ALPHABET[sum % BASE]!;
}

/** Two letters, so that no controller and no reader of programs can take a code for one of its words, which are a letter and a number. */
const PREFIX = 'CD';
/** Cards of the first slice had the letter of motion words. */
const FIRST_PREFIX = 'G';

/**
 * Short readable code of a card: "CD", the number in base 31, a hyphen and a check character, "CD00C-Q". The base is prime and
 * neighbouring weights differ by one, so every single wrong character and every swap of neighbours is noticed.
 * Throws RangeError for a number that is not a whole number of zero or more.
 */
export function cardCode(cardNumber: number): string {
  if (!Number.isSafeInteger(cardNumber) || cardNumber < 0) throw new RangeError(`invalid card number: ${cardNumber}`);
  let body = '';
  for (let rest = cardNumber; rest > 0 || body.length < LEAST_DIGITS; rest = Math.floor(rest / BASE)) {
    body = ALPHABET[rest % BASE]! + body;
  }
  return `${PREFIX}${body}-${checkCharacter(body)}`;
}

const CODE = new RegExp(`^(?:${PREFIX}|${FIRST_PREFIX})([0-9A-Y]{3,})([0-9A-Y])$`);

/** What stands behind the code on a card of several places: which place it is. */
const PLACE = /\s+[A-E][1-9]\s*$/i;

/**
 * The card number of a code as typed (any case, spaces and hyphen optional, O read as 0, I and L as 1, with or without the name of a place behind it),
 * or null when it is no code or its check character does not agree.
 */
export function parseCardCode(text: string): number | null {
  // A code with a place behind it is one code in thirty-one by chance: without it first.
  return (PLACE.test(text) ? numberOf(text.replace(PLACE, '')) : null) ?? numberOf(text);
}

function numberOf(text: string): number | null {
  const plain = text.toUpperCase().replace(/[\s-]/g, '').replace(/O/g, '0').replace(/[IL]/g, '1');
  const match = CODE.exec(plain);
  if (!match) return null;
  const [, body, check] = match as unknown as [string, string, string];
  const digits = [...body].map((character) => ALPHABET.indexOf(character));
  if (digits.includes(-1) || checkCharacter(body) !== check) return null;
  return digits.reduce((number, digit) => number * BASE + digit, 0);
}
