import {
  ActionIcon,
  Button,
  MantineProvider,
  useComputedColorScheme,
  useMantineColorScheme,
} from '@mantine/core';
import { useDisclosure, useHotkeys } from '@mantine/hooks';
import { IconMoon, IconSun } from '@/ui/icons';
import { createContext, memo, useContext, type ReactNode } from 'react';
import { KeyHint } from '../ui/KeyHint';
import { cssVariables, theme } from '../ui/theme';
import { Wordmark } from '../ui/Wordmark';
import { textFields } from '@/ui/textFields';
import { Asking } from './Asking';
import { SaveStatus } from './SaveStatus';
import { ElsewhereBar } from './ElsewhereBar';
import { Help, type Shortcut } from './Help';
import { NewVersion } from './NewVersion';
import styles from './Shell.module.css';
import { undoLast } from './undoLast';
import { useDigits } from './useDigits';
import { usePlansKept } from './usePlansKept';
import { useKeptFirst } from './useKeptFirst';
import { useSearch } from './useSearch';

interface ShellProps {
  /** The way about a sitting, across the top. */
  strip?: ReactNode;
  shortcuts?: Shortcut[];
  children: ReactNode;
}

/** What stands in the frame. */
const InFrame = createContext<ShellProps>({ children: null });

/**
 * The frame of every page of the desk. What stands in it reaches it past the library's provider: each time that is drawn, every
 * component of the library on the page is drawn with it.
 */
export function Shell(props: ShellProps) {
  return <InFrame value={props}>{provided}</InFrame>;
}

/** Undo by key wherever no text is typed, also on a box that was just ticked: in a text it is the field’s own. */
function useUndoKey(): void {
  const undone = (event: KeyboardEvent) => {
    if (event.target instanceof Element && event.target.closest(textFields)) return;
    event.preventDefault();
    void undoLast();
  };
  useHotkeys([['mod+Z', undone, { preventDefault: false }]], [], true);
}

function Frame() {
  const { strip, shortcuts = noShortcuts, children } = useContext(InFrame);
  const [helpShown, help] = useDisclosure(false);
  const { Search, openSearch } = useSearch();
  useKeptFirst();
  useDigits();
  usePlansKept();
  useUndoKey();
  useHotkeys([
    ['shift+?', help.toggle, { usePhysicalKeys: false }],
    ['?', help.toggle],
    ['alt+W', () => window.location.assign('/waiting')],
  ]);
  return (
    <>
      <Bar openSearch={openSearch} openHelp={help.open} />
      {notices}
      {strip}
      <main className={styles.main}>{children}</main>
      {savedState}
      <Help opened={helpShown} onClose={help.close} here={shortcuts} />
      {Search && <Search />}
    </>
  );
}
const noShortcuts: Shortcut[] = [];

const provided = (
  <MantineProvider theme={theme} cssVariablesResolver={cssVariables} defaultColorScheme="auto">
    <Frame />
  </MantineProvider>
);

// Drawn where they change themselves, not with each change of a page.
const notices = (
  <>
    <NewVersion />
    <ElsewhereBar />
  </>
);
const savedState = <SaveStatus />;

const Bar = memo(function Bar({ openSearch, openHelp }: { openSearch: () => void; openHelp: () => void }) {
  return (
    <header className={styles.bar}>
      <Wordmark href="/" />
      <nav aria-label="Desk" className={styles.nav}>
        <a href="/">Desk</a>
        <a href="/groups">Groups</a>
        <a href="/bank">Bank</a>
        <a href="/mark-books">Mark books</a>
        <a href="/backup">Backup</a>
      </nav>
      <Asking />
      <Button size="compact-sm" onClick={openSearch} rightSection={<KeyHint keys="Ctrl K" />}>
        Search
      </Button>
      <Button size="compact-sm" onClick={openHelp} rightSection={<KeyHint keys="?" />}>
        Help
      </Button>
      <LightOrDark />
    </header>
  );
});

function LightOrDark() {
  const { setColorScheme } = useMantineColorScheme();
  const dark = useComputedColorScheme('light') === 'dark';
  return (
    <ActionIcon
      variant="default"
      size={26}
      aria-label={dark ? 'Light theme' : 'Dark theme'}
      onClick={() => setColorScheme(dark ? 'light' : 'dark')}
    >
      {dark ? <IconSun size={16} /> : <IconMoon size={16} />}
    </ActionIcon>
  );
}
