import { readdirSync, readFileSync } from 'node:fs';

const PAGE_BYTES = 4096;

/** Memory of a process and of each that it started, itself first, in bytes; on Linux, by its own account in /proc. */
export function processMemories(pid: number): number[] {
  const parents = new Map<number, number>();
  for (const name of readdirSync('/proc')) {
    const id = Number(name);
    if (Number.isInteger(id)) parents.set(id, parentOf(id));
  }
  const isOf = (id: number): boolean => id === pid || (id > 1 && parents.has(id) && isOf(parents.get(id)!));
  return [pid, ...[...parents.keys()].filter((id) => id !== pid && isOf(id))].map(residentBytes);
}

/** The same together. */
export const treeMemory = (pid: number): number => processMemories(pid).reduce((sum, bytes) => sum + bytes, 0);

function parentOf(pid: number): number {
  try {
    return Number(
      readFileSync(`/proc/${pid}/stat`, 'utf8')
        .replace(/^.*\) /s, '')
        .split(' ')[1],
    );
  } catch {
    return 0;
  }
}

function residentBytes(pid: number): number {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, 'utf8').split(' ')[1]) * PAGE_BYTES;
  } catch {
    return 0;
  }
}
