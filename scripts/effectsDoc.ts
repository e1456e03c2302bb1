/**
 * Writes docs/effects.md from the descriptions of the effects and the figures of docs/accuracy.json.
 * npm run docs:effects [-- --check]
 * With --check nothing is written, and it ends with 1 when the file is not up to date.
 */
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import * as z from 'zod';
import { EFFECTS } from '../src/core/effects/catalogue';
import { commonParams, commonVisibleWhen } from '../src/core/effects/common';
import type { EffectDefinition } from '../src/core/effects/define';
import type { Condition } from '../src/core/effects/visibleWhen';
import { formatValue } from '../src/core/params/format';
import { PLAIN_CONTEXT, type Param } from '../src/core/params/param';
import { writeDoc } from './writeDoc';

const ROOT = join(__dirname, '..');
const DOC = join(ROOT, 'docs/effects.md');
const FIGURES = join(ROOT, 'docs/accuracy.json');

const figuresSchema = z.array(
  z.object({ effect: z.string(), promise: z.string(), unit: z.string(), limit: z.number(), measured: z.number() }),
);

const HEAD = `# Effects

Made by \`npm run docs:effects\` from the descriptions in \`src/core/effects\`; not to be edited by hand. Promises are
measured by \`npm run accuracy\`; the figures here are those of its last run with \`--write\`.
`;

const cell = (text: string): string => text.replaceAll('|', '\\|').replaceAll('\n', ' ');
const row = (...cells: readonly string[]): string => `| ${cells.map(cell).join(' | ')} |`;

function rangeOf(param: Param): string {
  if (param.kind === 'toggle') return 'on, off';
  if (param.kind === 'choice') return param.options.map(({ id }) => `\`${id}\``).join(', ');
  const range = `${formatValue(param, param.min, PLAIN_CONTEXT)} to ${formatValue(param, param.max, PLAIN_CONTEXT)}`;
  return param.sync ? `${range}, or a note value` : range;
}

function conditionText(condition: Condition): string {
  if ('strand' in condition) return `strand ${condition.strand} is there`;
  if ('is' in condition) return `\`${condition.param}\` is \`${String(condition.is)}\``;
  if ('isNot' in condition) return `\`${condition.param}\` is not \`${String(condition.isNot)}\``;
  return `\`${condition.param}\` is ${condition.atLeast} or more`;
}

function paramRow(effect: Pick<EffectDefinition, 'params' | 'visibleWhen'>, id: string): string {
  const param = effect.params[id]!;
  const shown = (effect.visibleWhen[id] ?? []).map(conditionText).join(' and ');
  const hint = shown === '' ? param.hint : `${param.hint} When ${shown}.`;
  return row(`\`${id}\``, param.label, rangeOf(param), formatValue(param, param.initial, PLAIN_CONTEXT), hint);
}

/** Parameters that the editor draws as one are one line: the first to the last of their group. */
function paramRows(effect: EffectDefinition): string[] {
  const drawn = effect.editorParts?.flatMap(({ replaces }) => replaces ?? []) ?? [];
  const own = effect.paramIds.filter((id) => !isCommon(effect, id));
  const groupOf = (id: string): string => effect.params[id]!.group;
  const rows = own.filter((id) => !drawn.includes(groupOf(id))).map((id) => paramRow(effect, id));
  return [
    ...rows,
    ...drawn.map((group) => {
      const [first, ...more] = own.filter((id) => groupOf(id) === group);
      return paramRow(effect, first!).replace(`\`${first}\``, `\`${first}\` to \`${more.at(-1)}\``);
    }),
  ];
}

/** Parameters that every effect has are described once, unless an effect has another initial value. */
const isCommon = ({ params }: EffectDefinition, id: string): boolean => params[id] === commonParams[id];

/** Promises of a part of an effect are named after both: "Echo, loop". */
const isAbout = (about: string, name: string): boolean =>
  about === name || about.startsWith(`${name},`) || about.startsWith(`${name} /`);

const common = (): string =>
  [
    '## What every effect has',
    '',
    row('id', 'label', 'range', 'default', 'what it does'),
    row('---', '---', '---', '---', '---'),
    ...Object.keys(commonParams).map((id) => paramRow({ params: commonParams, visibleWhen: commonVisibleWhen }, id)),
    '',
  ].join('\n');

function section(effect: EffectDefinition, figures: z.infer<typeof figuresSchema>): string {
  const promises = figures.filter((figure) => isAbout(figure.effect, effect.name));
  return [
    `## ${effect.name} (\`${effect.id}\`)`,
    '',
    effect.purpose,
    '',
    row('id', 'label', 'range', 'default', 'what it does'),
    row('---', '---', '---', '---', '---'),
    ...paramRows(effect),
    '',
    row('preset', 'name', 'for'),
    row('---', '---', '---'),
    ...effect.presets.map(({ id, name, purpose }) => row(`\`${id}\``, name, purpose)),
    '',
    ...(promises.length === 0
      ? []
      : [
          row('promise', 'measured', 'limit'),
          row('---', '---', '---'),
          ...promises.map(({ promise, measured, unit, limit }) => row(promise, `${measured} ${unit}`, `${limit}`)),
          '',
        ]),
  ].join('\n');
}

const figures = figuresSchema.parse(existsSync(FIGURES) ? JSON.parse(readFileSync(FIGURES, 'utf8')) : []);
const text = [HEAD, common(), ...EFFECTS.map((effect) => section(effect, figures))].join('\n');
writeDoc(DOC, text, 'docs:effects');
