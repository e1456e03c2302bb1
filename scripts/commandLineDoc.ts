/**
 * Writes docs/command-line.md from the descriptions of the commands.
 * npm run docs:cli [-- --check]
 * With --check nothing is written, and it ends with 1 when the file is not up to date.
 */
import type { Command } from 'commander';
import { join } from 'node:path';
import { exampleOf } from '../cli/arguments';
import { makeProgram } from '../cli/main';
import { writeDoc } from './writeDoc';

const HEAD = `# The command line

Made by \`npm run docs:cli\` from the descriptions in \`cli\`; not to be edited by hand. Every command says the same with
\`--help\`. A wrong command line ends with 2, bad data with 1, each with one line on standard error; a file is written
whole or not at all.
`;

const cell = (text: string): string => text.replaceAll('|', '\\|');

function commandText(command: Command): string {
  const path = command.parent?.parent ? `${command.parent.name()} ${command.name()}` : command.name();
  const words = command.registeredArguments.map((one) => {
    const optional = one.required ? '' : ' Optional.';
    return `| \`${one.name()}\` | ${cell(one.description)}${optional} |`;
  });
  const options = command.options.map(({ flags, description, defaultValue, argChoices, mandatory }) => {
    const choices = argChoices ? ` One of ${argChoices.map((one) => `\`${one}\``).join(', ')}.` : '';
    const initial =
      typeof defaultValue === 'string' || typeof defaultValue === 'number' ? ` \`${defaultValue}\` when left out.` : '';
    return `| \`${cell(flags)}\` | ${cell(description)}${choices}${mandatory ? ' Needed.' : initial} |`;
  });
  const rows = [...words, ...options];
  return [
    `## ${path}`,
    '',
    command.description(),
    '',
    `    ${exampleOf(command) ?? ''}`,
    '',
    ...(rows.length > 0 ? ['| | |', '| --- | --- |', ...rows, ''] : []),
  ].join('\n');
}

const commands = makeProgram().commands.flatMap((one) => (one.commands.length > 0 ? one.commands : [one]));
writeDoc(join(__dirname, '../docs/command-line.md'), [HEAD, ...commands.map(commandText)].join('\n'), 'docs:cli');
