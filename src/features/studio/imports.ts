import { create } from 'zustand';
import { addClip } from '../../core/piece/edits/clips';
import { addTrack } from '../../core/piece/edits/channels';
import { newTrack, type Clip } from '../../core/piece/piece';
import { ApiProblem, uploadSound, type StoredSound } from '../../data/api';
import { newId } from '../../data/newId';
import { useOpenPiece } from '../../data/openPiece';
import { useView } from '../../data/view';
import { progressText, soundName } from './soundFiles';

/** Where the clip of a sound begins. */
export interface ImportTarget {
  /** On a new track when left out. */
  readonly track?: string;
  readonly beat: number;
}

interface FailedImport {
  readonly name: string;
  readonly reason: string;
}

interface Imports {
  /** Files that are uploaded or wait for others. */
  readonly left: number;
  readonly total: number;
  /** The file that is uploaded, and its progress. */
  readonly now: { readonly name: string; readonly text: string } | null;
  /** Files of the last time that could not be used, and why. */
  readonly failed: readonly FailedImport[];
  /** Imports files one after another: each becomes a clip. Earlier ones continue. */
  add(files: readonly File[], at?: ImportTarget): void;
  /** Cancels the remaining ones; imported ones are kept. */
  cancel(): void;
  dismiss(): void;
}

interface Waiting {
  readonly file: File;
  readonly at: ImportTarget;
  /** The piece that was open when it was added. */
  readonly piece: string;
}

/** A file was read but could not be added. */
class ImportRefused extends Error {}

let queue: Waiting[] = [];
let ending = new AbortController();

/** Sound files on their way into the piece. */
export const useImports = create<Imports>((set, get) => ({
  left: 0,
  total: 0,
  now: null,
  failed: [],
  add: (files, at = { beat: 0 }) => {
    const { left, total } = get();
    const piece = useOpenPiece.getState().piece!.id;
    queue.push(...files.map((file) => ({ file, at, piece })));
    set({ left: left + files.length, total: left > 0 ? total + files.length : files.length });
    if (left > 0) return;
    set({ failed: [] });
    void importAll();
  },
  cancel: () => {
    queue = [];
    ending.abort();
  },
  dismiss: () => set({ failed: [] }),
}));

async function importAll(): Promise<void> {
  ending = new AbortController();
  const { signal } = ending;
  const names: string[] = [];
  for (let next = queue.shift(); next; next = queue.shift()) {
    const { file, at, piece } = next;
    try {
      useImports.setState({ now: { name: file.name, text: 'sending' } });
      const sound = await uploadSound(
        file,
        soundName(file),
        (status) => useImports.setState({ now: { name: file.name, text: progressText(file, status) } }),
        signal,
      );
      if (useOpenPiece.getState().piece?.id !== piece) throw new ImportRefused('Another piece was opened meanwhile.');
      addAsClip(sound, soundName(file), at);
      names.push(soundName(file));
    } catch (error) {
      if (signal.aborted) break;
      const reason =
        error instanceof ApiProblem
          ? error.detail
          : error instanceof ImportRefused
            ? error.message
            : 'It could not be added.';
      useImports.setState(({ failed }) => ({ failed: [...failed, { name: file.name, reason }] }));
    }
    useImports.setState(({ left }) => ({ left: left - 1 }));
  }
  // What was added after a stop, before this came to its end, is not part of what was stopped.
  useImports.setState({ left: queue.length, total: queue.length, now: null });
  const said = resultText(names, signal.aborted);
  if (said) useOpenPiece.getState().say(said);
  if (queue.length > 0) await importAll();
}

/** The outcome in words; null where nothing was added or stopped. */
function resultText(names: readonly string[], stopped: boolean): string | null {
  const added =
    names.length === 0 ? '' : names.length === 1 ? `${names[0]} was added.` : `${names.length} sounds were added.`;
  if (stopped) return `Stopped. ${added || 'Nothing was added.'}`;
  return added || null;
}

/** Adds a sound as a clip to its track, or to a new one. */
function addAsClip({ hash, ...info }: StoredSound, name: string, { track, beat }: ImportTarget): void {
  const { run, piece } = useOpenPiece.getState();
  const clip: Clip = {
    id: newId(),
    name,
    sound: hash,
    start: beat,
    offsetSeconds: 0,
    lengthSeconds: info.frames / info.sampleRate,
    gain: 1,
    fadeInSeconds: 0,
    fadeOutSeconds: 0,
    print: null,
  };
  const sounds = { [hash]: { ...info, name } };
  const known = piece?.tracks.some(({ id }) => id === track) ? track : undefined;
  const channel = known ?? newId();
  const done =
    known === undefined
      ? run(addTrack, { track: newTrack(channel, name, { clips: [clip] }), sounds })
      : run(addClip, { track: known, clip, sounds });
  if (done) useView.setState({ channel, slot: null, clip: clip.id });
}
