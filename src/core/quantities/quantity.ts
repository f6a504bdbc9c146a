declare const unit: unique symbol;

/** A number whose unit the compiler knows. Brands do not survive arithmetic: use unit suffixes inside loops and records. */
export type Quantity<U extends string> = number & { readonly [unit]: U };

export type Millimetres = Quantity<'mm'>;
export type MillimetresPerSecond = Quantity<'mm/s'>;
/** A share of the source's rated watts, 0..1. */
export type PowerFraction = Quantity<'fraction'>;

export const mm = (value: number): Millimetres => value as Millimetres;
export const mmPerS = (value: number): MillimetresPerSecond => value as MillimetresPerSecond;

export const MM_PER_INCH = 25.4;
