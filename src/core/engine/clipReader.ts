import type { StereoRun } from '../effects/define';
import type { PlanClip } from './plan';

/** Samples of a sound at the engine's rate: one channel or two. */
export type SoundData = readonly Float32Array[];

/**
 * Adds the part of a clip that falls on [place, place + n) to `out` from index `from`.
 * @param startFade place at which playing began; a clip caught in its middle there fades in over `fadeFrames`
 * @param cutAt place at which playing jumps back; a clip that goes on past it fades out before
 * @returns true when anything was added
 */
export function addClip(
  clip: PlanClip, sound: SoundData, place: number, n: number, out: StereoRun, from: number, startFade: number, cutAt: number, fadeFrames: number,
): boolean {
  const left = sound[0];
  if (!left) return false;
  const right = sound.length > 1 ? sound[1]! : left;
  let first = clip.start > place ? clip.start : place;
  const soundEnd = clip.start + left.length - clip.offset;
  let end = clip.start + clip.length;
  if (soundEnd < end) end = soundEnd;
  if (place + n < end) end = place + n;
  if (end <= first) return false;
  const { gain, fadeIn, fadeOut } = clip;
  const clipEnd = clip.start + clip.length;
  const caught = startFade > clip.start;
  const cut = cutAt < clipEnd;
  const shift = clip.offset - clip.start;
  const outShift = from - place;
  const outLeft = out.left;
  const outRight = out.right;
  const faded = first - clip.start < fadeIn || clipEnd - end < fadeOut || (caught && first - startFade < fadeFrames) || (cut && cutAt - end < fadeFrames);
  if (!faded) {
    for (; first < end; first += 1) {
      const at = first + outShift;
      outLeft[at] = outLeft[at]! + left[first + shift]! * gain;
      outRight[at] = outRight[at]! + right[first + shift]! * gain;
    }
    return true;
  }
  for (; first < end; first += 1) {
    let level = gain;
    const into = first - clip.start;
    const left0 = clipEnd - first;
    if (into < fadeIn) level *= into / fadeIn;
    if (left0 <= fadeOut) level *= left0 / fadeOut;
    if (caught && first - startFade < fadeFrames) level *= (first - startFade) / fadeFrames;
    if (cut && cutAt - first <= fadeFrames) level *= (cutAt - first) / fadeFrames;
    const at = first + outShift;
    outLeft[at] = outLeft[at]! + left[first + shift]! * level;
    outRight[at] = outRight[at]! + right[first + shift]! * level;
  }
  return true;
}
