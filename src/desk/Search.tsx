import { Spotlight, type SpotlightActionData } from '@mantine/spotlight';
import { useLiveQuery } from 'dexie-react-hooks';
import { memo, useState } from 'react';
import { byRegister, registerName } from '@/core/model/names';
import type { Group, Student } from '@/core/model/people';
import { desk } from '@/store/tables';

/** Something the teacher can do from anywhere. */
const actions: [string, string, string][] = [
  ['Open the desk', 'all papers and sittings', '/'],
  ['Open groups', 'students and join codes', '/groups'],
  ['Create a group', 'and add students', '/groups?new=1'],
  ['Write a new paper', '', '/?new=1'],
  ['Import papers', 'from a QTI package', '/packages'],
  ['Review requests', 'from students', '/requests'],
  ['See what waits for a mark', 'answers to mark, over all sittings', '/waiting'],
  ['Mark for a colleague', 'take a share of marking in', '/share'],
  ['Open the outbox', 'messages to students', '/outbox'],
  ['Show all students', 'in every group, archived too', '/groups/all'],
  ['Search the question bank', 'all questions of all papers', '/bank'],
  ['Back up or restore the desk', 'backup file', '/backup'],
  ['Take the desk over', 'from another computer; see which are paired', '/computers'],
  ['See what is kept where', 'privacy: how much, and until when', '/kept'],
  ['Try the student page', 'where students join', '/sit'],
  ['Read the guide', 'how everything works', '/guide/start'],
];

const go = (href: string) => () => window.location.assign(href);

/** Search over papers, sittings, groups, students and actions. */
export const Search = memo(function Search() {
  // Read only once it is asked for: no page waits for a list of all students.
  const [asked, setAsked] = useState(false);
  const found = useLiveQuery(() => (asked ? readAll() : []), [asked]) ?? [];
  return (
    <Spotlight
      actions={[
        {
          group: 'Do',
          actions: actions.map(([label, description, href]) => ({
            id: href,
            label,
            description,
            onClick: go(href),
          })),
        },
        ...found,
      ]}
      // The frame has its key: it asks for all of this.
      shortcut={null}
      onSpotlightOpen={() => setAsked(true)}
      limit={12}
      scrollable
      maxHeight={420}
      nothingFound="No matches"
      searchProps={{
        placeholder: 'Paper, sitting, group, student, action or a word of the guide',
        'aria-label': 'Search',
      }}
    />
  );
});

const entry = (id: string, label: string, description: string, href: string) => ({
  id,
  label,
  description,
  onClick: go(href),
});

async function readAll(): Promise<{ group: string; actions: SpotlightActionData[] }[]> {
  const [papers, sittings, groups, students, sections] = await Promise.all([
    desk.papers.toArray(),
    desk.sittings.toArray(),
    desk.groups.toArray(),
    desk.students.toArray(),
    import('./guideSections').then(({ guideSections }) => guideSections()),
  ]);
  const shares = new Set(sittings.filter(({ share }) => share).map(({ id }) => id));
  return [
    {
      group: 'Papers',
      actions: papers
        .filter(({ id }) => !shares.has(id))
        .map((paper) => entry(`p${paper.id}`, paper.title, 'paper', `/papers/${paper.id}`)),
    },
    {
      group: 'Sittings',
      actions: sittings.map((sitting) =>
        entry(
          `s${sitting.id}`,
          sitting.title,
          sitting.archivedAt === undefined ? 'sitting' : 'archived sitting',
          `/sittings/${sitting.id}/${sitting.share ? 'mark' : 'run'}`,
        ),
      ),
    },
    {
      group: 'Groups',
      actions: groups.map((group) => entry(`g${group.id}`, group.name, 'group', `/groups/${group.id}`)),
    },
    {
      group: 'Students',
      actions: studentEntries(
        students.filter(({ role, onlySittingId = '' }) => role !== 'tryOut' && !shares.has(onlySittingId)),
        groups,
      ),
    },
    {
      group: 'Guide',
      actions: sections.map(({ href, heading, page, words }) => ({
        ...entry(href, heading, heading === page ? 'guide' : `guide: ${page}`, href),
        keywords: words,
      })),
    },
  ];
}

/** Students by register, each with number and groups. */
function studentEntries(students: readonly Student[], groups: readonly Group[]): SpotlightActionData[] {
  const groupName = new Map(groups.map((group) => [group.id, group.name]));
  return [...students].sort(byRegister).map((student) => {
    const [first] = student.groupIds;
    const where = student.groupIds.flatMap((id) => groupName.get(id) ?? []).join(', ');
    const href = first ? `/groups/${first}?student=${student.id}` : '/groups';
    return entry(
      student.id,
      registerName(student),
      [student.number, where].filter(Boolean).join(' · '),
      href,
    );
  });
}
