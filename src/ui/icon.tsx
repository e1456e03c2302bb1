import Feather from '@expo/vector-icons/Feather';
import type { ComponentProps, ReactNode } from 'react';

export type IconName = ComponentProps<typeof Feather>['name'];

/** How Paper's parts draw an icon that they are given by name. */
export const paperIcon = ({ name, size, color }: { name?: unknown; size?: number; color?: string }): ReactNode => (
  <Feather name={name as IconName} size={size} color={color} />
);
