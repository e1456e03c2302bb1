import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { basename } from 'node:path';

/**
 * Writes a document that is made from descriptions. With `--check` on the command line nothing is written, and the
 * process ends with 1 when the file is not up to date.
 * @param script of package.json that makes it
 */
export function writeDoc(path: string, text: string, script: string): void {
  if (!process.argv.includes('--check')) writeFileSync(path, text);
  else if (!existsSync(path) || readFileSync(path, 'utf8') !== text) {
    process.stderr.write(`docs/${basename(path)} is not up to date: npm run ${script}\n`);
    process.exitCode = 1;
  }
}
