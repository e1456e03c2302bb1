import { ScrollView, StyleSheet, View } from 'react-native';
import { figure, gain } from '../../core/params/make';
import type { NumberParam } from '../../core/params/param';
import { soundSeconds } from '../../core/piece/clipEdges';
import { setClip, slipClip } from '../../core/piece/edits/clipShape';
import { contextOf } from '../../core/piece/find';
import { FADE_SHAPES, type Clip } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Rail } from '../../ui/Rail';
import { Chip } from '../../ui/Chip';
import { useWide } from '../../ui/theme';
import { usePiece } from '../studio/StudioProvider';

const LEVEL = gain({
  label: 'Clip level',
  group: 'Clip',
  hint: 'How loud this clip is, before its track’s effects.',
  initial: 1,
  max: 4,
});
const SHAPE_NAMES = { line: 'straight', power: 'equal power', soft: 'soft' } as const;

/** Milliseconds up to what the clip has room for. */
const length = (label: string, hint: string, seconds: number): NumberParam =>
  figure({
    label,
    group: 'Clip',
    hint,
    unit: 'ms',
    min: 0,
    max: Math.max(1, seconds * 1000),
    initial: 0,
    taper: { kind: 'power', exponent: 2 },
  });

/** Level, fades and start offset of a clip. */
export function ClipShape({ clip }: { readonly clip: Clip }) {
  const piece = usePiece();
  const wide = useWide();
  const { run } = useOpenPiece.getState();
  const context = contextOf(piece);
  const set = (change: Parameters<typeof setClip.apply>[1]['change']): boolean =>
    run(setClip, { clip: clip.id, change });
  const rail = (param: NumberParam, value: number, act: (value: number) => boolean) => (
    <View style={wide ? styles.half : null}>
      <Rail
        param={param}
        value={value}
        context={context}
        look="plain"
        onTouch={() => undefined}
        onSet={(next) => typeof next === 'number' && act(next)}
      />
    </View>
  );
  const fade = (side: 'In' | 'Out') => {
    const seconds = side === 'In' ? clip.fadeInSeconds : clip.fadeOutSeconds;
    const shape = (side === 'In' ? clip.fadeInShape : clip.fadeOutShape) ?? 'line';
    const param = length(
      `Fade ${side.toLowerCase()}`,
      side === 'In' ? 'How long it takes to come.' : 'How long it takes to go.',
      clip.lengthSeconds,
    );
    return (
      <View style={wide ? styles.half : null}>
        <Rail
          param={param}
          value={seconds * 1000}
          context={context}
          look="plain"
          onTouch={() => undefined}
          onSet={(ms) =>
            typeof ms === 'number' && set(side === 'In' ? { fadeInSeconds: ms / 1000 } : { fadeOutSeconds: ms / 1000 })
          }
        />
        {seconds > 0 ? (
          <View role="radiogroup" aria-label={`Shape of the fade ${side.toLowerCase()}`} style={styles.chips}>
            {FADE_SHAPES.map((one) => (
              <Chip
                key={one}
                role="radio"
                label={`Fade ${side.toLowerCase()}: ${SHAPE_NAMES[one]}`}
                chosen={one === shape}
                tone="sandInk"
                onPress={() => set(side === 'In' ? { fadeInShape: one } : { fadeOutShape: one })}
              >
                {SHAPE_NAMES[one]}
              </Chip>
            ))}
          </View>
        ) : null}
      </View>
    );
  };
  const spare = soundSeconds(piece, clip) - clip.lengthSeconds;
  return (
    <ScrollView style={wide ? styles.bodyWide : styles.body} contentContainerStyle={wide ? styles.wide : null}>
      {rail(LEVEL, clip.gain, (value) => set({ gain: value }))}
      {fade('In')}
      {fade('Out')}
      {spare > 0.001
        ? rail(
            {
              ...length('Slip', 'Where in its sound the clip begins; it stays where it is.', spare),
              taper: { kind: 'linear' },
            },
            clip.offsetSeconds * 1000,
            (ms) => run(slipClip, { clip: clip.id, offsetSeconds: ms / 1000 }),
          )
        : null}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 232, flexGrow: 0 },
  bodyWide: { maxHeight: 300, flexGrow: 0 },
  wide: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 24 },
  half: { width: '47%' },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 6, marginBottom: 4 },
});
