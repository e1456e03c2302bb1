import { Button } from '../../../ui/Button';
import { chooseFiles } from '../../studio/localFiles';
import { useImports } from '../../studio/imports';
import { SOUND_FILES } from '../../studio/soundFiles';

/** Takes sound files of the user's, each as a clip on a new track. */
export function ImportButton() {
  return (
    <Button icon="file-plus" mode="text" onPress={() => chooseFiles(SOUND_FILES, useImports.getState().add)}>
      Add sounds
    </Button>
  );
}
