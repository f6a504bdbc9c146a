/**
 * Waits until a server that was started with its output piped says that it is ready, and goes on reading what it says: one whose words
 * nobody takes any more would be ended by them. Throws when it ends before.
 */
export function untilReady(server) {
  return new Promise((ready, failed) => {
    server.stdout.on('data', (chunk) => String(chunk).includes('is ready') && ready());
    server.once('exit', (code) => failed(new Error(`the server ended with ${code} before it was ready`)));
  });
}
