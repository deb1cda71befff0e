import { ActionIcon, Button, TextInput } from '@mantine/core';
import { IconX } from '@/ui/icons';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import type { SittingTemplate } from '@/core/model/sitting';
import type { SittingSettings } from '@/core/sittings/settings';
import { desk } from '@/store/tables';
import { keepTemplate, removeTemplate } from '@/store/templates';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './run.module.css';

interface TemplatesProps {
  settings: SittingSettings;
  take: (settings: SittingSettings) => void;
}

/** Settings kept under a name, to be used again: all but the groups, times and the code of the day. */
export function Templates({ settings, take }: TemplatesProps) {
  const templates = useLiveQuery(() => desk.templates.toArray()) ?? [];
  const [name, setName] = useState('');
  const keep = async () => {
    const { timeLimitMs, attempts, counts, oneByOne, noBack, shuffle, after, practice } = settings;
    const kept = { name, timeLimitMs, attempts, counts, oneByOne, noBack, shuffle, after, practice };
    if (await act(keepTemplate(kept, isoNow()))) setName('');
  };
  return (
    <MarginBlock title="Saved settings">
      {templates.length === 0 && (
        <p className={styles.soft}>Save these settings under a name to use them again with one click.</p>
      )}
      <ul className={styles.templates}>
        {templates
          .sort((a, b) => a.name.localeCompare(b.name))
          .map((template) => (
            <li key={template.id}>
              <Button size="compact-md" onClick={() => take(withTemplate(settings, template))}>
                {template.name}
              </Button>
              <ActionIcon
                variant="subtle"
                color="gray"
                aria-label={`Delete ${template.name}`}
                onClick={() => void act(removeTemplate(template.id, isoNow()))}
              >
                <IconX size={16} />
              </ActionIcon>
            </li>
          ))}
      </ul>
      <form
        className={styles.row}
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <TextInput
          aria-label="Name for these settings"
          placeholder="Weekly quiz"
          size="sm"
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.currentTarget.value)}
        />
        <Button type="submit" size="sm" disabled={name.trim() === ''}>
          Save
        </Button>
      </form>
    </MarginBlock>
  );
}

/** The settings as a template has them; groups, times and access code stay. */
function withTemplate(settings: SittingSettings, template: SittingTemplate): SittingSettings {
  const { id: _, name: __, ...kept } = template;
  const { groupIds, opensAt, closesAt, accessCode, guests } = settings;
  return { groupIds, opensAt, closesAt, accessCode, guests, ...kept };
}
