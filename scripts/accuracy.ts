import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PROMISES } from '../src/core/accuracy/all';

const FIGURES = join(__dirname, '../docs/accuracy.json');

/**
 * Measures every promise about the sound of the effects and prints them as a table; leaves with 1 when one does not
 * hold. With --write the figures go to docs/accuracy.json and from there to docs/effects.md.
 */
function main(): void {
  let broken = 0;
  const figures: object[] = [];
  process.stdout.write('| effect | promise | measured | limit | |\n|---|---|---|---|---|\n');
  for (const { effect, promise, unit, limit, measure } of PROMISES) {
    const value = measure();
    const measured = Number(value.toPrecision(3));
    figures.push({ effect, promise, unit, limit, measured });
    const holds = value < limit;
    if (!holds) broken += 1;
    process.stdout.write(
      `| ${effect} | ${promise} | ${measured} ${unit} | ${limit} | ${holds ? 'holds' : 'DOES NOT HOLD'} |\n`,
    );
  }
  if (process.argv.includes('--write')) {
    writeFileSync(FIGURES, `${JSON.stringify(figures, null, 2)}\n`);
    execFileSync('npm', ['run', '-s', 'docs:effects'], { cwd: join(__dirname, '..'), stdio: 'inherit' });
  }
  process.exitCode = broken > 0 ? 1 : 0;
}

main();
