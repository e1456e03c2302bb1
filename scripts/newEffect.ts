/**
 * Makes the folder of a new effect, with a processor that passes the sound and a test that fails until it does more, and
 * puts it into the catalogue.
 * npm run new:effect NAME   NAME in camel case, as pieces and command lines will know it for ever
 */
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const EFFECTS = join(__dirname, '../src/core/effects');

const filesOf = (id: string, type: string): Readonly<Record<string, string>> => ({
  'params.ts': `import { ratio } from '../../params/make';
import type { Params } from '../../params/param';
import { WHOLLY_WET_LINEAR } from '../common';

export const ${id}Params = {
  ...WHOLLY_WET_LINEAR,
  amount: ratio({ label: 'Amount', group: '${type}', hint: 'What one hears when it is turned up.', initial: 0.5 }),
} satisfies Params;
`,
  'processor.ts': `import { copyBlock, type StereoBlock } from '../../dsp/blocks';
import type { EffectProcessor } from '../define';
import { Insert } from '../insert';

/** Seconds for which a sound stays inside. */
const MEMORY_SECONDS = 0;
/** Time constant with which its gains follow. */
const SMOOTHING_SECONDS = 0.008;

export class ${type}Processor extends Insert implements EffectProcessor {
  constructor(sampleRate: number) {
    super(sampleRate, MEMORY_SECONDS, SMOOTHING_SECONDS);
  }

  reset(seconds: number, values: Float64Array): void {
    this.locate(seconds, values);
  }

  locate(_seconds: number, _values: Float64Array): void {
    this.quiet.reset();
  }

  process(input: StereoBlock, wet: StereoBlock, _values: Float64Array): void {
    this.quiet.measureInput(input);
    copyBlock(input.left, wet.left);
    copyBlock(input.right, wet.right);
  }
}
`,
  [`${id}.ts`]: `import { defineEffect } from '../define';
import { ${id}Params } from './params';

export const ${id} = defineEffect({
  id: '${id}',
  name: '${type}',
  family: 'tone',
  purpose: 'What it is for, in one line.',
  searchWords: '',
  params: ${id}Params,
  presets: [{ id: 'neutral', name: 'Neutral', purpose: 'Adds nothing.', values: { amount: 0 } }],
  headline: ['amount'],
});
`,
  'implementation.ts': `import type { EffectImplementation } from '../implementation';
import { imagePicture } from '../imagePicture';
import { ${id}Params } from './params';
import { ${type}Processor } from './processor';

const create = (sampleRate: number): ${type}Processor => new ${type}Processor(sampleRate);

export const ${id}Implementation: EffectImplementation = {
  createProcessor: create,
  picture: (values, context) => imagePicture({ create, params: ${id}Params, values, context }),
};
`,
  [`${id}.test.ts`]: `test('${id} is compared with theory or with an independent method', () => {
  throw new Error('Say here what it promises, and measure it.');
});
`,
});

function insertBefore(file: string, marker: string, line: string): void {
  const path = join(EFFECTS, file);
  const text = readFileSync(path, 'utf8');
  const at = text.indexOf(marker);
  if (at < 0) throw new Error(`${file} has no line "${marker}" to put the effect before.`);
  writeFileSync(path, text.slice(0, at) + line + text.slice(at));
}

function main(): void {
  const id = process.argv[2] ?? '';
  if (!/^[a-z][A-Za-z]*$/.test(id)) throw new Error('A name in camel case is needed: npm run new:effect NAME');
  const folder = join(EFFECTS, id);
  if (existsSync(folder)) throw new Error(`There is a folder ${folder} already; nothing was changed.`);
  const type = id[0]!.toUpperCase() + id.slice(1);
  mkdirSync(folder);
  for (const [name, text] of Object.entries(filesOf(id, type))) writeFileSync(join(folder, name), text);
  insertBefore('catalogue.ts', '\n/** Every effect', `import { ${id} } from './${id}/${id}';\n`);
  insertBefore('catalogue.ts', '];\n\nexport const findEffect', `  ${id},\n`);
  insertBefore(
    'implementations.ts',
    '\n/** What makes each',
    `import { ${id}Implementation } from './${id}/implementation';\n`,
  );
  insertBefore('implementations.ts', '};\n\n/** @throws', `  ${id}: ${id}Implementation,\n`);
  process.stdout.write(`src/core/effects/${id} is made. Next: CONTRIBUTING.md, "Add an effect".\n`);
}

main();
