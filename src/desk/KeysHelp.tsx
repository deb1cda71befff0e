import { version } from '@/core/basics/version';
import { Modal, Table, Text } from '@mantine/core';
import { KeyHint } from '../ui/KeyHint';

/** One shortcut: the keys, and what they do. */
export interface Shortcut {
  keys: string;
  does: string;
}

const everywhere: Shortcut[] = [
  { keys: 'Ctrl K', does: 'find a paper, sitting, group, student or action' },
  { keys: 'Ctrl Z', does: 'undo the last change' },
  { keys: 'Alt W', does: 'see what waits for a mark' },
  { keys: '?', does: 'show or hide this list' },
];

/** All shortcuts together: those of this page, then those that hold everywhere. */
export function KeysHelp({
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
      title="Keyboard shortcuts"
      size="md"
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      <ShortcutTable caption="On this page" shortcuts={here} />
      <ShortcutTable caption="Everywhere on the desk" shortcuts={everywhere} />
      <Text size="sm" c="dimmed">
        Gribbet {version}
      </Text>
    </Modal>
  );
}

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
