import { readFileSync } from 'node:fs';
import { validate } from 'dockerfile-utils';
import { describe, expect, it } from 'vitest';

describe('the container file', () => {
  const text = readFileSync('Containerfile', 'utf8');

  it('is one, as its linter reads it', () => {
    expect(validate(text).map(({ message }) => message)).toEqual([]);
    expect(validate(`${text}\nRUNN true`)).toHaveLength(1);
  });

  it('copies nothing in that was made on this machine', () => {
    const left = readFileSync('.containerignore', 'utf8').trim().split('\n');
    const ours = readFileSync('.gitignore', 'utf8')
      .split('\n')
      .map((name) => name.replaceAll('/', ''))
      .filter((name) => ['node_modules', 'dist', '.stamps', 'exchange', 'test-results'].includes(name));
    expect(left).toEqual(expect.arrayContaining(ours));
  });
});
