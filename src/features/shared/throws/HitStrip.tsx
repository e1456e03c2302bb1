import { ScrollView, StyleSheet, View } from 'react-native';
import { exactBarBeat, toBarBeat } from '../../../core/music/grid';
import { tempoOf } from '../../../core/piece/tempoOf';
import type { Hit } from '../../../core/piece/moves/throws';
import { Text } from '../../../ui/Text';
import { Touchable } from '../../../ui/Touchable';
import { useTokens } from '../../../ui/theme';
import { usePiece } from '../../studio/StudioProvider';

const TALLEST = 46;

interface HitStripProps {
  readonly hits: readonly Hit[];
  readonly chosen: ReadonlySet<number>;
  /** Action on a picked hit. */
  readonly verb?: string;
  readonly onToggle: (hit: number) => void;
}

/** Position of a hit for display: slightly early or late ones are rounded to the beat. */
const shownBeat = (beat: number): number => {
  const near = Math.round(beat);
  return Math.abs(beat - near) < 0.05 ? near : Math.round(beat * 100) / 100;
};

/** All hits as bars as tall as they are loud; picked ones are coral with a mark. */
export function HitStrip({ hits, chosen, verb = 'Throw', onToggle }: HitStripProps) {
  const piece = usePiece();
  const tempo = tempoOf(piece);
  const tokens = useTokens();
  return (
    <ScrollView horizontal style={[styles.strip, { backgroundColor: tokens.paper, borderColor: tokens.line }]}>
      {hits.map((hit, i) => {
        const on = chosen.has(i);
        const at = shownBeat(hit.beat);
        const { bar, beat: exact } = exactBarBeat(at, tempo);
        const beat = Math.floor(exact + 1e-4);
        const within = exact - beat;
        const place = `${bar}.${beat}${within > 0.001 ? `+${within.toFixed(2).slice(1)}` : ''}`;
        const newBar = i === 0 || toBarBeat(shownBeat(hits[i - 1]!.beat), tempo).bar !== bar;
        return (
          <Touchable
            key={i}
            role="switch"
            label={`${verb} the hit at bar ${bar}, beat ${exact.toFixed(2)}, ${Math.round(hit.strength * 100)} % loud`}
            chosen={on}
            style={[
              styles.hit,
              newBar && { borderLeftWidth: 1, borderColor: tokens.line },
              on && { backgroundColor: tokens.coralSoft },
            ]}
            onPress={() => onToggle(i)}
          >
            <View style={styles.column}>
              <Text variant="bodySmall" tone="coralInk" style={styles.mark}>
                {on ? '∿' : ' '}
              </Text>
              <View style={styles.posts}>
                <View
                  style={[
                    styles.post,
                    { height: Math.max(4, hit.strength * TALLEST), backgroundColor: on ? tokens.coral : tokens.sand },
                  ]}
                />
              </View>
              <Text variant="bodySmall" tone={on ? 'coralInk' : 'mute'} style={styles.place}>
                {place}
              </Text>
            </View>
          </Touchable>
        );
      })}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  strip: { borderWidth: 1, borderRadius: 12, flexGrow: 0 },
  hit: { minWidth: 50, paddingHorizontal: 2, borderRadius: 0, justifyContent: 'flex-end', paddingVertical: 6 },
  column: { alignItems: 'center' },
  mark: { height: 18 },
  posts: { height: TALLEST, justifyContent: 'flex-end' },
  post: { width: 8, borderRadius: 4 },
  place: { fontSize: 11, marginTop: 4 },
});
