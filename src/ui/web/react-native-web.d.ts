declare module 'react-native-web/dist/exports/Pressable/index.js' {
  import type { ForwardRefExoticComponent, RefAttributes } from 'react';
  import type { PressableProps, View } from 'react-native';

  const Pressable: ForwardRefExoticComponent<PressableProps & RefAttributes<View>>;
  export default Pressable;
}
