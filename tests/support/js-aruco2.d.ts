/** The parts of js-aruco2 (CommonJS, no types of its own) that the tests hold our markers against. */
declare module 'js-aruco2' {
  interface Dictionary {
    readonly codeList: readonly string[];
    generateSVG(id: number): string;
  }
  const library: { AR: { Dictionary: new (name: string) => Dictionary } };
  export default library;
}
