import { useEffect, useRef, useState } from 'react';
import type { TableRow } from '@/core/formats/csv/table';
import { openSheet, type SheetIntake, type SheetSummary } from '@/workers/intake';
import type { SheetChoices } from '@/store/sheetAnswers';
import { act } from '@/desk/act';

/**
 * A sheet in its worker, and what it would bring with these choices: looked at again whenever they change, the latest only.
 *
 * @returns null as a look while the first is under way
 */
export function useSheet(
  rows: readonly TableRow[],
  choices: SheetChoices | null,
): { intake: SheetIntake | null; look: SheetSummary | null; busy: boolean } {
  const [intake, setIntake] = useState<SheetIntake | null>(null);
  const [look, setLook] = useState<SheetSummary | null>(null);
  const [busy, setBusy] = useState(false);
  const running = useRef(false);
  const next = useRef<SheetChoices | null>(null);
  useEffect(() => {
    const opened = openSheet(rows);
    setIntake(opened);
    return opened.end;
  }, [rows]);
  const text = choices && JSON.stringify(choices);
  useEffect(() => {
    if (!intake || !choices) return;
    next.current = choices;
    if (running.current) return;
    running.current = true;
    setBusy(true);
    void (async () => {
      while (next.current) {
        const now: SheetChoices = next.current;
        next.current = null;
        const seen = await act(intake.look(now));
        if (seen) setLook(seen);
      }
      running.current = false;
      setBusy(false);
    })();
    // By what the choices say, not by which object says it.
  }, [intake, text]);
  return { intake, look, busy };
}
