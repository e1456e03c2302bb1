// Lists what ships with the application, under which licence, with the licence's text: dist/licences.json.
// node scripts/licences.mjs
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const { version } = JSON.parse(readFileSync('package.json', 'utf8'));
const lock = JSON.parse(readFileSync('package-lock.json', 'utf8'));

function licenceText(folder) {
  const file = existsSync(folder) && readdirSync(folder).find((name) => /^(licen[cs]e|copying)/i.test(name));
  return file ? readFileSync(join(folder, file), 'utf8') : '';
}

const packages = Object.entries(lock.packages)
  .filter(([path, one]) => path.startsWith('node_modules/') && !one.dev && !one.devOptional && existsSync(path))
  .map(([path, one]) => ({
    name: path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length),
    version: one.version,
    licence: one.license ?? 'see its text',
    text: licenceText(path),
  }))
  .sort((a, b) => a.name.localeCompare(b.name) || a.version.localeCompare(b.version))
  .filter((one, i, all) => one.name !== all[i - 1]?.name || one.version !== all[i - 1]?.version);
writeFileSync('dist/licences.json', JSON.stringify({ version, packages }));
