/** Rows of a small table, each as it is written: `rows([1, 'a'], [2, 'b'])`. */
export const rows = <const Rows extends readonly (readonly unknown[])[]>(...all: Rows): Rows => all;
