import * as z from 'zod';

/** A document or a part of one before it has been checked by the schema of any version. */
export type Stored = Readonly<Record<string, unknown>>;

/** The lists of a piece that versions 6 and 7 write otherwise than those before. */
export const CHANGED_LISTS = ['lanes', 'links', 'modulators', 'snapshots', 'controls'] as const;
export type ChangedLists = Partial<Record<(typeof CHANGED_LISTS)[number], unknown>>;

const oldTarget = z.strictObject({ channel: z.string(), effect: z.string().nullable(), param: z.string() });
const targeted = z.looseObject({ target: z.unknown() });
const listing = z.looseObject({ values: z.array(z.unknown()) });
const named = z.looseObject({ kind: z.string() });

const SEND = 'send:';
const MACRO = 'macro:';
const WAITS = 'waits:';

const awaiting = z.looseObject({
  kind: z.literal('effect'),
  channel: z.string(),
  effect: z.string().startsWith(WAITS),
  param: z.string(),
});

/** Version 5 identified a send, a macro and the tempo by the parameter's text, and an effect by its id beside it. */
function targetOfVersion6(stored: unknown): unknown {
  const old = oldTarget.safeParse(stored).data;
  if (!old) return stored;
  const { channel, effect, param } = old;
  if (effect !== null) return { kind: 'effect', channel, effect, param };
  if (param.startsWith(SEND)) return { kind: 'send', channel, to: param.slice(SEND.length) };
  if (param.startsWith(MACRO)) return { kind: 'macro', macro: param.slice(MACRO.length) };
  if (param === 'tempo' && channel === 'main') return { kind: 'tempo' };
  return { kind: 'channel', channel, param };
}

const FIELDS: Readonly<Record<string, readonly string[]>> = {
  lfo: ['rate', 'shape', 'form', 'phase', 'roll', 'onceFrom'],
  steps: ['rate', 'steps', 'glide', 'chance', 'roll', 'onceFrom'],
  drift: ['rate', 'roll'],
  macro: ['level'],
  follower: ['follows', 'attackMs', 'releaseMs'],
};
/** Defaults of version 5. */
const LEFT_OUT: Stored = { chance: 1, attackMs: 10, releaseMs: 250 };

/** Version 5 gave every modulator the fields of all kinds; one without them has the form of version 6 already. */
function modulator(stored: unknown): unknown {
  const old = named.safeParse(stored).data;
  const fields = old && Object.hasOwn(FIELDS, old.kind) ? FIELDS[old.kind]! : null;
  if (!old || !fields || !('steps' in old && 'level' in old)) return stored;
  const all: Stored = { ...LEFT_OUT, ...old };
  return Object.fromEntries(
    ['id', 'name', 'kind', ...fields].filter((field) => all[field] !== undefined).map((field) => [field, all[field]]),
  );
}

/** Version 6 wrote the kind of effect that a target waits for as an effect's id with `waits:` before it. */
function target(stored: unknown): unknown {
  const made = targetOfVersion6(stored);
  const old = awaiting.safeParse(made).data;
  return old
    ? { kind: 'awaited', channel: old.channel, effectKind: old.effect.slice(WAITS.length), param: old.param }
    : made;
}

function withTarget(stored: unknown): unknown {
  const old = targeted.safeParse(stored).data;
  return old ? { ...(stored as Stored), target: target(old.target) } : stored;
}

function snapshot(stored: unknown): unknown {
  const old = listing.safeParse(stored).data;
  return old ? { ...(stored as Stored), values: old.values.map(withTarget) } : stored;
}

const ITEMS: Readonly<Record<(typeof CHANGED_LISTS)[number], (stored: unknown) => unknown>> = {
  lanes: withTarget,
  links: withTarget,
  modulators: modulator,
  snapshots: snapshot,
  controls: withTarget,
};

const done = new WeakMap<object, unknown>();

/** The same item gives the same object again, so that unchanged items of two documents are identical objects. */
function migrated(item: unknown, migrate: (stored: unknown) => unknown): unknown {
  if (typeof item !== 'object' || item === null) return item;
  if (!done.has(item)) done.set(item, migrate(item));
  return done.get(item);
}

/**
 * Lists of a document of any version as this version has them. What is in the new form already, or is invalid, is left for the
 * schema to check.
 */
export const migrateLists = (lists: ChangedLists): ChangedLists =>
  Object.fromEntries(
    CHANGED_LISTS.filter((name) => lists[name] !== undefined).map((name) => {
      const list = lists[name];
      return [name, Array.isArray(list) ? list.map((item: unknown) => migrated(item, ITEMS[name])) : list];
    }),
  );
