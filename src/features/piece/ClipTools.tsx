import type { ReactNode } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { beatsFrom } from '../../core/music/tempo';
import { clipEnd, continuation } from '../../core/piece/clipEdges';
import {
  crossfadeClip,
  joinClip,
  overlapping,
  repeatClip,
  setClip,
  splitClip,
  trimClip,
} from '../../core/piece/edits/clipShape';
import { tempoOf } from '../../core/piece/tempoOf';
import type { Clip, Track } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Tap } from '../../ui/Tap';
import { SnapButton } from '../moves/SnapButton';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { newId } from '../../data/newId';

interface ClipToolsProps {
  readonly clip: Clip;
  readonly track: Track;
  readonly shaping: boolean;
  readonly onPrint: () => void;
  readonly onShape: () => void;
  readonly onSwell: () => void;
  readonly onTreat: () => void;
  readonly onMake: () => void;
}

/** Beats after which a clip comes again: as many whole bars as it lasts. */
export function repeatBeats(piece: ReturnType<typeof usePiece>, clip: Clip): number {
  const bar = piece.tempo.beatsPerBar;
  return Math.max(bar, Math.ceil(beatsFrom(clip.start, clip.lengthSeconds, tempoOf(piece)) / bar - 1e-9) * bar);
}

/** What is done to the chosen clip: cut at the playhead, joined, reversed, muted, repeated, crossfaded. */
export function ClipTools({ clip, track, shaping, onPrint, onShape, onSwell, onTreat, onMake }: ClipToolsProps) {
  const piece = usePiece();
  const { studio } = useStudio();
  const { run, say } = useOpenPiece.getState();
  // The playhead stands on a whole sample; a cut on a beat shall stand on the beat.
  const here = (): number => Math.round(studio.beat * 1e4) / 1e4;
  const inside = (beat: number): boolean => beat > clip.start && beat < clipEnd(piece, clip);
  const atPlayhead = (act: (beat: number) => boolean): void => {
    const beat = here();
    if (inside(beat)) act(beat);
    else say('Put the playhead inside the clip first: tap the ruler above it.');
  };
  return (
    <Row>
      <Tap filled tone="plum" label="Print" text="Print …" onPress={onPrint} />
      <Tap
        role="switch"
        chosen={shaping}
        tone="sandInk"
        text="level, fades"
        label="Level, fades and slip"
        onPress={onShape}
      />
      <Tap
        tone="plum"
        label="Treat this clip …"
        text={clip.treated ? `Treat · ${clip.treated.steps.length}` : 'Treat …'}
        onPress={onTreat}
      />
      <Tap tone="plum" label="Recipes for this" text="Make …" onPress={onMake} />
      <Tap tone="plum" label="Swells into hits of this track" text="Swell …" onPress={onSwell} />
      <Tap
        icon="scissors"
        text="split"
        label="Split at the playhead"
        onPress={() => atPlayhead((beat) => run(splitClip, { clip: clip.id, beat, id: newId() }))}
      />
      <Tap
        text="⇤ from here"
        label="Trim the start to the playhead"
        onPress={() => atPlayhead((beat) => run(trimClip, { clip: clip.id, side: 'start', beat }))}
      />
      <Tap
        text="to here ⇥"
        label="Trim the end to the playhead"
        onPress={() => atPlayhead((beat) => run(trimClip, { clip: clip.id, side: 'end', beat }))}
      />
      <Tap
        role="switch"
        chosen={clip.reversed ?? false}
        tone="sandInk"
        text="reverse"
        label="Reversed"
        onPress={() => run(setClip, { clip: clip.id, change: { reversed: !clip.reversed } })}
      />
      <Tap
        role="switch"
        chosen={clip.mute ?? false}
        tone="sandInk"
        text="mute"
        label="Mute the clip"
        onPress={() => run(setClip, { clip: clip.id, change: { mute: !clip.mute } })}
      />
      <Tap
        icon="repeat"
        text="× 4"
        label="Repeat the clip four times"
        onPress={() =>
          run(repeatClip, {
            clip: clip.id,
            every: repeatBeats(piece, clip),
            ids: Array.from({ length: 4 }, () => newId()),
          })
        }
      />
      {continuation(piece, track.clips, clip) ? (
        <Tap text="join" label="Join with the next" onPress={() => run(joinClip, { clip: clip.id })} />
      ) : null}
      {overlapping(piece, track, clip) ? (
        <Tap text="crossfade" label="Crossfade into the next" onPress={() => run(crossfadeClip, { clip: clip.id })} />
      ) : null}
      <SnapButton />
    </Row>
  );
}

function Row({ children }: { readonly children: ReactNode }) {
  return (
    <ScrollView
      horizontal
      showsHorizontalScrollIndicator={false}
      style={styles.scroll}
      contentContainerStyle={styles.row}
    >
      {children}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  scroll: { flexGrow: 0, marginTop: 8 },
  row: { flexDirection: 'row', gap: 8 },
});
