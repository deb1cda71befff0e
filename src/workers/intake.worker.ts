import { expose } from 'comlink';
import type { TableRow } from '@/core/formats/csv/table';
import { bringAnswers, type NewPeople } from '@/store/bringAnswers';
import { lookAtSheet, type SheetChoices, type SheetLook } from '@/store/sheetAnswers';
import { setTab, type Tab } from '@/store/command';

let rows: readonly TableRow[] = [];

/** So many of the planned rows, bad cells and keys are shown; of the rest there is the number. */
const mostShown = 200;

/** What a sheet would bring, small enough to be passed on. */
export interface SheetSummary extends Omit<SheetLook, 'planned' | 'bad'> {
  bad: SheetLook['bad'];
  badCount: number;
  /** How many rows become what. */
  counts: Record<SheetLook['planned'][number]['becomes'], number>;
  /** Of those that are kept: whose they are. */
  owners: Record<SheetLook['planned'][number]['owner']['is'], number>;
  /** Of those that are kept: how many are told by their name alone. */
  byName: number;
  /** Rows of students who sent several. */
  severalRows: number;
  planned: SheetLook['planned'];
}

/** Sheets of answers are understood and kept here, so that the page goes on and can stop it. */
const intakeWorker = {
  open: (given: readonly TableRow[]) => {
    rows = given;
  },
  look: async (choices: SheetChoices): Promise<SheetSummary> => {
    const { planned, bad, ...look } = await lookAtSheet(rows, choices);
    const counts = { new: 0, changed: 0, same: 0, older: 0, ambiguous: 0 };
    const owners = { known: 0, new: 0, ambiguous: 0, nameless: 0 };
    let byName = 0;
    for (const { becomes, owner } of planned) {
      counts[becomes]++;
      if (becomes !== 'new' && becomes !== 'changed') continue;
      owners[owner.is]++;
      if (owner.is === 'known' && owner.by === 'name') byName++;
    }
    return {
      ...look,
      counts,
      owners,
      byName,
      severalRows: planned.filter(({ number, becomes }) => number > 1 || becomes === 'older').length,
      bad: bad.slice(0, mostShown),
      badCount: bad.length,
      // What is new or changed first.
      planned: [...planned].sort((a, b) => shownFirst(a) - shownFirst(b)).slice(0, mostShown),
    };
  },
  bring: (
    choices: SheetChoices,
    people: NewPeople,
    groupIds: readonly string[],
    now: string,
    tab: { id: string; where: string } | null,
    progress: (done: number, of: number) => void,
  ) => {
    const of: Tab | null = tab && { id: tab.id, where: () => tab.where };
    setTab(of);
    return bringAnswers(rows, choices, people, groupIds, now, progress);
  },
};
export type IntakeWorker = typeof intakeWorker;

const order = ['ambiguous', 'changed', 'new', 'older', 'same'] as const;
const shownFirst = ({ becomes }: SheetLook['planned'][number]) => order.indexOf(becomes);

expose(intakeWorker);
