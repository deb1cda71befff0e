import { Button, Table, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { createGroup } from '@/store/people';
import { groupRows } from '@/store/queries';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import styles from './groups.module.css';

/** All groups, and the way to make one. */
export function GroupsPage() {
  return (
    <DeskReady>
      <Groups />
    </DeskReady>
  );
}

function Groups() {
  const groups = useLiveQuery(groupRows);
  if (!groups) return null;
  return (
    <TwoColumns
      margin={
        <>
          <NewGroup />
          <MarginBlock title="Other ways">
            <a href="/groups/register">Import from a school register</a>
            <a href="/groups/all">All students</a>
          </MarginBlock>
        </>
      }
      marginLabel="New group"
    >
      <h1 className={styles.heading}>Groups</h1>
      {groups.length === 0 ? (
        <EmptyState title="No groups yet">
          Name the first one in the margin; you add its students on the next page.
        </EmptyState>
      ) : (
        <Table highlightOnHover>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Group</Table.Th>
              <Table.Th ta="right">Students</Table.Th>
              <Table.Th ta="right">Sittings</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {groups.map(({ group, students, sittings }) => (
              <Table.Tr key={group.id}>
                <Table.Td>
                  <a href={`/groups/${group.id}`}>{group.name}</a>
                </Table.Td>
                <Table.Td ta="right">{students}</Table.Td>
                <Table.Td ta="right">{sittings}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      )}
    </TwoColumns>
  );
}

function NewGroup() {
  const [name, setName] = useState('');
  const make = async () => {
    const made = await act(createGroup(name, isoNow()));
    if (made) window.location.assign(`/groups/${made.result}`);
  };
  return (
    <MarginBlock title="New group">
      <form
        className={styles.inline}
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <TextInput
          aria-label="Group name"
          placeholder="Class, period or section"
          size="sm"
          required
          autoFocus={new URLSearchParams(window.location.search).has('new')}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" size="sm" variant="filled" disabled={name.trim() === ''}>
          Create group
        </Button>
      </form>
    </MarginBlock>
  );
}
