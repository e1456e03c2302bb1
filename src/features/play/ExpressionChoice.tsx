import { useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { isVisible } from '../../core/effects/visibleWhen';
import type { Slot } from '../../core/piece/piece';
import { Button } from '../../ui/Button';
import { ListItem } from '../../ui/ListItem';
import { Sheet } from '../../ui/Sheet';
import { NO_EXPRESSION, usePlayState, type NoteExpression } from './playState';

const WORDS = { velocity: 'Velocity', aftertouch: 'Aftertouch' } as const;

/** Which figures of a hold the velocity and the aftertouch of its note move. */
export function ExpressionChoice({ slot }: { readonly slot: Slot }) {
  const [open, setOpen] = useState<keyof NoteExpression | null>(null);
  const { expressions, set } = usePlayState();
  const now = expressions[slot.id] ?? NO_EXPRESSION;
  const definition = effectOf(slot.effect);
  const { params } = definition;
  const figures = Object.entries(params).filter(
    ([id, param]) =>
      param.kind === 'number' &&
      param.group !== 'Mix' &&
      isVisible(definition, id, { values: slot.values, strands: slot.strands }),
  );
  const choose = (param: string | null): void => {
    if (open) set({ expressions: { ...expressions, [slot.id]: { ...now, [open]: param } } });
    setOpen(null);
  };
  return (
    <View style={styles.row}>
      {(['velocity', 'aftertouch'] as const).map((by) => {
        const label = params[now[by] ?? '']?.label;
        return (
          <Button
            key={by}
            mode="text"
            label={`${WORDS[by]} of its note moves ${label ?? 'nothing'}`}
            onPress={() => setOpen(by)}
          >
            {`${WORDS[by]}: ${label?.toLowerCase() ?? 'none'}`}
          </Button>
        );
      })}
      <Sheet title={open ? `${WORDS[open]} moves` : ''} visible={open !== null} onClose={() => setOpen(null)}>
        <ScrollView style={styles.list}>
          <ListItem
            role="radio"
            title="Nothing"
            chosen={open !== null && now[open] === null}
            onPress={() => choose(null)}
          />
          {figures.map(([id, { label, hint }]) => (
            <ListItem
              key={id}
              role="radio"
              title={label}
              note={hint}
              chosen={open !== null && now[open] === id}
              onPress={() => choose(id)}
            />
          ))}
        </ScrollView>
      </Sheet>
    </View>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', flexWrap: 'wrap', gap: 2 }, list: { maxHeight: 520 } });
