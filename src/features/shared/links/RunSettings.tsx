import { StyleSheet, View } from 'react-native';
import { MAX_RUN_STEPS, modulatorParams, type Run } from '../../../core/automation/modulator';
import { setModulator } from '../../../core/piece/edits/links';
import { runsOf, setRuns } from '../../../core/piece/edits/runs';
import { useOpenPiece } from '../../../data/openPiece';
import { Button } from '../../../ui/Button';
import { Chip } from '../../../ui/Chip';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { OwnRail, type ModulatorSettingsProps } from './OwnRail';
import { StepRow } from './StepRow';

const anyRoll = (): number => Math.floor(1000 * Math.random());

/** The steps of a run, with the one that sounds. */
export function RunSteps({ modulator }: { readonly modulator: Run }) {
  const piece = usePiece();
  const { studio } = useStudio();
  const { id, steps, off } = modulator;
  const index = piece.modulators.findIndex((one) => one.id === id);
  const change = (part: Partial<Pick<Run, 'steps' | 'off'>>): void =>
    void useOpenPiece.getState().run(setModulator, { modulator: id, change: part });
  return (
    <StepRow
      noun="step"
      steps={steps}
      min={1}
      max={MAX_RUN_STEPS}
      off={off}
      sounding={() => studio.player.meters.runStep(index)}
      onChange={(next) => change({ steps: [...next], off: off.filter((step) => step < next.length) })}
      onSwitch={(step) =>
        change({
          off: off.includes(step) ? off.filter((other) => other !== step) : [...off, step].sort((a, b) => a - b),
        })
      }
    />
  );
}

/** Rate of a run, whether it repeats, and its chance; and actions on all runs of its hold. */
export function RunSettings({ modulator, change }: ModulatorSettingsProps<Run>) {
  const piece = usePiece();
  const { name, on, once, rate, glide, chance, roll, hold, sharesLength = false } = modulator;
  const others = hold === undefined ? [] : runsOf(piece, hold);
  const all = (args: { readonly on?: boolean; readonly roll?: number }): void =>
    void useOpenPiece.getState().run(setRuns, { hold: hold ?? '', ...args });
  const anyOn = others.some((run) => run.on);
  return (
    <>
      <OwnRail param={modulatorParams.rate} value={rate} onSet={(next) => change({ rate: next })} />
      <OwnRail param={modulatorParams.glide} value={glide} onSet={(next) => change({ glide: next })} />
      <OwnRail param={modulatorParams.chance} value={chance} onSet={(next) => change({ chance: next })} />
      {chance < 1 ? (
        <OwnRail param={modulatorParams.roll} value={roll} onSet={(next) => change({ roll: Math.round(next) })} />
      ) : null}
      <View style={styles.chips}>
        <Chip role="switch" label={`${name} is on`} chosen={on} tone="coralInk" onPress={() => change({ on: !on })}>
          {on ? 'on' : 'off'}
        </Chip>
        <Chip
          role="switch"
          label={`${name} runs once`}
          chosen={once}
          tone="coralInk"
          onPress={() => change({ once: !once })}
        >
          {once ? 'once' : 'again and again'}
        </Chip>
        {others.length > 1 ? (
          <Chip
            role="switch"
            label={`${name} has the length and rate of the other runs`}
            chosen={sharesLength}
            tone="coralInk"
            onPress={() => change({ sharesLength: !sharesLength })}
          >
            {sharesLength ? 'same length' : 'its own length'}
          </Chip>
        ) : null}
        {chance < 1 ? (
          <Button label={`Randomise ${name}`} icon="shuffle" onPress={() => change({ roll: anyRoll() })}>
            roll
          </Button>
        ) : null}
        {others.length > 1 ? (
          <>
            <Button label={`All runs of this hold ${anyOn ? 'off' : 'on'}`} onPress={() => all({ on: !anyOn })}>
              {anyOn ? 'all off' : 'all on'}
            </Button>
            <Button label="Randomise all runs of this hold" icon="shuffle" onPress={() => all({ roll: anyRoll() })}>
              roll all
            </Button>
          </>
        ) : null}
      </View>
    </>
  );
}

const styles = StyleSheet.create({
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 6, paddingTop: 4, alignItems: 'center' },
});
