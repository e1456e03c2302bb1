import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { pointLane } from '../../core/piece/edits/lanes';
import { channelName, channelOfTarget, findLane, isWaiting, targetKey } from '../../core/piece/find';
import type { Lane } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { Text } from '../../ui/Text';
import { targetsOf } from '../studio/targets';
import { usePiece } from '../studio/StudioProvider';

/** Says what the moves of a lane wait for, and points them at something else. */
export function Waiting({ lane }: { readonly lane: Lane }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  if (!isWaiting(piece, lane.target)) return null;
  const kind = lane.target.kind === 'awaited' ? lane.target.effectKind : null;
  const name = channelName(piece, channelOfTarget(lane.target));
  return (
    <View style={styles.row}>
      <Text variant="bodySmall" style={styles.says}>
        {kind
          ? `They wait for ${article(effectOf(kind).name)} on ${name}, and act when one comes.`
          : `They wait for this send of ${name}, and act when it is opened.`}
      </Text>
      <Button label="Point these moves elsewhere" tone="coralInk" onPress={() => setOpen(true)}>
        point elsewhere …
      </Button>
      <Sheet title="Point the moves at" visible={open} onClose={() => setOpen(false)}>
        <ScrollView style={styles.list}>
          {targetsOf(
            piece,
            channelOfTarget(lane.target),
            (target, param) => param.kind === 'number' && !findLane(piece, target),
          ).map((family) => (
            <View key={family.title}>
              <Text variant="headlineSmall">{family.title}</Text>
              {family.choices.map(({ target, param }) => (
                <Button
                  key={targetKey(target)}
                  label={`Point at ${family.title} ${param.label}`}
                  mode="text"
                  style={styles.item}
                  align="flex-start"
                  onPress={() => {
                    if (useOpenPiece.getState().run(pointLane, { lane: lane.id, to: target })) setOpen(false);
                  }}
                >
                  {param.label}
                </Button>
              ))}
            </View>
          ))}
        </ScrollView>
      </Sheet>
    </View>
  );
}

const article = (name: string): string => `${/^[AEIOU]/.test(name) ? 'an' : 'a'} ${name}`;

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
  says: { flexShrink: 1 },
  list: { maxHeight: 560 },
  item: { alignSelf: 'flex-start' },
});
