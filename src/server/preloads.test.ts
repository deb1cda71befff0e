import { expect, it } from 'vitest';
import { withPreloads } from './preloads';

const page = (islands: string) =>
  `<html><head><title>T</title><link rel="stylesheet" href="/a.css"></head><body>${islands}</body></html>`;
const island = (script: string) =>
  `<astro-island uid="1" component-url="/${script}.js" component-export="P" renderer-url="/client.js" props="{}"></astro-island>`;

it('names at the head what islands will import, each once, after the styles', () => {
  const imports = {
    '/one.js': ['/shared.js', '/own.js'],
    '/two.js': ['/shared.js'],
    '/client.js': ['/react.js'],
  };
  const named = withPreloads(page(island('one') + island('two')), imports);
  const [head = ''] = named.split('</head>');
  const preloads = [...head.matchAll(/<link rel="modulepreload" href="([^"]+)">/g)].map(([, href]) => href);
  expect(preloads).toEqual(['/one.js', '/shared.js', '/own.js', '/client.js', '/react.js', '/two.js']);
  expect(head.indexOf('stylesheet')).toBeLessThan(head.indexOf('modulepreload'));
});

it('names an island that the build told nothing of, and leaves a page without islands as it is', () => {
  expect(withPreloads(page(island('one')), {})).toContain('<link rel="modulepreload" href="/one.js">');
  expect(withPreloads(page('<p>words</p>'), { '/one.js': ['/own.js'] })).toBe(page('<p>words</p>'));
});

it('takes nothing in an address for a sign of its own', () => {
  expect(withPreloads(page(island("$&$'")), {})).toContain(`href="/$&$'.js">`);
});
