import fc from 'fast-check';
import { expect, it } from 'vitest';
import { filledShell, shellFor, shellOf } from './shells';

const routes = [
  '/',
  '/groups',
  '/groups/[id]',
  '/groups/register',
  '/sittings/[id]/scripts/[student]',
  '/guide/mark',
];

it('a page is found by its route, with the ids of its address', () => {
  expect(shellFor('/', routes)).toEqual({ address: '/', ids: {} });
  expect(shellFor('/groups/', routes)).toEqual({ address: '/groups', ids: {} });
  expect(shellFor('/groups/x-1', routes)).toEqual({ address: '/groups/0id0', ids: { id: 'x-1' } });
  expect(shellFor('/sittings/tides/scripts/s_9', routes)).toEqual({
    address: '/sittings/0id0/scripts/0student0',
    ids: { id: 'tides', student: 's_9' },
  });
});

it('a name of its own goes before one that fits any, in whatever order they come', () => {
  for (const all of [routes, [...routes].reverse()])
    expect(shellFor('/groups/register', all)).toEqual({ address: '/groups/register', ids: {} });
});

it('what is no page of ours is none, and no id brings anything into the page but itself', () => {
  expect(shellFor('/groups/a/b', routes)).toBeNull();
  expect(shellFor('/elsewhere', routes)).toBeNull();
  const page = '<astro-island props="{&quot;groupId&quot;:[0,&quot;0id0&quot;]}"></astro-island>';
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (id) => {
      const shell = shellFor(`/groups/${id}`, ['/groups/[id]']);
      if (shell) expect(shell.ids.id).toMatch(/^[\w-]+$/);
      const html = shell ? filledShell(page, shell.ids) : page;
      expect(html.replace(`&quot;${shell?.ids.id}&quot;`, '&quot;0id0&quot;')).toBe(page);
    }),
  );
  expect(filledShell(page, { id: 'tides' })).toContain('[0,&quot;tides&quot;]');
});

it('the address that is kept is one that the server has a page for', () => {
  expect(shellOf('/sittings/[id]/attempts/[attempt]')).toBe('/sittings/0id0/attempts/0attempt0');
});
