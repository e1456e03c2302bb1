import type { SoundData } from '../dsp/soundData';
import type { StereoBlock } from '../dsp/blocks';
import { fadeGain } from './fade';
import type { PlanClip } from './plan';

/**
 * Adds the part of a clip that falls on [place, place + n) to `out` from index `from`; a reversed clip is read from its
 * end.
 * @param startFade place at which playing began; a clip caught in its middle there fades in over `fadeFrames`
 * @param cutAt place at which playing jumps back; a clip that goes on past it fades out before
 * @returns true when anything was added
 */
export function addClip(
  clip: PlanClip,
  sound: SoundData,
  place: number,
  n: number,
  out: StereoBlock,
  from: number,
  startFade: number,
  cutAt: number,
  fadeFrames: number,
): boolean {
  const left = sound[0];
  if (!left) return false;
  const right = sound.length > 1 ? sound[1]! : left;
  const { gain, fadeIn, fadeOut, fadeInShape, fadeOutShape, reversed } = clip;
  const clipEnd = clip.start + clip.length;
  // What the clip has of the sound: where that is shorter than the clip, nothing is heard after it, or reversed before
  // it.
  const missing = clip.offset + clip.length - left.length;
  const soundStart = reversed && missing > 0 ? clip.start + missing : clip.start;
  const soundEnd = !reversed && missing > 0 ? clipEnd - missing : clipEnd;
  let first = soundStart > place ? soundStart : place;
  const end = soundEnd < place + n ? soundEnd : place + n;
  if (end <= first) return false;
  const caught = startFade > clip.start;
  const cut = cutAt < clipEnd;
  const step = reversed ? -1 : 1;
  let source = reversed ? clip.offset + clipEnd - 1 - first : clip.offset + first - clip.start;
  let at = first + from - place;
  const outLeft = out.left;
  const outRight = out.right;
  const faded =
    first - clip.start < fadeIn ||
    clipEnd - end < fadeOut ||
    (caught && first - startFade < fadeFrames) ||
    (cut && cutAt - end < fadeFrames);
  if (!faded) {
    // 32-bit integers: positions in a long piece exceed them, and are slow as indices.
    let outIndex = at | 0;
    let soundIndex = source | 0;
    for (let count = (end - first) | 0; count > 0; count -= 1, outIndex += 1, soundIndex += step) {
      outLeft[outIndex] = outLeft[outIndex]! + left[soundIndex]! * gain;
      outRight[outIndex] = outRight[outIndex]! + right[soundIndex]! * gain;
    }
    return true;
  }
  for (; first < end; first += 1, at += 1, source += step) {
    let level = gain;
    const into = first - clip.start;
    const left0 = clipEnd - first;
    if (into < fadeIn) level *= fadeGain(fadeInShape, into / fadeIn);
    if (left0 <= fadeOut) level *= fadeGain(fadeOutShape, left0 / fadeOut);
    if (caught && first - startFade < fadeFrames) level *= (first - startFade) / fadeFrames;
    if (cut && cutAt - first <= fadeFrames) level *= (cutAt - first) / fadeFrames;
    outLeft[at] = outLeft[at]! + left[source]! * level;
    outRight[at] = outRight[at]! + right[source]! * level;
  }
  return true;
}
