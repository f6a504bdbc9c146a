/** A small table told row by row: `for (const [x, y] of tuples([0, 1], [2, 3]))`. Each row is as it is written, no more general. */
export const tuples = <const Rows extends readonly (readonly unknown[])[]>(...rows: Rows): Rows => rows;
