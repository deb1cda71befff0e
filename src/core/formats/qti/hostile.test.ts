import fc from 'fast-check';
import { strToU8, unzipSync as unzipped, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { counter, samples } from '../../../../tests/unit/samples';
import { isElement, type XmlNode } from '../../kinds/qti/element';
import { papersFromQti } from './readPackage';
import { Refused, type Refusal } from '../../basics/refused';
import { qtiPackage } from './writePackage';
import { xmlFrom, xmlText } from '../../kinds/qti/xml';
import { safePath } from '../zip';

const manifest = `<manifest><resources><resource identifier="i" type="imsqti_item_xmlv3p0" href="i.xml"/></resources></manifest>`;
const item = (body: string) =>
  `<qti-assessment-item identifier="i" title="t"><qti-response-declaration identifier="RESPONSE" cardinality="single" base-type="string"/><qti-item-body>${body}<qti-extended-text-interaction response-identifier="RESPONSE"/></qti-item-body></qti-assessment-item>`;

const zipOf = (files: Record<string, string>) =>
  zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));

async function refusal(bytes: Uint8Array): Promise<{ why: Refusal; place: string }> {
  try {
    await papersFromQti(bytes, 'file', counter('n'));
  } catch (error) {
    if (error instanceof Refused) return { why: error.why, place: error.place };
    throw error;
  }
  throw new Error('it was taken');
}

const refusedItem = (text: string) => refusal(zipOf({ 'imsmanifest.xml': manifest, 'i.xml': text }));

describe('a package that could do harm is refused whole, with the place', () => {
  it('the same package without harm is taken', async () => {
    const { papers } = await papersFromQti(
      zipOf({ 'imsmanifest.xml': manifest, 'i.xml': item('<p>Good</p>') }),
      'file',
      counter('n'),
    );
    expect(papers[0]?.questions).toHaveLength(1);
  });

  it('no zip, no manifest, a file that is not there, nothing in it', async () => {
    expect((await refusal(strToU8('%PDF-1.7'))).why).toBe('notZip');
    expect((await refusal(zipOf({ 'imsmanifest.xml': manifest }).slice(0, 60))).why).toBe('notZip');
    expect((await refusal(zipOf({ 'a.txt': 'a' }))).why).toBe('notPackage');
    expect(await refusal(zipOf({ 'imsmanifest.xml': manifest }))).toEqual({
      why: 'missingFile',
      place: 'i.xml',
    });
    expect((await refusal(zipOf({ 'imsmanifest.xml': '<manifest><resources/></manifest>' }))).why).toBe(
      'nothingIn',
    );
  });

  it.each(['../evil.xml', 'a/../../evil', '/etc/passwd', 'C:\\evil', 'a\\..\\evil', 'a/./b'])(
    'the path %s',
    async (path) => {
      expect(safePath(path)).toBe(false);
      expect(
        (await refusal(zipOf({ 'imsmanifest.xml': manifest, 'i.xml': item(''), [path]: 'x' }))).why,
      ).toBe('badPath');
    },
  );

  it('a zip bomb: small, and declared to be large', async () => {
    const bomb = zipSync({
      'imsmanifest.xml': strToU8(manifest),
      'zeros.bin': new Uint8Array(60 * 1024 * 1024),
    });
    expect(bomb.length).toBeLessThan(100_000);
    expect(await refusal(bomb)).toEqual({ why: 'tooLarge', place: 'zeros.bin' });
  });

  it('a zip bomb that lies about its size does not grow', async () => {
    const bytes = zipOf({ 'imsmanifest.xml': manifest, 'i.xml': item('x'.repeat(100_000)) });
    // The uncompressed size of the last entry in the central directory (APPNOTE 4.3.12, at offset 24), set to 10.
    const last = lastIndexOf(bytes, [0x50, 0x4b, 0x01, 0x02]);
    bytes.set([10, 0, 0, 0], last + 24);
    await expect(papersFromQti(bytes, 'file', counter('n'))).rejects.toThrow(Refused);
  });

  it('too many files', async () => {
    const files = Object.fromEntries(Array.from({ length: 10_001 }, (_, index) => [`f${index}`, '']));
    expect((await refusal(zipOf({ 'imsmanifest.xml': manifest, ...files }))).why).toBe('tooManyFiles');
  });

  // Well known forms of attack on XML parsers: external entities and entities that grow (OWASP, XML External Entity).
  it.each([
    '<!DOCTYPE x [<!ENTITY e SYSTEM "file:///etc/passwd">]><x>&e;</x>',
    '<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;&a;&a;">]><x>&b;</x>',
    '<! DOCTYPE x><x/>',
    '<!doctype html><html/>',
  ])('entities: %s', async (text) =>
    expect(await refusedItem(text)).toEqual({ why: 'entities', place: 'i.xml' }),
  );

  it.each([
    ['<script>alert(1)</script>'],
    ['<p onclick="alert(1)">x</p>'],
    ['<a href="javascript:alert(1)">x</a>'],
    ['<a href=" \tjava&#115;cript:alert(1)">x</a>'],
    ['<iframe src="https://example.org"/>'],
    ['<svg:script xmlns:svg="http://www.w3.org/2000/svg">x</svg:script>'],
  ])('script: %s', async (body) => expect((await refusedItem(item(body))).why).toBe('script'));

  it('XML that is damaged, or nested without end', async () => {
    expect(await refusedItem('<a><b></a>')).toEqual({ why: 'notXml', place: 'i.xml, line 1' });
    expect((await refusedItem('just words')).why).toBe('notXml');
    expect((await refusedItem(item('<span>'.repeat(5000) + '</span>'.repeat(5000)))).why).toBe('tooDeep');
    expect((await refusedItem(item('a'.repeat(5_000_001)))).why).toBe('tooLarge');
  });

  it('whatever is in the bytes, it is read or refused, and nothing else happens', async () => {
    const { bytes } = qtiPackage({ title: 'T', instructions: '', questions: Object.values(samples) }, []);
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(bytes.length - 1), fc.nat(255)), { maxLength: 20 }),
        async (changes) => {
          const damaged = Uint8Array.from(bytes);
          for (const [place, value] of changes) damaged[place] = value;
          try {
            await papersFromQti(damaged, 'file', counter('n'));
          } catch (error) {
            expect(error).toBeInstanceOf(Refused);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('what was kept beside an item', () => {
  const changed = async (change: (text: string) => string) => {
    const question = { ...samples.number };
    const { bytes } = qtiPackage({ title: 'T', instructions: '', questions: [question] }, []);
    const { papers, losses } = await papersFromQti(withItem(bytes, change), 'file', counter('n'));
    return { question: papers[0]?.questions[0], losses: losses.map(({ code }) => code) };
  };

  it('is left out and named when the item was changed elsewhere', async () => {
    const { question, losses } = await changed((text) =>
      text.replace(
        'data-gribbet="',
        'data-gribbet="{&quot;units&quot;:{&quot;is&quot;:[],&quot;read&quot;:[1]}}" data-other="',
      ),
    );
    expect(losses).toEqual(['changedElsewhere']);
    expect(question).toMatchObject({ kind: 'number', unitAsked: 'none' });
  });

  it('is no way in for what the item may not hold', async () => {
    const evil = JSON.stringify({
      id: { is: 'x', read: 'y' },
      __proto__x: { is: 1, read: null },
      kind: { is: 'evil', read: 'number' },
    });
    const { question, losses } = await changed((text) =>
      text.replace(/data-gribbet="[^"]*"/, `data-gribbet="${evil.replaceAll('"', '&quot;')}"`),
    );
    expect(losses).toEqual(['changedElsewhere']);
    expect(question?.kind).toBe('number');
    expect(
      (await changed((text) => text.replace(/data-gribbet="[^"]*"/, 'data-gribbet="{nonsense"'))).losses,
    ).toEqual(['changedElsewhere']);
  });
});

describe('XML out and in', () => {
  it('every tree of elements comes back as it was', () => {
    const text = fc
      .string({ unit: 'grapheme', minLength: 1 })
      .filter((each) => each.trim() !== '' && !/[\r\u0000-\u001f\ufffe\uffff]/.test(each)); // eslint-disable-line no-control-regex -- not part of XML
    const attrs = fc.dictionary(fc.constantFrom('identifier', 'matchMax', 'title'), text);
    const { tree } = fc.letrec<{ tree: XmlNode }>((tie) => ({
      tree: fc.record({
        name: fc.constantFrom('p', 'choiceInteraction', 'prompt', 'strong'),
        attrs,
        children: fc.oneof(fc.tuple(text), fc.array(tie('tree'), { maxLength: 3 })),
      }),
    }));
    fc.assert(
      fc.property(tree, (node) => {
        if (!isElement(node)) return;
        const read = xmlFrom(xmlText(node), 'x');
        expect(JSON.parse(JSON.stringify(read))).toEqual(JSON.parse(JSON.stringify(node)));
      }),
    );
  });
});

function lastIndexOf(bytes: Uint8Array, wanted: readonly number[]): number {
  for (let at = bytes.length - wanted.length; at >= 0; at--)
    if (wanted.every((byte, index) => bytes[at + index] === byte)) return at;
  return -1;
}

/** The package with its one item changed. */
function withItem(bytes: Uint8Array, change: (text: string) => string): Uint8Array {
  const files = unzipped(bytes);
  return zipSync(
    Object.fromEntries(
      Object.entries(files).map(([name, content]) => [
        name,
        name.startsWith('items/') ? strToU8(change(new TextDecoder().decode(content))) : content,
      ]),
    ),
  );
}
