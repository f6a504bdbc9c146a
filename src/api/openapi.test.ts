import Joi from 'joi';
import { beforeEach, describe, expect, it } from 'vitest';
import { isProblem, PROBLEMS } from '../app/problems';
import { checked } from './checked';
import { openApiFile } from './openapi';
import { operation } from './operation';

const BARE = operation({
  id: 'listThings',
  method: 'GET',
  path: '/api/things',
  summary: 'All things',
  tag: 'about',
  answers: 'application/json',
  handle: async () => ({ json: [] }),
});
const FULL = operation<{ thingId: number }, { kind?: string; page: number }, { name: string }>({
  id: 'makeThing',
  method: 'POST',
  path: '/api/things/{thingId}',
  summary: 'Make one',
  tag: 'cards',
  answers: 'a file',
  params: Joi.object({ thingId: Joi.number().integer().required() }),
  query: Joi.object({ kind: Joi.valid('a', 'b'), page: Joi.number().required() }),
  body: Joi.object({ name: Joi.string().max(60).required() }),
  handle: async () => ({ json: {} }),
});
const PICTURE = operation<object, object, Buffer>({
  id: 'sendPicture',
  method: 'PUT',
  path: '/api/things',
  summary: 'A picture',
  tag: 'photos',
  answers: 'application/json',
  body: 'image',
  handle: async () => ({ json: {} }),
});
const DRAWING = operation<object, object, string>({
  id: 'sendDrawing',
  method: 'POST',
  path: '/api/drawings',
  summary: 'A drawing',
  tag: 'cards',
  answers: 'application/json',
  body: 'drawing',
  handle: async () => ({ json: {} }),
});

interface Described {
  readonly operationId: string;
  readonly parameters: readonly {
    readonly name: string;
    readonly in: string;
    readonly required: boolean;
    readonly schema: object;
  }[];
  readonly requestBody?: { readonly required: boolean; readonly content: Record<string, { readonly schema: object }> };
  readonly responses: Record<string, { readonly content?: object; readonly $ref?: string }>;
}
interface OpenApiDocument {
  openapi: string;
  paths: Record<string, Record<string, Described>>;
  components: {
    responses: object;
    schemas: {
      Problem: { type: string; required: string[]; properties: Record<string, object> & { code: { enum: string[] } } };
    };
  };
}

let file: OpenApiDocument;
// Made anew for each test: what is made while a file is loaded is counted for none of them.
beforeEach(() => void (file = openApiFile([BARE, FULL, PICTURE, DRAWING]) as OpenApiDocument));

describe('the OpenAPI document', () => {
  it('has each operation under its path and method, methods of one path together', () => {
    expect(file.openapi).toBe('3.1.0');
    expect(Object.keys(file.paths)).toEqual(['/api/things', '/api/things/{thingId}', '/api/drawings']);
    expect(Object.keys(file.paths['/api/things']!)).toEqual(['get', 'put']);
    expect(file.paths['/api/things']!['get']).toMatchObject({
      operationId: 'listThings',
      summary: 'All things',
      tags: ['about'],
    });
  });
  it('names parameters by place: those of the path always required, a key for what is posted', () => {
    expect(file.paths['/api/things']!['get']!.parameters).toEqual([]);
    const { parameters } = file.paths['/api/things/{thingId}']!['post']!;
    expect(parameters.map(({ name, in: place, required }) => `${name} ${place} ${required}`)).toEqual([
      'thingId path true',
      'kind query false',
      'page query true',
      'Idempotency-Key header false',
    ]);
    expect(parameters[0]!.schema).toMatchObject({ type: 'integer' });
    expect(parameters[1]!.schema).toMatchObject({ enum: ['a', 'b'] });
    expect(parameters[3]!.schema).toEqual({ type: 'string', minLength: 8, maxLength: 200 });
  });
  it('has bodies as JSON by their schema, pictures as bytes of three kinds, and none where none is sent', () => {
    expect(file.paths['/api/things']!['get']).not.toHaveProperty('requestBody');
    const made = file.paths['/api/things/{thingId}']!['post']!.requestBody!;
    expect(made.required).toBe(true);
    expect(made.content['application/json']!.schema).toMatchObject({
      type: 'object',
      required: ['name'],
      properties: { name: { type: 'string', maxLength: 60 } },
    });
    expect(made.content['application/json']!.schema).not.toHaveProperty('$schema');
    const picture = file.paths['/api/things']!['put']!.requestBody!;
    expect(Object.keys(picture.content)).toEqual(['image/jpeg', 'image/png', 'image/webp']);
    for (const { schema } of Object.values(picture.content))
      expect(schema).toEqual({ type: 'string', format: 'binary' });
    expect(file.paths['/api/drawings']!['post']!.requestBody).toEqual({
      required: true,
      content: { 'image/svg+xml': { schema: { type: 'string' } } },
    });
  });
  it('says what a good answer is and that every other is a problem', () => {
    const answers = file.paths['/api/things']!['get']!.responses;
    expect(answers['2XX']!.content).toEqual({ 'application/json': {} });
    expect(file.paths['/api/things/{thingId}']!['post']!.responses['2XX']!.content).toEqual({ '*/*': {} });
    expect(answers['default']).toEqual({ $ref: '#/components/responses/Problem' });
    const { Problem: problem } = file.components.schemas;
    expect(problem.properties.code.enum).toEqual(Object.keys(PROBLEMS));
    expect(problem.required).toEqual(['type', 'title', 'status', 'detail', 'code', 'whatIsSafe', 'whatToDo']);
    expect(problem.type).toBe('object');
    for (const word of ['type', 'title', 'detail', 'whatIsSafe', 'whatToDo'])
      expect(problem.properties[word], word).toEqual({ type: 'string' });
    expect(Object.keys(problem.properties)).toEqual(expect.arrayContaining(problem.required));
    // What is pointed at is there.
    const pointers = [...JSON.stringify(file).matchAll(/"#\/([^"]+)"/g)].map(([, path]) => path!.split('/'));
    expect(pointers.length).toBeGreaterThan(3);
    for (const path of pointers)
      expect(path.reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], file)).toBeDefined();
  });
});

describe('input at the door', () => {
  const schema = Joi.object({
    name: Joi.string().max(3).required(),
    at: Joi.object({ x: Joi.number().min(0) }),
    note: Joi.string().default('none'),
  });
  const fault = (value: unknown) => {
    try {
      checked(schema, value, 'The thing');
    } catch (error) {
      if (isProblem(error)) return error;
      throw error;
    }
    throw new Error('nothing was refused');
  };
  it('is given on as its schema has it, defaults filled in, and unchanged where there is no schema', () => {
    expect(checked(schema, { name: 'a' }, 'The thing')).toEqual({ name: 'a', note: 'none' });
    const anything = { any: 1 };
    expect(checked(undefined, anything, 'The thing')).toBe(anything);
  });
  it('is refused with every field at fault, by its path, in plain words that begin with a capital', () => {
    const { code, detail, fields } = fault({ name: 'abcd', at: { x: -1 }, more: 1 });
    expect(code).toBe('invalid-input');
    expect(fields.map(({ field }) => field)).toEqual(['name', 'at.x', 'more']);
    expect(fields[0]!.message).toBe('Length must be less than or equal to 3 characters long');
    expect(fields[1]!.message).toBe('Must be greater than or equal to 0');
    expect(detail).toBe(
      'The thing: name: Length must be less than or equal to 3 characters long; at.x: Must be greater than or equal to 0; more: Is not allowed.',
    );
  });
  it('names six fields at the most in its sentence, and a value that is none at all without a field', () => {
    const many = Object.fromEntries(Array.from({ length: 9 }, (_, index) => [`f${index}`, 1]));
    const { detail, fields } = fault({ name: 'a', ...many });
    expect(fields).toHaveLength(9);
    expect(detail).toContain('f5: Is not allowed.');
    expect(detail).not.toContain('f6');
    expect(fault(7).detail).toBe('The thing: Must be of type object.');
  });
});
