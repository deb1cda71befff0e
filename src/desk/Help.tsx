import { Modal, Table, Text } from '@mantine/core';
import { memo } from 'react';
import { version } from '@/core/basics/version';
import { guidePartOf } from './guideParts';
import { KeyHint } from '../ui/KeyHint';
import styles from './Shell.module.css';
import { WithoutNetwork } from './WithoutNetwork';

/** One shortcut: the keys, and what they do. */
export interface Shortcut {
  keys: string;
  does: string;
}

const everywhere: Shortcut[] = [
  { keys: 'Ctrl K', does: 'find a paper, sitting, group, student, action or part of the guide' },
  { keys: 'Ctrl Z', does: 'undo the last change' },
  { keys: 'Alt W', does: 'see what waits for a mark' },
  { keys: '?', does: 'show or hide this help' },
];

/** What the guide says of this page, and all shortcuts: those of this page, then those that hold everywhere. */
export const Help = memo(function Help({
  opened,
  onClose,
  here,
}: {
  opened: boolean;
  onClose: () => void;
  here: Shortcut[];
}) {
  return (
    <Modal
      opened={opened}
      onClose={onClose}
      title="Help"
      size="md"
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <p className={styles.guide}>
        <a href={guidePartOf(window.location.pathname)}>Read about this page in the guide</a>
        <a href="/guide/start">First steps</a>
      </p>
      <WithoutNetwork />
      <ShortcutTable caption="Keys on this page" shortcuts={here} />
      <ShortcutTable caption="Keys everywhere" shortcuts={everywhere} />
      <Text size="sm" c="dimmed">
        Gribbet {version}
      </Text>
    </Modal>
  );
});

function ShortcutTable({ caption, shortcuts }: { caption: string; shortcuts: Shortcut[] }) {
  if (shortcuts.length === 0) return null;
  return (
    <Table captionSide="top" verticalSpacing={4}>
      <Table.Caption ta="left">{caption}</Table.Caption>
      <Table.Tbody>
        {shortcuts.map(({ keys, does }) => (
          <Table.Tr key={keys}>
            <Table.Th scope="row" w="9rem" fw={400}>
              <KeyHint keys={keys} />
            </Table.Th>
            <Table.Td>{does}</Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  );
}
