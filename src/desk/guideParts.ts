/**
 * Which part of the guide is about which page: by the page's route, a page of the guide with or without one of its headings.
 * Pages that are not listed here have no part of their own: the guide opens at its beginning.
 */
export const guideParts: Record<string, string> = {
  '/': 'start',
  '/answers': 'run#answers-from-a-sheet',
  '/backup': 'files#backups',
  '/bank': 'write#the-bank',
  '/bank/[id]': 'write#the-bank',
  '/computers': 'devices#your-desk-on-two-computers',
  '/groups': 'students#groups',
  '/groups/register': 'students#adding-students',
  '/groups/[id]': 'students#adding-students',
  '/groups/[id]/slips': 'students#join-codes',
  '/kept': 'privacy#what-is-kept-where',
  '/mark-books': 'hand-back#mark-book',
  '/mark-books/[id]': 'hand-back#mark-book',
  '/outbox': 'hand-back#write-to-students',
  '/packages': 'files#papers',
  '/papers/[id]': 'write#questions',
  '/papers/[id]/give': 'run#give-out',
  '/papers/[id]/look': 'write#check-and-preview',
  '/papers/[id]/paste': 'write#paste-a-quiz',
  '/papers/[id]/print': 'write#print',
  '/papers/[id]/sheet': 'write#other-programs',
  '/requests': 'run#watch',
  '/share': 'mark#several-markers',
  '/sittings/[id]/afterwards': 'hand-back#answer-again-and-ask',
  '/sittings/[id]/analyse': 'analyse#the-map',
  '/sittings/[id]/attempts/[attempt]': 'run#the-timeline',
  '/sittings/[id]/by-hand': 'devices#files-instead-of-a-network',
  '/sittings/[id]/class': 'analyse#with-the-class',
  '/sittings/[id]/devices': 'devices#on-their-own-devices',
  '/sittings/[id]/export': 'hand-back#export',
  '/sittings/[id]/fairness': 'mark#is-it-fair',
  '/sittings/[id]/grades': 'hand-back#grade-lines',
  '/sittings/[id]/growth': 'analyse#growth',
  '/sittings/[id]/hand-back': 'hand-back#the-plan',
  '/sittings/[id]/mark': 'mark#by-keys',
  '/sittings/[id]/markers': 'mark#several-markers',
  '/sittings/[id]/message': 'hand-back#write-to-students',
  '/sittings/[id]/on-paper': 'paper#print',
  '/sittings/[id]/preview': 'hand-back#the-plan',
  '/sittings/[id]/repair': 'analyse#repair',
  '/sittings/[id]/report': 'analyse#report',
  '/sittings/[id]/run': 'run#watch',
  '/sittings/[id]/scripts/[student]': 'mark#one-script',
  '/students/[id]': 'analyse#growth',
  '/waiting': 'mark',
};

const routes = Object.entries(guideParts)
  // A name of its own before one that fits any.
  .sort(([a], [b]) => Number(a.includes('[')) - Number(b.includes('[')))
  .map(([route, part]) => ({ fits: new RegExp(`^${route.replace(/\[\w+\]/g, '[^/]+')}/?$`), part }));

/** The address of the part of the guide that is about a page of the desk. */
export function guidePartOf(path: string): string {
  return `/guide/${routes.find(({ fits }) => fits.test(path))?.part ?? 'start'}`;
}
