import { useMemo, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import {
  hitsByRule,
  laneFromThrows,
  type Hit,
  type HitRule,
  type ThrowSettings,
} from '../../../core/piece/moves/throws';
import { formatNumber } from '../../../core/params/format';
import { throwHits } from '../../../core/piece/edits/lanes';
import { baseValue, channelName, reaches } from '../../../core/piece/find';
import { SEND_LEVEL, type Target } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { Chip } from '../../../ui/Chip';
import { Text } from '../../../ui/Text';
import { PlayLine } from '../shell/PlayLine';
import { AddReturn } from '../sends/AddReturn';
import { usePiece } from '../../studio/StudioProvider';
import { HitStrip } from './HitStrip';
import { ThrowPads } from './ThrowPads';
import { START, ThrowShape } from './ThrowShape';
import { useHits } from './useHits';
import { newId } from '../../../data/newId';
import { tempoOf } from '../../../core/piece/tempoOf';

const RULES: readonly { readonly name: string; readonly rule: HitRule }[] = [
  { name: 'every 2nd', rule: { kind: 'every', count: 2 } },
  { name: 'every 4th', rule: { kind: 'every', count: 4 } },
  { name: 'last of 2 bars', rule: { kind: 'phrase', bars: 2 } },
  { name: 'last of 4 bars', rule: { kind: 'phrase', bars: 4 } },
  { name: 'before a gap', rule: { kind: 'gap', beats: 1.5 } },
  { name: 'the loudest tenth', rule: { kind: 'loud', share: 0.1 } },
  { name: 'the louder half', rule: { kind: 'loud', share: 0.5 } },
  { name: 'every bright one', rule: { kind: 'bright', count: 1 } },
  { name: 'every 2nd bright', rule: { kind: 'bright', count: 2 } },
];

/** Opens a send for picked hits of a track and shuts it after each; or by hand, for as long as a pad is held. */
export function ThrowSheet({ channel, onClose }: { readonly channel: string; readonly onClose: () => void }) {
  const piece = usePiece();
  const returns = useMemo(() => piece.returns.filter(({ id }) => !reaches(piece, id, channel)), [piece, channel]);
  const [wanted, setWanted] = useState<string | null>(null);
  const [way, setWay] = useState<'picked' | 'hand'>('picked');
  const to = returns.find(({ id }) => id === wanted)?.id ?? returns[0]?.id;
  return (
    <Sheet title={`Throws of ${channelName(piece, channel)}`} visible onClose={onClose}>
      <PlayLine records says="Plays on under this: throw by hand while it is recorded, or hear picked ones." />
      <ScrollView style={styles.body}>
        {to === undefined ? (
          <View style={styles.none}>
            <Text>A throw needs a return to go to: an echo, a space.</Text>
            <AddReturn />
          </View>
        ) : (
          <>
            <View role="tablist" style={styles.chips}>
              <Chip
                role="tab"
                label="Picked hits"
                chosen={way === 'picked'}
                tone="coralInk"
                onPress={() => setWay('picked')}
              >
                picked hits
              </Chip>
              <Chip role="tab" label="By hand" chosen={way === 'hand'} tone="coralInk" onPress={() => setWay('hand')}>
                by hand
              </Chip>
            </View>
            {way === 'hand' ? (
              <ThrowPads channel={channel} returns={returns} />
            ) : (
              <>
                <View role="radiogroup" aria-label="Throw into" style={styles.chips}>
                  {returns.map(({ id, name }) => (
                    <Chip
                      key={id}
                      role="radio"
                      label={`Throw into ${name}`}
                      chosen={id === to}
                      tone="sea"
                      onPress={() => setWanted(id)}
                    >
                      {name}
                    </Chip>
                  ))}
                  <AddReturn />
                </View>
                <PickedThrows key={`${channel}/${to}`} channel={channel} to={to} onDone={onClose} />
              </>
            )}
          </>
        )}
      </ScrollView>
    </Sheet>
  );
}

function PickedThrows({
  channel,
  to,
  onDone,
}: {
  readonly channel: string;
  readonly to: string;
  readonly onDone: () => void;
}) {
  const hits = useHits(channel);
  if (!hits)
    return (
      <Text variant="bodySmall" style={styles.line}>
        Looking for hits …
      </Text>
    );
  if (hits.length === 0)
    return (
      <Text variant="bodySmall" style={styles.line}>
        This channel has no clips, so there are no hits to pick. It can be thrown by hand.
      </Text>
    );
  return <Picker hits={hits} channel={channel} to={to} onDone={onDone} />;
}

function Picker({
  hits,
  channel,
  to,
  onDone,
}: {
  readonly hits: readonly Hit[];
  readonly channel: string;
  readonly to: string;
  readonly onDone: () => void;
}) {
  const piece = usePiece();
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const [settings, setSettings] = useState<ThrowSettings>(START);
  const target: Target = { kind: 'send', channel, to };
  const base = baseValue(piece, target);
  const toggle = (hit: number): void =>
    setChosen((before) => new Set(before.has(hit) ? [...before].filter((other) => other !== hit) : [...before, hit]));
  const go = (): void => {
    const lane = laneFromThrows(
      piece,
      target,
      [...chosen].map((i) => hits[i]!.beat),
      settings,
      newId(),
    );
    if (lane && useOpenPiece.getState().run(throwHits, { lane, hits: chosen.size })) onDone();
  };
  const count = `${chosen.size} ${chosen.size === 1 ? 'hit' : 'hits'}`;
  return (
    <>
      <Text variant="bodySmall" style={styles.line}>{`${hits.length} hits. Tap those to throw, or pick by rule:`}</Text>
      <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={styles.rules}>
        {RULES.map(({ name, rule }) => (
          <Button
            key={name}
            label={`Pick ${name}`}
            onPress={() => setChosen(new Set(hitsByRule(hits, rule, tempoOf(piece))))}
          >
            {name}
          </Button>
        ))}
        <Button label="Pick none" disabled={chosen.size === 0} onPress={() => setChosen(new Set())}>
          none
        </Button>
      </ScrollView>
      <HitStrip hits={hits} chosen={chosen} onToggle={toggle} />
      <ThrowShape settings={settings} onChange={setSettings} />
      {typeof base === 'number' && base > 0 ? (
        <Text variant="bodySmall">{`Between throws the send stays where it is: ${formatNumber(SEND_LEVEL, base)}.`}</Text>
      ) : null}
      <Button
        tone="coralInk"
        mode="contained"
        disabled={chosen.size === 0}
        style={styles.go}
        onPress={go}
      >{`Throw ${count}`}</Button>
    </>
  );
}

const styles = StyleSheet.create({
  body: { maxHeight: 640 },
  none: { gap: 12, alignItems: 'flex-start', paddingVertical: 12 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 6, paddingVertical: 6 },
  rules: { flexDirection: 'row', gap: 6, paddingVertical: 6 },
  line: { paddingTop: 8 },
  go: { marginTop: 8 },
});
