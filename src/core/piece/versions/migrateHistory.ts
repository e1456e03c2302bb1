import { applyPatches, enablePatches, produceWithPatches } from 'immer';
import * as z from 'zod';
import { UNREADABLE_EDIT, type HistoryEntry, type Patch } from '../edit';
import { CHANGED_LISTS, migrateLists, type ChangedLists, type Stored } from './changedLists';

enablePatches();

const VERSION = 7;
const versioned = z.looseObject({ version: z.number() });

/** Whether the history of a stored document has to be brought to the form of this version. */
export const hasOldHistory = (document: unknown): boolean =>
  (versioned.safeParse(document).data?.version ?? VERSION) < VERSION;

const isOfLists = ({ path }: Patch): boolean => (CHANGED_LISTS as readonly unknown[]).includes(path[0]);

/**
 * The history of a document of an earlier version as one of this version. Patches refer to paths within the document, so they
 * are computed again: the old ones are applied to the old document, every state is migrated, and neighbours are
 * compared. An entry whose patches do not fit the document, with all that is beyond it, cannot be undone any more and
 * says so.
 * @param document the stored one, before it is migrated  @param cursor number of entries that are applied in it
 */
export function migrateHistory(document: Stored, entries: readonly HistoryEntry[], cursor: number): HistoryEntry[] {
  const made = [...entries];
  const now: ChangedLists = Object.fromEntries(
    CHANGED_LISTS.filter((name) => document[name] !== undefined).map((name) => [name, document[name]]),
  );
  let after: ChangedLists | null = now;
  for (let i = Math.min(cursor, entries.length) - 1; i >= 0; i -= 1) {
    const before = applied(after, entries[i]!.backward);
    made[i] = migrateEntry(entries[i]!, before, after);
    after = before;
  }
  let before: ChangedLists | null = now;
  for (let i = cursor; i < entries.length; i += 1) {
    const next = applied(before, entries[i]!.forward);
    made[i] = migrateEntry(entries[i]!, before, next);
    before = next;
  }
  return made;
}

/** Patches that lead from one old document to another as they lead between the migrated ones. */
export function migratePatches(before: Stored, patches: readonly Patch[]): Patch[] {
  const own = Object.fromEntries(CHANGED_LISTS.flatMap((name) => (name in before ? [[name, before[name]]] : [])));
  return [
    ...patches.filter((patch) => !isOfLists(patch)),
    ...between(own, applyPatches(own, patches.filter(isOfLists))),
  ];
}

/** Null when the patches do not fit. */
function applied(lists: ChangedLists | null, patches: readonly Patch[]): ChangedLists | null {
  try {
    return lists && applyPatches(lists, patches.filter(isOfLists));
  } catch {
    return null;
  }
}

function migrateEntry(entry: HistoryEntry, before: ChangedLists | null, after: ChangedLists | null): HistoryEntry {
  if (!before || !after) return { ...entry, edit: UNREADABLE_EDIT, forward: [], backward: [] };
  if (![...entry.forward, ...entry.backward].some(isOfLists)) return entry;
  const others = (patches: readonly Patch[]): Patch[] => patches.filter((patch) => !isOfLists(patch));
  return {
    ...entry,
    forward: [...others(entry.forward), ...between(before, after)],
    backward: [...others(entry.backward), ...between(after, before)],
  };
}

/** Patches from the migrated form of one state of the lists to that of another. */
function between(from: ChangedLists, to: ChangedLists): Patch[] {
  const [start, end] = [migrateLists(from), migrateLists(to)];
  const [, patches] = produceWithPatches(start, (draft) => {
    for (const name of CHANGED_LISTS) {
      const [old, list] = [start[name], end[name]];
      if (Array.isArray(old) && Array.isArray(list)) reconcile(draft[name] as unknown[], old, list);
      else if (list === undefined) delete draft[name];
      else if (old !== list) draft[name] = list;
    }
  });
  return patches;
}

const isObject = (item: unknown): item is Record<string, unknown> =>
  typeof item === 'object' && item !== null && !Array.isArray(item);

/** Makes a drafted list another, field by field where the same item has changed. */
function reconcile(draft: unknown[], from: readonly unknown[], to: readonly unknown[]): void {
  to.forEach((item, i) => {
    const old = from[i];
    if (old === item) return;
    if (isObject(old) && isObject(item) && old.id === item.id) assign(draft[i] as Record<string, unknown>, old, item);
    else draft[i] = item;
  });
  if (from.length > to.length) draft.splice(to.length);
}

function assign(
  draft: Record<string, unknown>,
  from: Readonly<Record<string, unknown>>,
  to: Readonly<Record<string, unknown>>,
): void {
  for (const field of Object.keys(from)) if (!(field in to)) delete draft[field];
  for (const [field, value] of Object.entries(to)) if (from[field] !== value) draft[field] = value;
}
