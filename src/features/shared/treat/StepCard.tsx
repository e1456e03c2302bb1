import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Card } from 'react-native-paper';
import { effectOf } from '../../../core/effects/catalogue';
import { figure, gain } from '../../../core/params/make';
import type { NumberParam, ValueContext } from '../../../core/params/param';
import { sayStep } from '../../../core/piece/edits/treat';
import type { Slot, TreatStep } from '../../../core/piece/piece';
import { AnyRail } from '../../../ui/AnyRail';
import { Button } from '../../../ui/Button';
import { Chip } from '../../../ui/Chip';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { Touchable } from '../../../ui/Touchable';
import { useTokens } from '../../../ui/theme';
import { isVisible } from '../../../core/effects/visibleWhen';

const TIMES = gain({
  label: 'Length',
  group: 'Length',
  hint: 'New length against the old.',
  unit: 'ratio',
  min: 0.25,
  max: 4,
  initial: 1,
  notches: [0.5, 1, 2],
  taper: { kind: 'log' },
});
const SEMITONES = figure({
  label: 'Pitch',
  group: 'Pitch',
  hint: 'Up or down, in steps of the keyboard.',
  unit: 'semitones',
  min: -24,
  max: 24,
  initial: 0,
  notches: [-12, -7, -5, 0, 5, 7, 12],
});
const FORMANT_SHIFT = figure({
  label: 'Formants',
  group: 'Pitch',
  hint: 'Moves the throat of a voice alone.',
  unit: 'semitones',
  min: -12,
  max: 12,
  initial: 0,
  notches: [0],
});

interface StepCardProps {
  readonly step: TreatStep;
  readonly place: number;
  readonly last: boolean;
  readonly context: ValueContext;
  /** Length of the part that the steps begin with, and of a bar, in seconds. */
  readonly partSeconds: number;
  readonly barSeconds: number;
  readonly onChange: (step: TreatStep) => void;
  readonly onMove: (by: -1 | 1) => void;
  readonly onRemove: () => void;
}

/** One step: switch, order, rails, remove. */
export function StepCard(props: StepCardProps) {
  const { step, place, last, onChange, onMove, onRemove } = props;
  const tokens = useTokens();
  const [open, setOpen] = useState(place === 0 && last);
  const name = sayStep(step);
  return (
    <Card
      mode="outlined"
      role="group"
      aria-label={`Step ${place + 1}: ${name}`}
      style={[styles.card, { backgroundColor: tokens.paper }]}
      contentStyle={styles.within}
    >
      <View style={styles.row}>
        <Touchable
          label={`${open ? 'Fold' : 'Unfold'} step ${place + 1}`}
          style={styles.name}
          onPress={() => setOpen(!open)}
        >
          <Text variant="titleSmall" numberOfLines={1} tone={step.on ? 'ink' : 'mute'}>{`${place + 1}  ${name}`}</Text>
        </Touchable>
        <IconButton
          role="switch"
          icon="power"
          label={`Step ${place + 1} on`}
          chosen={step.on}
          tone={step.on ? 'sea' : 'mute'}
          onPress={() => onChange({ ...step, on: !step.on })}
        />
        <IconButton
          icon="arrow-up"
          label={`Step ${place + 1} earlier`}
          disabled={place === 0}
          onPress={() => onMove(-1)}
        />
        <IconButton icon="arrow-down" label={`Step ${place + 1} later`} disabled={last} onPress={() => onMove(1)} />
        <IconButton icon="trash-2" label={`Take step ${place + 1} off`} tone="mute" onPress={onRemove} />
      </View>
      {open ? (
        step.kind === 'stretch' ? (
          <StretchRails {...props} step={step} />
        ) : (
          <ChainRails {...props} step={step} />
        )
      ) : null}
    </Card>
  );
}

type Of<Kind extends TreatStep['kind']> = StepCardProps & { readonly step: Extract<TreatStep, { kind: Kind }> };

function StretchRails({ step, context, partSeconds, barSeconds, onChange }: Of<'stretch'>) {
  const rail = (param: NumberParam, value: number, set: (value: number) => TreatStep) => (
    <AnyRail
      param={param}
      value={value}
      context={context}
      onSet={(next) => typeof next === 'number' && onChange(set(next))}
    />
  );
  const bars = [0.5, 1, 2, 4, 8].filter(
    (count) => (count * barSeconds) / partSeconds >= 0.25 && (count * barSeconds) / partSeconds <= 4,
  );
  return (
    <View>
      {rail(TIMES, step.times, (times) => ({ ...step, times }))}
      <View role="group" aria-label="Length in bars" style={styles.chips}>
        {bars.map((count) => (
          <Chip
            key={count}
            role="radio"
            label={`As long as ${count} ${count <= 1 ? 'bar' : 'bars'}`}
            chosen={Math.abs(step.times * partSeconds - count * barSeconds) < 1e-3}
            tone="sea"
            onPress={() => onChange({ ...step, times: (count * barSeconds) / partSeconds })}
          >{`= ${count} ${count <= 1 ? 'bar' : 'bars'}`}</Chip>
        ))}
        <Chip
          role="switch"
          label="Pitch goes with the length"
          chosen={!step.keepPitch}
          tone="sea"
          onPress={() => onChange({ ...step, keepPitch: !step.keepPitch })}
        >
          pitch goes along, as on tape
        </Chip>
      </View>
      {step.keepPitch ? (
        <>
          {rail(SEMITONES, step.semitones, (semitones) => ({ ...step, semitones }))}
          {rail(FORMANT_SHIFT, step.formantSemitones, (formantSemitones) => ({ ...step, formantSemitones }))}
          <Chip
            role="switch"
            label="Formants kept"
            chosen={step.formants === 'keep'}
            tone="sea"
            style={styles.start}
            onPress={() => onChange({ ...step, formants: step.formants === 'keep' ? 'follow' : 'keep' })}
          >
            {step.formants === 'keep' ? 'formants kept' : 'formants go along'}
          </Chip>
        </>
      ) : null}
    </View>
  );
}

function ChainRails({ step, context, onChange }: Of<'chain'>) {
  const setSlot = (slot: Slot): void =>
    onChange({ ...step, chain: step.chain.map((other) => (other.id === slot.id ? slot : other)) });
  return (
    <View>
      <Chip
        role="switch"
        label="Keep what rings on"
        chosen={step.rings}
        tone="sea"
        style={styles.start}
        onPress={() => onChange({ ...step, rings: !step.rings })}
      >
        {step.rings ? 'rings on past its end' : 'cut at its end'}
      </Chip>
      {step.chain.map((slot) => (
        <SlotRails key={slot.id} slot={slot} context={context} onSlot={setSlot} />
      ))}
    </View>
  );
}

/** The rails of one effect within a step, those that name it first; the rest unfold. */
function SlotRails({
  slot,
  context,
  onSlot,
}: {
  readonly slot: Slot;
  readonly context: ValueContext;
  readonly onSlot: (slot: Slot) => void;
}) {
  const [all, setAll] = useState(false);
  const definition = effectOf(slot.effect);
  const { name, params, headline } = definition;
  const shown = Object.entries(params).filter(
    ([id]) => isVisible(definition, id, slot) && (all || headline.includes(id) || id === 'mix'),
  );
  return (
    <View role="group" aria-label={name}>
      <View style={styles.row}>
        <Text variant="headlineSmall" style={styles.name}>
          {name}
        </Text>
        <Button label={`${all ? 'Fewer' : 'All'} rails of ${name}`} mode="text" onPress={() => setAll(!all)}>
          {all ? 'fewer' : 'all rails'}
        </Button>
      </View>
      {shown.map(([id, param]) => (
        <AnyRail
          key={id}
          param={param}
          value={slot.values[id] ?? param.initial}
          context={context}
          onSet={(value) => onSlot({ ...slot, values: { ...slot.values, [id]: value } })}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  card: { borderRadius: 14, marginBottom: 8 },
  within: { paddingHorizontal: 10, paddingVertical: 4 },
  row: { flexDirection: 'row', alignItems: 'center' },
  name: { flex: 1, minWidth: 0, alignItems: 'flex-start', paddingHorizontal: 0 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 6, marginVertical: 4 },
  start: { alignSelf: 'flex-start', marginVertical: 4 },
});
