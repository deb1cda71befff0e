import { Button } from '@mantine/core';
import { useState } from 'react';
import { backupFrom } from '@/core/formats/backup';
import { replaceDesk } from '@/store/backup';
import { EmptyState } from '../EmptyState';
import { FileButton } from '../FileButton';
import { act, say } from './act';
import { forgetDesk } from './begun';

/** A desk was in this browser and is not there any more: said before anything is written, with what there is to do. */
export function DeskGone() {
  const [fault, setFault] = useState('');
  const read = async (file: File | null) => {
    if (!file) return;
    const outcome = await backupFrom(await file.text());
    if ('fault' in outcome) return setFault(`${file.name} cannot be put back. Nothing was changed.`);
    if ((await act(replaceDesk(outcome.backup.tables).then(() => true))) === true) window.location.reload();
    else say('It could not be put back', true);
  };
  return (
    <EmptyState
      title="Your desk is not in this browser any more"
      action={
        <p>
          <FileButton accept="application/json,.json" onChange={(file) => void read(file)}>
            {(props) => (
              <Button {...props} variant="filled">
                Put a backup back
              </Button>
            )}
          </FileButton>{' '}
          <Button
            onClick={() => {
              forgetDesk();
              window.location.reload();
            }}
          >
            Begin a new desk
          </Button>
        </p>
      }
    >
      There was a desk here. The browser has cleared its storage: by itself, because the disk was full, or
      because somebody cleared its data. Nothing has been written in its place. If students sat on their own
      devices, what they handed over is still on the classroom server: put your last backup back and pair this
      browser again, and their answers come to it. {fault && <strong role="alert">{fault}</strong>}
    </EmptyState>
  );
}
