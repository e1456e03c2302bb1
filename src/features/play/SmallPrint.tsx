import { StyleSheet } from 'react-native';
import { LiveText } from '../../ui/LiveText';
import { useTokens } from '../../ui/theme';
import { useStudio } from '../studio/StudioProvider';

/** Delay from a touch to the engine, and the output latency of the browser. */
export function SmallPrint() {
  const tokens = useTokens();
  const { studio } = useStudio();
  const read = (): string => {
    const { player } = studio;
    const { latencySeconds } = player;
    const late = latencySeconds > 0 ? `output ${Math.round(1000 * latencySeconds)} ms later` : 'output silent yet';
    const [usual, worst] = [player.reactionBlocks(0.5), player.reactionBlocks(0.99)];
    return usual === null || worst === null
      ? late
      : `hand to engine ${usual.toFixed(1)} blocks, ${worst.toFixed(1)} at worst, ${late}`;
  };
  return <LiveText read={read} style={[styles.print, { color: tokens.mute }]} />;
}

const styles = StyleSheet.create({ print: { fontSize: 15 } });
