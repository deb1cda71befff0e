import { faultWords } from '@/words/faults';
import { Button, Checkbox, TextInput } from '@mantine/core';
import { FileButton } from '@/ui/FileButton';
import type { PictureRef } from '@/core/basics/file';
import { say } from './act';
import { useFiles, type Files } from '../ui/files';
import { pictureFile } from '../ui/pictureFile';

/** Keeps a chosen, pasted or dropped picture, and tells how it stands in a text: without words yet. */
export async function takePicture(file: File, put: Files['put']): Promise<PictureRef | null> {
  try {
    const { width, height, ...bytes } = await pictureFile(file);
    const { id } = await put(bytes);
    return { asset: id, alt: '', decoration: false, width, height };
  } catch (error) {
    say(faultWords(error, 'This picture couldn’t be read.'), true);
    return null;
  }
}

/** The button that chooses a picture. */
export function ChoosePicture({ label, taken }: { label: string; taken: (picture: PictureRef) => void }) {
  const { put } = useFiles();
  return (
    <FileButton
      accept="image/*"
      inputProps={{ 'aria-label': label }}
      onChange={(file) => void (file && takePicture(file, put).then((picture) => picture && taken(picture)))}
    >
      {(button) => (
        <Button {...button} size="compact-sm">
          {label}
        </Button>
      )}
    </FileButton>
  );
}

interface PictureWordsProps {
  picture: Pick<PictureRef, 'alt' | 'decoration'>;
  change: (words: Pick<PictureRef, 'alt' | 'decoration'>) => void;
}

/** What a picture says to who cannot see it; asked for unless it is decoration only. */
export function PictureWords({ picture: { alt, decoration }, change }: PictureWordsProps) {
  return (
    <>
      <TextInput
        size="xs"
        label="Describe the picture for students who can’t see it"
        value={alt}
        disabled={decoration}
        required={!decoration}
        error={!decoration && !alt.trim() ? 'The paper can’t be given out without this description' : null}
        onChange={(event) => change({ alt: event.currentTarget.value, decoration })}
      />
      <Checkbox
        size="sm"
        label="decoration only"
        checked={decoration}
        onChange={(event) => change({ alt, decoration: event.currentTarget.checked })}
      />
    </>
  );
}
