import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Ajv2020 } from 'ajv/dist/2020.js';
import { documentJsonSchema, readDocument } from 'dot-hop/document';
import { rehearsalJsonSchema } from 'dot-hop/rehearsal';
import fc from 'fast-check';
import { parse } from 'yaml';
import { sheets } from './characters.js';
import { characters } from './made-characters.js';
import { often } from './often.js';

const root = fileURLToPath(new URL('../../..', import.meta.url));
const published = JSON.parse(
  readFileSync(path.join(root, 'packages/core/schema/dot-hop.schema.json'), 'utf8'),
) as object;
const isValid = new Ajv2020({ strictTuples: false, strictTypes: false }).compile(published);
const reads = (value: unknown): boolean => {
  try {
    readDocument(JSON.stringify(value), 'made-up.json');
    return true;
  } catch {
    return false;
  }
};

const rehearsals = JSON.parse(
  readFileSync(path.join(root, 'packages/core/schema/dot-hop-rehearsal.schema.json'), 'utf8'),
) as object;

test('the published schemas are the ones that files are read by ("npm run schema" writes them again)', () => {
  expect(published).toEqual(JSON.parse(JSON.stringify(documentJsonSchema())));
  expect(rehearsals).toEqual(JSON.parse(JSON.stringify(rehearsalJsonSchema())));
});

test('the rehearsals of the demo are valid by theirs, and a misspelt line is not', () => {
  const isRehearsal = new Ajv2020({ strictTuples: false, strictTypes: false }).compile(rehearsals);
  const files = readdirSync(path.join(root, 'demo')).filter((file) => file.endsWith('rehearsal.yaml'));
  expect(files.length).toBeGreaterThan(3);
  for (const file of files) {
    const value = parse(readFileSync(path.join(root, 'demo', file), 'utf8')) as { script: object[] };
    expect({ file, valid: isRehearsal(value), errors: isRehearsal.errors }).toMatchObject({ valid: true });
    expect(isRehearsal({ ...value, script: [{ at: 3, puls: 'jump' }] })).toBe(false);
  }
});

test('a document that builds on another may leave out what that says, and take things away', () => {
  const part = {
    dotHop: 1,
    from: '../mover.dothop.yaml',
    clips: { walk: { fps: 9 } },
    states: { doze: null },
  };
  expect(isValid(part)).toBe(true);
  expect(isValid({ ...part, from: undefined })).toBe(false);
  expect(isValid({ ...part, clips: { walk: { fbs: 9 } } })).toBe(false);
  expect(isValid({ ...part, clips: { walk: { fps: 'quick' } } })).toBe(false);
});

test.each([
  ['documents', published, 200],
  ['rehearsals', rehearsals, 60],
])('every example in the schema of %s is valid where it stands', (_, schema, least) => {
  let seen = 0;
  const faulty: unknown[] = [];
  const ajv = new Ajv2020({ strictTuples: false, strictTypes: false });
  ajv.addSchema(schema, 'whole');
  const visit = (node: unknown, pointer: string): void => {
    if (typeof node !== 'object' || node === null) return;
    const { examples } = node as { examples?: unknown[] };
    if (Array.isArray(examples)) {
      const fits = ajv.compile({ $ref: `whole#${pointer}` });
      for (const example of examples) {
        seen++;
        if (!fits(example)) faulty.push({ pointer, example, errors: fits.errors });
      }
    }
    for (const [key, inner] of Object.entries(node)) visit(inner, `${pointer}/${key}`);
  };
  visit(schema, '');
  expect(faulty).toEqual([]);
  expect(seen).toBeGreaterThan(least);
});

const documents = ['demo', 'demo/townsfolk'].flatMap((folder) =>
  readdirSync(path.join(root, folder))
    .filter((file) => file.endsWith('.dothop.yaml'))
    .map((file) => `${folder}/${file}`),
);

test.each(documents)('%s is valid by it', (file) => {
  const valid = isValid(parse(readFileSync(path.join(root, file), 'utf8')));
  expect({ valid, errors: isValid.errors }).toEqual({ valid: true, errors: null });
});

test('what is made up is valid by it as it is by reading, also with a fault in it', () => {
  const faults: readonly ((parts: Record<string, unknown>) => unknown)[] = [
    (parts) => parts,
    (parts) => ({ ...parts, sttes: {} }),
    (parts) => ({ ...parts, clips: { c: { cells: '0-1', lop: 'once' } } }),
    (parts) => ({ ...parts, compass: { directions: 'five' } }),
    (parts) => ({ ...parts, signals: { vx: { number: 'fast' } } }),
    (parts) => ({ ...parts, rest: 3 }),
    (parts) => ({ ...parts, dotHop: 2 }),
    (parts) => ({ ...parts, accept: [{ finding: 'flicker' }] }),
  ];
  fc.assert(
    fc.property(characters, fc.constantFrom(...faults), (parts, fault) => {
      const value = fault(JSON.parse(JSON.stringify({ dotHop: 1, sheets, ...parts })) as never);
      expect(isValid(value)).toBe(reads(value));
    }),
    { numRuns: often(150) },
  );
});

test('every field says what it is for, and has an example: an editor shows both while one writes', () => {
  const undescribed: string[] = [];
  const unshown: string[] = [];
  const visit = (node: unknown, at: string): void => {
    if (typeof node !== 'object' || node === null) return;
    const { properties, ...rest } = node as { properties?: Record<string, Record<string, unknown>> };
    for (const [name, inner] of Object.entries(properties ?? {})) {
      if (inner.description === undefined) undescribed.push(`${at}.${name}`);
      if (inner.examples === undefined) unshown.push(`${at}.${name}`);
      visit(inner, `${at}.${name}`);
    }
    for (const [key, inner] of Object.entries(rest))
      visit(inner, key === 'additionalProperties' ? `${at}.*` : at);
  };
  visit((published as { else: object }).else, 'document');
  visit(rehearsals, 'rehearsal');
  expect(unshown).toEqual([]);
  // A part of a document says what the whole one says.
  visit((published as { then: object }).then, 'part');
  expect(undescribed).toEqual([]);
});
