import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import * as z from 'zod';
import { Button } from '../../../ui/Button';
import { ListItem } from '../../../ui/ListItem';
import { Text } from '../../../ui/Text';

const aboutSchema = z.object({
  version: z.string(),
  packages: z.array(z.object({ name: z.string(), version: z.string(), licence: z.string(), text: z.string() })),
});

/** Made by `scripts/licences.mjs` when the client is built. */
async function readAbout(): Promise<z.infer<typeof aboutSchema>> {
  const answer = await fetch('/licences.json');
  if (!answer.ok) throw new Error('The list of licences could not be fetched: the server is away.');
  return aboutSchema.parse(await answer.json());
}

/** The version, and the licences of what ships with it. */
export function AboutSettings() {
  const about = useQuery({ queryKey: ['about'], queryFn: readAbout, staleTime: Infinity });
  const [open, setOpen] = useState(false);
  const [shown, setShown] = useState<string | null>(null);
  return (
    <View role="group" aria-label="About" style={styles.block}>
      <Text variant="headlineSmall">About</Text>
      <Text>{`Zephiro${about.data ? ` ${about.data.version}` : ''}`}</Text>
      <Text variant="bodySmall">
        Everything runs on your own machine: no account, nothing is sent anywhere. Demo sounds are synthesised by its
        own code.
      </Text>
      {about.isError ? (
        <Text variant="bodySmall" tone="danger" role="alert">
          {about.error.message}
        </Text>
      ) : null}
      <Button
        icon={open ? 'chevron-up' : 'chevron-down'}
        disabled={!about.data}
        style={styles.start}
        onPress={() => setOpen(!open)}
      >
        Licences of what ships with it
      </Button>
      {open
        ? about.data?.packages.map(({ name, version, licence, text }) => (
            <View key={`${name} ${version}`}>
              <ListItem
                title={name}
                note={`${version} · ${licence}`}
                onPress={() => setShown(shown === name ? null : name)}
              />
              {shown === name ? (
                <Text variant="bodySmall">{text || 'Its package holds no text of its own.'}</Text>
              ) : null}
            </View>
          ))
        : null}
    </View>
  );
}

const styles = StyleSheet.create({ block: { gap: 6, marginTop: 18 }, start: { alignSelf: 'flex-start' } });
