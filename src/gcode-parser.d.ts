declare module 'gcode-parser' {
  const parser: { parseStringSync(text: string): unknown };
  export default parser;
}
