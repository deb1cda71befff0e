import { Button } from '@mantine/core';
import { serverConnection } from '@/sync/serverConnection';
import { pairDesk } from '@/sync/mailboxSync';
import { EmptyState } from '../ui/EmptyState';
import { forgetDesk } from './begun';
import { PutBack } from './PutBack';
import { allowFolder } from './useCopies';
import { useCopyPlaces } from './useCopyPlaces';
import { act } from './act';

/** A desk was in this browser and is not there any more: said before anything is written, with what there is to do. */
export function DeskGone() {
  const places = useCopyPlaces();
  const folder = places?.folder ?? null;
  return (
    <EmptyState
      title="Your desk is no longer in this browser"
      action={
        <>
          <PutBack
            first
            offer={(_found, put, _leave, source) =>
              void put().then(async (done) => {
                if (!done) return;
                // What students handed over meanwhile comes to it.
                if (!(source instanceof File)) await act(pairDesk(serverConnection(), source.secret));
                window.location.reload();
              })
            }
          >
            {(copies) =>
              folder &&
              !copies.some(({ place }) => place === 'folder') && (
                <Button onClick={() => void act(allowFolder(folder))}>
                  Look in the folder {folder.handle.name}
                </Button>
              )
            }
          </PutBack>
          <Button
            onClick={() => {
              forgetDesk();
              window.location.reload();
            }}
          >
            Start a new desk
          </Button>
        </>
      }
    >
      There was a desk here. The browser has cleared its storage: by itself, because the disk was full, or
      because somebody cleared its data. Nothing has been written in its place. If students sat on their own
      devices, what they handed in is still on the classroom server: restore your last backup and pair this
      browser again, and their answers come back.
    </EmptyState>
  );
}
