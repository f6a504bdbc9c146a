/** Types of acrylic that can be seen through, by their words. */
export const SEE_THROUGH = /clear|transparent|see-through|translucent|tinted|colourless/i;

const ALWAYS: ReadonlySet<string> = new Set(['glass', 'coated-clear']);
const BY_TYPE: ReadonlySet<string> = new Set(['acrylic-cast', 'acrylic-extruded']);

/** Whether what is burned on one face of a stock can be looked at through the other: clear sheet, coated or not. */
export const isSeeThrough = ({ family, type }: { readonly family: string; readonly type: string }): boolean =>
  ALWAYS.has(family) || (BY_TYPE.has(family) && SEE_THROUGH.test(type));
