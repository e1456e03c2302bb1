import { StyleSheet, View } from 'react-native';
import Svg, { Circle, Path } from 'react-native-svg';
import type { ThrowSettings } from '../../../core/piece/moves/throws';
import { time } from '../../../core/params/make';
import type { ParamValue } from '../../../core/params/param';
import { beatsToMs, paramPosition, toEngineNumber } from '../../../core/params/resolve';
import { contextOf } from '../../../core/piece/find';
import { SEND_LEVEL } from '../../../core/piece/piece';
import { Rail } from '../../../ui/Rail';
import { Chip } from '../../../ui/Chip';
import { useTokens } from '../../../ui/theme';
import { usePiece } from '../../studio/StudioProvider';

/** Opens a 64th before the hit, so that its attack is included, and closes an eighth after. */
export const START: ThrowSettings = { leadBeats: 1 / 16, lengthBeats: 0.5, amount: 1, shape: 'open' };

const SHAPES = [
  ['open', 'open, shut'],
  ['swell', 'swell'],
  ['fall', 'fall'],
] as const;
const LEAD = time({
  label: 'Opens before',
  group: 'Throw',
  hint: 'How long before the hit the send opens.',
  min: 0.1,
  max: 1000,
});
const LENGTH = time({
  label: 'Shuts after',
  group: 'Throw',
  hint: 'How long after the hit the send shuts.',
  min: 5,
  max: 8000,
});
const AMOUNT = { ...SEND_LEVEL, label: 'Send while open', hint: 'How much goes to the return while it is open.' };

interface ThrowShapeProps {
  readonly settings: ThrowSettings;
  readonly onChange: (settings: ThrowSettings) => void;
}

/** Settings of the throws: times of opening and closing, level, shape. */
export function ThrowShape({ settings, onChange }: ThrowShapeProps) {
  const piece = usePiece();
  const context = contextOf(piece);
  const inBeats = (param: typeof LEAD, value: ParamValue): number =>
    toEngineNumber(param, value, context) / beatsToMs(1, context);
  const ms = (beats: number): number => beatsToMs(beats, context);
  return (
    <View>
      <View role="radiogroup" aria-label="Shape of a throw" style={styles.shapes}>
        {SHAPES.map(([id, name]) => (
          <Chip
            key={id}
            role="radio"
            label={`Shape: ${name}`}
            chosen={settings.shape === id}
            tone="coralInk"
            onPress={() => onChange({ ...settings, shape: id })}
          >
            {name}
          </Chip>
        ))}
        <Drawing settings={settings} />
      </View>
      <Rail
        param={LEAD}
        value={ms(settings.leadBeats)}
        context={context}
        look="plain"
        onTouch={() => undefined}
        onSet={(value) => onChange({ ...settings, leadBeats: inBeats(LEAD, value) })}
      />
      <Rail
        param={LENGTH}
        value={ms(settings.lengthBeats)}
        context={context}
        look="plain"
        onTouch={() => undefined}
        onSet={(value) => onChange({ ...settings, lengthBeats: inBeats(LENGTH, value) })}
      />
      <Rail
        param={AMOUNT}
        value={settings.amount}
        context={context}
        onTouch={() => undefined}
        onSet={(value) => onChange({ ...settings, amount: toEngineNumber(AMOUNT, value, context) })}
      />
    </View>
  );
}

const WIDE = 110;
const HIGH = 40;

/** One throw drawn: the hit as a sand stone, the send as a coral line. */
function Drawing({ settings: { leadBeats, lengthBeats, amount, shape } }: { readonly settings: ThrowSettings }) {
  const tokens = useTokens();
  const span = leadBeats + lengthBeats;
  const from = 12;
  const to = WIDE - 12;
  const hit = from + ((to - from) * leadBeats) / span;
  const y = HIGH - 4 - paramPosition(SEND_LEVEL, amount) * (HIGH - 10);
  const foot = HIGH - 4;
  const path = `M0 ${foot}H${from}L${from} ${shape === 'swell' ? foot : y}L${to} ${shape === 'fall' ? foot : y}L${to} ${foot}H${WIDE}`;
  return (
    <View role="img" aria-label="One throw" style={styles.drawing}>
      <Svg width={WIDE} height={HIGH}>
        <Path d={path} stroke={tokens.coral} strokeWidth={2} fill="none" strokeLinejoin="round" />
        <Circle cx={hit} cy={foot - 3} r={5} fill={tokens.sand} />
      </Svg>
    </View>
  );
}

const styles = StyleSheet.create({
  shapes: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 6, paddingTop: 10 },
  drawing: { marginLeft: 'auto' },
});
