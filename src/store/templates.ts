import { done } from '@/words/done';
import { SittingTemplate } from '@/core/model/sitting';
import { runCommand } from './command';
import { newId } from './ids';
import { desk } from './tables';

/** Keeps settings under a name; the same name again takes the place of what was there. */
export async function keepTemplate(settings: Omit<SittingTemplate, 'id'>, now: string) {
  const name = settings.name.trim();
  const before = (await desk.templates.toArray()).find((each) => each.name === name);
  const template = SittingTemplate.parse({ ...settings, name, id: before?.id ?? newId() });
  return runCommand({ command: 'keepTemplate', said: done.settingsSaved(name) }, now, (record) =>
    record.put('templates', template),
  );
}

export async function removeTemplate(id: string, now: string) {
  const template = await desk.templates.get(id);
  const said = done.settingsDeleted(template?.name ?? '');
  return runCommand({ command: 'removeTemplate', said }, now, (record) => record.remove('templates', [id]));
}
