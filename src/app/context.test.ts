import { expect, it } from 'vitest';
import { currentContext, setCurrentContext, type AppContext } from './context';

it('the server’s context is there for pages once the server has set it, and says how to start where none has', () => {
  setCurrentContext(undefined as unknown as AppContext);
  expect(() => currentContext()).toThrow('missing server context: start the application with npm start');
  const context = {} as AppContext;
  setCurrentContext(context);
  expect(currentContext()).toBe(context);
});
