import { basename, join, relative, resolve, sep } from 'node:path';
import { Problem } from './problem';

/**
 * The path of a file directly inside a folder of the server: the one way in which a name that came from outside becomes
 * a path.
 * @param name one file or folder name: no separators, no `.` or `..`, no NUL, not empty
 * @throws Problem 400 for anything else
 */
export function insideFolder(folder: string, name: string): string {
  const root = resolve(folder);
  const path = join(root, name);
  const plain = name !== '' && name === basename(name) && !/[/\\\0]/.test(name);
  if (!plain || relative(root, path) !== name || !path.startsWith(root + sep)) {
    throw new Problem(400, 'The request is not understood', 'A name in it is no file name. Nothing was changed.');
  }
  return path;
}
