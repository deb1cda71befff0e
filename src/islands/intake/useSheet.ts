import { useEffect, useState } from 'react';
import type { TableRow } from '@/core/formats/csv/table';
import { openSheet, type SheetIntake, type SheetSummary } from '@/workers/intake';
import type { SheetChoices } from '@/store/sheetAnswers';
import { act } from '@/desk/act';

/** A sheet in its worker: one look at a time, then one with the latest choices. */
interface Looking {
  intake: SheetIntake;
  busy: boolean;
  next: SheetChoices | null;
}

/**
 * A sheet in its worker, and what it would bring with these choices: looked at again whenever they change.
 *
 * @returns null as a look while the first is under way
 */
export function useSheet(
  rows: readonly TableRow[],
  choices: SheetChoices | null,
): { intake: SheetIntake | null; look: SheetSummary | null; busy: boolean } {
  const [looking, setLooking] = useState<Looking | null>(null);
  const [look, setLook] = useState<SheetSummary | null>(null);
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    const intake = openSheet(rows);
    setLooking({ intake, busy: false, next: null });
    return intake.end;
  }, [rows]);
  // What the sitting is called changes nothing of what is understood.
  const text = choices && JSON.stringify({ ...choices, into: { ...choices.into, title: '' } });
  useEffect(() => {
    if (!looking || !choices) return;
    looking.next = choices;
    if (looking.busy) return;
    looking.busy = true;
    setBusy(true);
    void (async () => {
      while (looking.next) {
        const now: SheetChoices = looking.next;
        looking.next = null;
        const seen = await act(looking.intake.look(now));
        if (seen) setLook(seen);
      }
      looking.busy = false;
      setBusy(false);
    })();
    // By what the choices say, not by which object says it.
  }, [looking, text]);
  return { intake: looking?.intake ?? null, look, busy };
}
