import type { SoundTreated } from '../../../core/engine/treatSteps';
import { writeWav } from '../../../core/formats/writeWav';
import { EDGE_FADE_SECONDS } from '../../../core/piece/clipEdges';
import { sourceOf, treatClips, wholeSourceOf, type SourcePart } from '../../../core/piece/edits/treat';
import { slotsIn } from '../../../core/piece/find';
import type { Clip, Piece, TreatStep } from '../../../core/piece/piece';
import { startTreating } from '../../../audio/treating';
import { uploadSound } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import type { Studio } from '../../studio/studio';

/** The part of a sound that a clip is made of; where it is cut out of the middle its edges are faded. */
function partOf(studio: Studio, part: SourcePart, sampleRate: number): Float32Array[] {
  const sound = studio.sounds.get(part.sound);
  if (!sound) throw new Error('The sound of that clip has not come yet. Try again in a moment.');
  const whole = sound.channels[0]!.length;
  const from = Math.min(whole - 1, Math.round(part.offsetSeconds * sampleRate));
  const to = Math.min(whole, Math.max(from + 1, from + Math.round(part.lengthSeconds * sampleRate)));
  const fade = Math.round(EDGE_FADE_SECONDS * sampleRate);
  return sound.channels.map((channel) => {
    const cut = channel.slice(from, to);
    for (let i = 0; i < Math.min(fade, cut.length); i += 1) {
      if (from > 0) cut[i] = (cut[i]! * (i + 1)) / fade;
      if (to < whole) cut[cut.length - 1 - i] = (cut[cut.length - 1 - i]! * (i + 1)) / fade;
    }
    return cut;
  });
}

/** The result of steps on a part, rendered in a worker. */
export async function renderSteps(
  studio: Studio,
  piece: Piece,
  part: SourcePart,
  steps: readonly TreatStep[],
  onProgress: (share: number) => void,
  onStart: (cancel: () => void) => void,
): Promise<SoundTreated | null> {
  const wanted = new Set(
    steps.flatMap((step) => (step.kind === 'chain' ? slotsIn(step.chain).map(({ sound }) => sound) : [])),
  );
  const used = [...studio.sounds.values()]
    .filter(({ hash }) => wanted.has(hash))
    .map(({ hash, channels }) => ({ hash, channels: [...channels] }));
  const work = startTreating(
    {
      channels: partOf(studio, part, piece.sampleRate),
      steps: [...steps],
      sampleRate: piece.sampleRate,
      bpm: piece.tempo.bpm,
      sounds: used,
    },
    onProgress,
  );
  onStart(work.cancel);
  return work.result;
}

const keyOf = ({ sound, offsetSeconds, lengthSeconds }: SourcePart): string =>
  `${sound} ${offsetSeconds.toFixed(5)} ${lengthSeconds.toFixed(5)}`;

/**
 * Treats clips, each part of a sound once, as one edit; the piece is not changed before all is rendered and stored.
 * @param whole treats all of their sound, so that their edges can be extended
 * @returns false when it was stopped
 */
export async function treat(
  studio: Studio,
  piece: Piece,
  clips: readonly Clip[],
  steps: readonly TreatStep[],
  whole: boolean,
  onProgress: (share: number) => void,
  onStart: (cancel: () => void) => void,
): Promise<boolean> {
  const made: { clip: string; sound: string; bodySeconds: number; part?: Omit<SourcePart, 'sound'> }[] = [];
  const source = (clip: Clip): SourcePart => (whole && steps.length > 0 ? wholeSourceOf(piece, clip) : sourceOf(clip));
  const sounds: Record<string, Piece['sounds'][string]> = {};
  const parts = new Map<string, Clip[]>();
  for (const clip of clips) parts.set(keyOf(source(clip)), [...(parts.get(keyOf(source(clip))) ?? []), clip]);
  let done = 0;
  for (const group of parts.values()) {
    const part = source(group[0]!);
    const { offsetSeconds, lengthSeconds } = part;
    if (steps.length === 0) {
      made.push(...group.map(({ id }) => ({ clip: id, sound: part.sound, bodySeconds: part.lengthSeconds })));
      continue;
    }
    const treated = await renderSteps(
      studio,
      piece,
      part,
      steps,
      (share) => onProgress((done + share) / parts.size),
      onStart,
    );
    if (!treated) return false;
    const bytes = writeWav({ sampleRate: piece.sampleRate, channels: [...treated.channels] }, '32f');
    const { hash, ...sound } = await uploadSound(
      new Blob([bytes as Uint8Array<ArrayBuffer>]),
      `${piece.sounds[part.sound]?.name ?? 'Clip'}, treated`.slice(0, 120),
    );
    sounds[hash] = sound;
    made.push(
      ...group.map(({ id }) => ({
        clip: id,
        sound: hash,
        bodySeconds: treated.bodyFrames / piece.sampleRate,
        part: { offsetSeconds, lengthSeconds },
      })),
    );
    done += 1;
  }
  return useOpenPiece.getState().run(treatClips, { steps: [...steps], made, sounds });
}
