import { StyleSheet, View } from 'react-native';
import { channelOfTarget, paramOf } from '../../core/piece/find';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { Text } from '../../ui/Text';
import { useTokens, useWide } from '../../ui/theme';
import { usePiece } from '../studio/StudioProvider';
import { laneName } from '../shared/controller/laneName';
import { addLane } from './NewLane';
import { OfferedLanes } from './OfferedLanes';

interface NoLanesProps {
  readonly channel: string;
  /** Lanes of the channel that are not in view. */
  readonly hidden: number;
  readonly armed: boolean;
  readonly onAdded: (lane: string) => void;
}

/** Shown where no lane is in view: why, and what to do about it. */
export function NoLanes({ channel, hidden, armed, onAdded }: NoLanesProps) {
  const piece = usePiece();
  const tokens = useTokens();
  const wide = useWide();
  const lanesShown = useView((view) => view.lanesShown);
  const touched = useView((view) => view.touched);
  const param =
    lanesShown === 'touched' && touched && channelOfTarget(touched) === channel ? paramOf(piece, touched) : undefined;
  const where = wide ? 'at the right' : 'in Chain';
  const way = armed ? 'Armed. Press play and drag' : 'Press moves below, then play and drag';
  const add = (): void => {
    const id = touched && param ? addLane(piece, { target: touched, param }) : null;
    if (id) onAdded(id);
  };
  const offers = hidden === 0 && !param;
  return (
    <>
      <View style={[styles.empty, { borderColor: tokens.line }]}>
        <Text variant="headlineSmall" tone="coralInk">
          {hidden > 0 ? 'No lane in view' : 'No moves here yet'}
        </Text>
        <Text variant="bodySmall" style={styles.words}>
          {param && touched
            ? `${laneName(piece, { target: touched }, param)}, touched last, has no moves.`
            : lanesShown === 'touched' && hidden > 0
              ? 'Touch a rail of this channel, and its lane stands here.'
              : hidden > 0
                ? 'None of this channel’s lanes is chosen.'
                : `${way} any rail of this channel, ${where}: what your hand does becomes a lane here. Or begin one of these by hand.`}
        </Text>
        {param ? (
          <Button label="Add a lane for the rail touched last" icon="plus" tone="coralInk" onPress={add}>
            a lane for it
          </Button>
        ) : null}
        {hidden > 0 ? (
          <Button
            label="Show all lanes with moves"
            tone="coralInk"
            onPress={() => useView.setState({ lanesShown: 'all' })}
          >{`show all ${hidden}`}</Button>
        ) : null}
      </View>
      {offers ? <OfferedLanes channel={channel} most={wide ? 5 : 4} onAdded={onAdded} /> : null}
    </>
  );
}

const styles = StyleSheet.create({
  empty: { borderWidth: 1, borderStyle: 'dashed', borderRadius: 16, padding: 24, gap: 6, alignItems: 'center' },
  words: { textAlign: 'center', maxWidth: 420 },
});
