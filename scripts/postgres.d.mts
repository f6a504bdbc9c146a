export function freePort(): Promise<number>;
