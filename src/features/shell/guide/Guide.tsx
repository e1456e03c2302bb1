import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { formatAddress } from '../../../data/address';
import { useOpenPiece } from '../../../data/openPiece';
import { keepPreferences, usePreferences } from '../../../data/preferences';
import { useRecording } from '../../../data/recording';
import { Button } from '../../../ui/Button';
import { Text } from '../../../ui/Text';
import { useTokens } from '../../../ui/theme';
import { useAddress } from '../useAddress';
import { FIRST_STEPS_PIECE } from '../../studio/firstSteps';
import { GUIDE_STEPS, type GuideStep } from './guideSteps';
import { useLight } from './useLight';

/** The first steps, one at a time, above the transport of the demo piece; each lights up the control that it needs. */
export function Guide() {
  const step = usePreferences((preferences) => preferences.firstStep);
  const piece = useOpenPiece((state) => state.piece?.id);
  const view = useAddress()?.view;
  const shown = step === null ? undefined : GUIDE_STEPS[step];
  // Not shown in Play and on the Shelf: none of the steps is taken there.
  if (!shown || piece !== FIRST_STEPS_PIECE || view === 'play' || view === 'shelf') return null;
  return <Step key={step} index={step!} step={shown} />;
}

function Step({ index, step }: { readonly index: number; readonly step: GuideStep }) {
  const tokens = useTokens();
  const router = useRouter();
  const piece = useOpenPiece((state) => state.piece!);
  const playing = useRecording((recording) => recording.playing);
  const [entriesBefore] = useState(() => useOpenPiece.getState().entries.length);
  const isDone = step.isDone(piece, entriesBefore);
  const isLast = index === GUIDE_STEPS.length - 1;
  const hasTarget = useLight(step.target, tokens.coral);
  useEffect(() => {
    if (!isDone) return;
    keepPreferences({ firstStep: isLast ? null : index + 1 });
    if (isLast) useOpenPiece.getState().say('That is all it takes. Moves shows the lane; undo takes it away.');
  }, [isDone, isLast, index, playing]);
  const show = (): void => {
    if (step.at) router.push(formatAddress({ piece: piece.id, view: 'chain', ...step.at }));
  };
  return (
    <View
      role="region"
      aria-label="First steps"
      style={[styles.guide, { backgroundColor: tokens.coralSoft, borderColor: tokens.coral }]}
    >
      <Text style={styles.words} role="status">{`${index + 1} of ${GUIDE_STEPS.length}  ${step.text}`}</Text>
      {step.at && !hasTarget ? <Button onPress={show}>Show me</Button> : null}
      <Button mode="text" label="Leave the first steps" onPress={() => keepPreferences({ firstStep: null })}>
        Leave
      </Button>
    </View>
  );
}

const styles = StyleSheet.create({
  guide: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 6,
    borderTopWidth: 2,
    paddingLeft: 16,
    paddingRight: 8,
    paddingVertical: 4,
  },
  words: { flex: 1, minWidth: 0 },
});
