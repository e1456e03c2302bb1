import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { clipEnd } from '../../core/piece/clipEdges';
import { moveClip } from '../../core/piece/edits/clips';
import { trimClip } from '../../core/piece/edits/clipShape';
import { nudged, NUDGES } from '../../core/piece/nudge';
import type { Clip } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { useTokens } from '../../ui/theme';
import { usePiece } from '../studio/StudioProvider';

const WHATS = ['clip', 'start', 'end'] as const;
/** The step it begins with: a beat. */
const FIRST = 1;

/**
 * Moves the chosen clip, its start or its end by steps from a bar down to a millisecond, where a thumb is too coarse.
 */
export function NudgeKeys({ clip }: { readonly clip: Clip }) {
  const piece = usePiece();
  const tokens = useTokens();
  const [step, setStep] = useState(FIRST);
  const [what, setWhat] = useState(0);
  const { run } = useOpenPiece.getState();
  const nudge = NUDGES[step]!;
  const side = WHATS[what]!;
  const go = (count: number): void => {
    if (side === 'clip') run(moveClip, { clip: clip.id, start: nudged(piece, clip.start, nudge, count) });
    else
      run(trimClip, {
        clip: clip.id,
        side,
        beat: nudged(piece, side === 'start' ? clip.start : clipEnd(piece, clip), nudge, count),
      });
  };
  const subject = side === 'clip' ? '' : `, the ${side}`;
  const size = nudge.name === 'bar' || nudge.name === 'beat' ? `A ${nudge.name}` : nudge.name;
  return (
    <View role="group" aria-label="Nudge" style={[styles.keys, { borderColor: tokens.line }]}>
      <IconButton icon="chevron-left" label={`${size} earlier${subject}`} onPress={() => go(-1)} />
      <Button
        label={`Nudges the ${side}. Change`}
        tone="sandInk"
        mode="text"
        style={styles.word}
        onPress={() => setWhat((what + 1) % WHATS.length)}
      >
        {side}
      </Button>
      <Button
        label={`Nudges by ${size.toLowerCase()}. Change`}
        tone="sandInk"
        mode="text"
        style={styles.word}
        onPress={() => setStep((step + 1) % NUDGES.length)}
      >
        {nudge.name}
      </Button>
      <IconButton icon="chevron-right" label={`${size} later${subject}`} onPress={() => go(1)} />
    </View>
  );
}

const styles = StyleSheet.create({
  keys: { flexDirection: 'row', borderWidth: 1, borderRadius: 12 },
  word: { minWidth: 52 },
});
