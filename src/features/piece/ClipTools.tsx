import type { ReactNode } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
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
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { SnapButton } from '../shared/time/SnapButton';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { newId } from '../../data/newId';
import { barsBetween, barsLater } from '../../core/music/grid';

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
  const tempo = tempoOf(piece);
  const bars = Math.max(1, Math.ceil(barsBetween(clip.start, clipEnd(piece, clip), tempo) - 1e-6));
  return barsLater(clip.start, bars, tempo) - clip.start;
}

/** What is done to the chosen clip: cut at the playhead, joined, reversed, muted, repeated, crossfaded. */
export function ClipTools({ clip, track, shaping, onPrint, onShape, onSwell, onTreat, onMake }: ClipToolsProps) {
  const piece = usePiece();
  const { studio } = useStudio();
  const { run, say } = useOpenPiece.getState();
  // The playhead is on a whole sample; a cut on a beat shall be on the beat exactly.
  const here = (): number => Math.round(studio.beat * 1e4) / 1e4;
  const inside = (beat: number): boolean => beat > clip.start && beat < clipEnd(piece, clip);
  const atPlayhead = (act: (beat: number) => boolean): void => {
    const beat = here();
    if (inside(beat)) act(beat);
    else say('Put the playhead inside the clip first: tap the ruler above it.');
  };
  return (
    <Row>
      <Button label="Print" tone="plum" mode="contained" onPress={onPrint}>
        Print …
      </Button>
      <Chip role="switch" label="Level, fades and slip" chosen={shaping} tone="sandInk" onPress={onShape}>
        level, fades
      </Chip>
      <Button label="Treat this clip …" tone="plum" onPress={onTreat}>
        {clip.treated ? `Treat · ${clip.treated.steps.length}` : 'Treat …'}
      </Button>
      <Button label="Recipes for this" tone="plum" onPress={onMake}>
        Make …
      </Button>
      <Button label="Swells into hits of this track" tone="plum" onPress={onSwell}>
        Swell …
      </Button>
      <Button
        label="Split at the playhead"
        icon="scissors"
        onPress={() => atPlayhead((beat) => run(splitClip, { clip: clip.id, beat, id: newId() }))}
      >
        split
      </Button>
      <Button
        label="Trim the start to the playhead"
        onPress={() => atPlayhead((beat) => run(trimClip, { clip: clip.id, side: 'start', beat }))}
      >
        ⇤ from here
      </Button>
      <Button
        label="Trim the end to the playhead"
        onPress={() => atPlayhead((beat) => run(trimClip, { clip: clip.id, side: 'end', beat }))}
      >
        to here ⇥
      </Button>
      <Chip
        role="switch"
        label="Reversed"
        chosen={clip.reversed ?? false}
        tone="sandInk"
        onPress={() => run(setClip, { clip: clip.id, change: { reversed: !clip.reversed } })}
      >
        reverse
      </Chip>
      <Chip
        role="switch"
        label="Mute the clip"
        chosen={clip.mute ?? false}
        tone="sandInk"
        onPress={() => run(setClip, { clip: clip.id, change: { mute: !clip.mute } })}
      >
        mute
      </Chip>
      <Button
        label="Repeat the clip four times"
        icon="repeat"
        onPress={() =>
          run(repeatClip, {
            clip: clip.id,
            every: repeatBeats(piece, clip),
            ids: Array.from({ length: 4 }, () => newId()),
          })
        }
      >
        × 4
      </Button>
      {continuation(piece, track.clips, clip) ? (
        <Button label="Join with the next" onPress={() => run(joinClip, { clip: clip.id })}>
          join
        </Button>
      ) : null}
      {overlapping(piece, track, clip) ? (
        <Button label="Crossfade into the next" onPress={() => run(crossfadeClip, { clip: clip.id })}>
          crossfade
        </Button>
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
