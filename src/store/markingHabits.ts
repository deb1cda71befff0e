import { z } from 'zod';
import { desk } from './tables';

const habitsKey = 'marking';

/** How the marker of this desk likes to mark. */
const MarkingHabits = z.object({
  /** Points go on to the next answers by themselves. */
  goesOn: z.boolean().catch(false),
  /** Short answers first, or in an order that is the same for all markers and says nothing. */
  order: z.enum(['short', 'shuffled']).catch('short'),
  /** In which order whole scripts are gone through. */
  scriptOrder: z.enum(['name', 'number', 'total', 'line']).catch('name'),
  /** Share of the points, for scripts near to it. */
  passLine: z.number().min(0).max(1).catch(0.6),
  /** Reminds of a pause after so many minutes of marking; null: never. */
  pauseAfter: z.number().min(5).max(240).nullable().catch(45),
});
export type MarkingHabits = z.infer<typeof MarkingHabits>;

/** How a desk begins. */
export const usualHabits: MarkingHabits = MarkingHabits.parse({});

export async function markingHabits(): Promise<MarkingHabits> {
  const row = await desk.settings.get(habitsKey);
  return MarkingHabits.catch(usualHabits).parse(row?.value ?? {});
}

export async function keepMarkingHabits(change: Partial<MarkingHabits>): Promise<void> {
  await desk.transaction('rw', desk.settings, async () => {
    await desk.settings.put({ key: habitsKey, value: { ...(await markingHabits()), ...change } });
  });
}
