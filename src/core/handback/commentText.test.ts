import { describe, expect, it } from 'vitest';
import { commentParts, commentText } from './commentText';

describe('a comment as a student reads it', () => {
  it('has the student’s own name and what was asked', () => {
    const fields = { firstName: 'Amara', question: '4' };
    expect(commentText('[First name], look at question [question] again.', fields)).toBe(
      'Amara, look at question 4 again.',
    );
    expect(commentText('[unknown] stays, and $& too', { firstName: '$&', question: '' })).toBe(
      '[unknown] stays, and $& too',
    );
  });

  it('has addresses that can be opened, and nothing else', () => {
    expect(commentParts('See https://tides.example/a(b). Then go on.')).toEqual([
      { text: 'See ', href: null },
      { text: 'https://tides.example/a(b', href: 'https://tides.example/a(b' },
      { text: '). Then go on.', href: null },
    ]);
    expect(
      commentParts('javascript:alert(1) http:// ftp://x.example').every(({ href }) => href === null),
    ).toBe(true);
  });
});
