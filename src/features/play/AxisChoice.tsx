import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { fromEngineNumber, paramAtPosition, paramPosition, toEngineNumber } from '../../core/params/resolve';
import { channelIds, channelName, channelOfTarget, contextOf, paramOf, targetKey } from '../../core/piece/find';
import type { FieldAxis } from '../../core/piece/playField';
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { ChipGroup } from '../../ui/ChipGroup';
import { Rail } from '../../ui/Rail';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { ControllerButton } from '../shared/controller/ControllerButton';
import { targetsOf } from '../studio/targets';
import { usePiece } from '../studio/StudioProvider';
import { labelOf, ownerOf } from './fieldText';

interface AxisChoiceProps {
  readonly name: 'Across' | 'Up';
  readonly axis: FieldAxis;
  readonly onChange: (axis: FieldAxis) => void;
}

const ENDS = { Across: ['Left', 'Right'], Up: ['Bottom', 'Top'] } as const;

/** What one direction of a field moves, and over which part of its rail; the ends may be the other way round. */
export function AxisChoice({ name, axis, onChange }: AxisChoiceProps) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const [first, last] = ENDS[name];
  const param = paramOf(piece, axis.target);
  const end = (edge: string, side: 'from' | 'to') =>
    param?.kind === 'number' ? (
      <Rail
        param={{ ...param, label: `${edge} edge` }}
        value={fromEngineNumber(param, paramAtPosition(param, axis[side]))}
        context={contextOf(piece)}
        onTouch={() => undefined}
        onSet={(value) =>
          onChange({ ...axis, [side]: paramPosition(param, toEngineNumber(param, value, contextOf(piece))) })
        }
      />
    ) : null;
  return (
    <View role="group" aria-label={name} style={styles.axis}>
      <View style={styles.head}>
        <View style={styles.what}>
          <Text variant="titleSmall">{`${name}: ${labelOf(piece, axis.target)}`}</Text>
          <Text variant="bodySmall">{ownerOf(piece, axis.target)}</Text>
        </View>
        <ControllerButton channel={channelOfTarget(axis.target)} target={axis.target} before={name} />
        <Button label={`${name}: choose another parameter`} onPress={() => setOpen(true)}>
          Another
        </Button>
      </View>
      {end(first, 'from')}
      {end(last, 'to')}
      <TargetSheet
        title={`${name} moves`}
        open={open}
        from={channelOfTarget(axis.target)}
        onClose={() => setOpen(false)}
        onChoose={(target) => onChange({ target, from: 0, to: 1 })}
      />
    </View>
  );
}

interface TargetSheetProps {
  readonly title: string;
  readonly open: boolean;
  /** The channel that is in view first. */
  readonly from: string;
  readonly onClose: () => void;
  readonly onChoose: (target: FieldAxis['target']) => void;
}

/** Any parameter of the piece that is a figure. */
function TargetSheet({ title, open, from, onClose, onChoose }: TargetSheetProps) {
  const piece = usePiece();
  const [channel, setChannel] = useState(from);
  return (
    <Sheet title={title} visible={open} onClose={onClose}>
      <ScrollView style={styles.list}>
        <ChipGroup name="Channel" role="radiogroup">
          {channelIds(piece).map((id) => (
            <Chip key={id} role="radio" chosen={id === channel} onPress={() => setChannel(id)}>
              {channelName(piece, id)}
            </Chip>
          ))}
        </ChipGroup>
        {targetsOf(
          piece,
          channel,
          (target) => target.kind !== 'tempo' && paramOf(piece, target)?.kind === 'number',
        ).map((family) => (
          <View key={family.title}>
            <Text variant="headlineSmall">{family.title}</Text>
            {family.choices.map(({ target, param }) => (
              <Touchable
                key={targetKey(target)}
                label={`${param.label} of ${family.title}`}
                style={styles.item}
                onPress={() => {
                  onChoose(target);
                  onClose();
                }}
              >
                <Text>{param.label}</Text>
              </Touchable>
            ))}
          </View>
        ))}
      </ScrollView>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  axis: { marginTop: 14 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  what: { flex: 1 },
  list: { maxHeight: 560 },
  item: { alignItems: 'flex-start', paddingHorizontal: 0 },
});
