import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runDistance } from '../../../../tests/unit/samples';
import { number } from '.';
import { numberVerdict, unitNamed } from './acceptedNumbers';
import { asThousands, plainNumber } from './plainNumber';
import { numberFrom } from './numberFrom';
import type { AcceptedNumber, NumberQuestion } from './schema';

const distance = runDistance as NumberQuestion;
const accepted = (part: Partial<AcceptedNumber>): AcceptedNumber => ({
  id: 'a',
  form: 'exact',
  value: null,
  tolerance: 0,
  upTo: null,
  share: 1,
  comment: '',
  ...part,
});
const asking = (part: Partial<NumberQuestion>): NumberQuestion => ({
  ...distance,
  unitAsked: 'none',
  units: [],
  ...part,
});
const shareOf = (question: NumberQuestion, text: string) => number.score(question, { text }).share;

describe('reading a number', () => {
  // SI Brochure, 9th edition, section 5.4.4: the decimal marker is the point or the comma, and long numbers may be
  // divided in groups of three by a thin space. 43 279.168 29 is its own example.
  it.each([
    ['12.5', 12.5],
    ['12,5', 12.5],
    ['43\u2009279', 43279],
    ['43\u202f279.168', 43279.168],
    ['1 000 000', 1e6],
    ['1,234,567', 1234567],
    ['1.234.567,8', 1234567.8],
    ["12'000", 12000],
    ['.5', 0.5],
    ['0,5', 0.5],
    ['1,234', 1.234],
    ['7.', 7],
  ])('%s is %d', (text, value) => expect(numberFrom(text)?.value).toBe(value));

  // Unicode 15: hyphen-minus, hyphen, non-breaking hyphen, figure dash, en dash, em dash, minus sign, small and full-width hyphen-minus.
  it.each(['-', '\u2010', '\u2011', '\u2012', '\u2013', '\u2014', '\u2212', '\ufe63', '\uff0d'])(
    'the sign %s is a minus',
    (sign) => expect(numberFrom(`${sign}4`)?.value).toBe(-4),
  );

  it.each([
    ['3/4', 0.75],
    ['-1 1/2', -1.5],
    ['½', 0.5],
    ['2½', 2.5],
    ['1.2e3', 1200],
    ['1,2·10³', 1200],
    ['1.2 × 10^-3', 0.0012],
    ['6.02x10^23', 6.02e23],
    ['10^3', 1000],
    ['10⁻²', 0.01],
    ['+5', 5],
  ])('%s is %d', (text, value) => expect(numberFrom(text)?.value).toBeCloseTo(value, 15));

  it.each(['', 'abc', '3/0', '1.2.3', '1,23,4', '5 6', '12:30', '--3', '10^'])('%s is no number', (text) =>
    expect(numberFrom(text)).toBeNull(),
  );

  it('what stands behind the number is its unit', () => {
    expect(numberFrom('12.5 nautical miles')?.unit).toBe('nautical miles');
    expect(numberFrom('5kn')?.unit).toBe('kn');
    expect(numberFrom('1.5e3 m')).toMatchObject({ value: 1500, unit: 'm' });
    expect(numberFrom('045°')).toMatchObject({ value: 45, unit: '°' });
    expect(numberFrom('5 eggs')).toMatchObject({ value: 5, unit: 'eggs' });
  });

  // NIST SP 811 (2008), B.7.1 and common practice: zeros at the end of a whole number may or may not be significant.
  it.each([
    ['0.00120', 3, 3, 5],
    ['1200', 2, 4, 0],
    ['12.0', 3, 3, 1],
    ['1.20e3', 3, 3, 2],
    ['007', 1, 1, 0],
    ['0', 1, 1, 0],
  ])('%s has %d to %d significant figures and %d decimals', (text, least, most, decimals) =>
    expect(numberFrom(text)).toMatchObject({ significant: { least, most }, decimals }),
  );

  it('reads back whatever JavaScript writes', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (value) => {
        expect(numberFrom(String(value))?.value).toBe(value + 0);
      }),
    );
  });

  it('says the same of a decimal comma as of a decimal point', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9999 }), fc.integer({ min: 0, max: 99 }), (whole, part) => {
        expect(numberFrom(`${whole},${part}`)).toEqual(numberFrom(`${whole}.${part}`));
      }),
    );
  });
});

describe('what is accepted', () => {
  it('tiers: within 2 % all, within 5 % half, beyond nothing; the ends count as within', () => {
    expect(
      ['18', '18.36', '17.64', '18.5', '18.9', '18.91', '17'].map((text) => shareOf(distance, text)),
    ).toEqual([1, 1, 1, 0.5, 0.5, 0, 0]);
  });

  it.each([
    [accepted({ value: 7 }), '7.0', 1],
    [accepted({ value: 7 }), '7.01', 0],
    [accepted({ form: 'plusMinus', value: 0.3, tolerance: 0.1 }), '0.4', 1],
    [accepted({ form: 'plusMinus', value: 0.3, tolerance: 0.1 }), '0.2', 1],
    [accepted({ form: 'range', value: 6.9, upTo: 7.1 }), '7,1', 1],
    [accepted({ form: 'range', value: 7.1, upTo: 6.9 }), '7', 1],
    [accepted({ form: 'percent', value: -10, tolerance: 10 }), '-9', 1],
    [accepted({ form: 'percent', value: -10, tolerance: 10 }), '9', 0],
  ])('%o and the answer %s give %d', (key, text, share) =>
    expect(shareOf(asking({ accepted: [key] }), text)).toBe(share),
  );

  it('of several that take it the most generous counts', () => {
    const question = asking({
      accepted: [
        accepted({ id: 'half', form: 'range', value: 0, upTo: 10, share: 0.5 }),
        accepted({ id: 'full', value: 5 }),
      ],
    });
    expect(numberVerdict(question, '5').met?.id).toBe('full');
    expect(numberVerdict(question, '6').met?.id).toBe('half');
  });

  it('two wordings of one number are the same answer, also without a key', () => {
    const same = (a: string, b: string) =>
      number.sameAs(distance, { text: a }) === number.sameAs(distance, { text: b });
    expect(same('12.50 nm', '12,5 NM')).toBe(true);
    expect(same('12.5 nm', '12.5 km')).toBe(false);
    expect(same('about ten', 'About  ten')).toBe(true);
  });
});

describe('units', () => {
  const units = [
    { id: 'm', names: 'm, metre, metres', factor: 1 },
    // NIST SP 811 (2008), Appendix B.8: foot 0.3048 m; nautical mile 1852 m; fathom 1.828 804 m.
    { id: 'ft', names: 'ft, foot, feet', factor: 0.3048 },
    { id: 'nm', names: 'nmi, nautical mile, nautical miles', factor: 1852 },
    { id: 'fm', names: 'fathom, fathoms', factor: 1.828804 },
  ];
  const metres = asking({ unitAsked: 'optional', units, accepted: [accepted({ value: 1852 })] });

  it.each(['1852 m', '1852', '1 nautical mile', '1nmi', '6076.11548556 ft', '1 852 metres'])(
    '%s is 1852 m',
    (text) => expect(shareOf(metres, text)).toBe(1),
  );

  it('a fathom is six feet', () => {
    const fathoms = asking({
      unitAsked: 'required',
      units,
      accepted: [accepted({ form: 'percent', value: 10 * 1.8288, tolerance: 0.001 })],
    });
    expect(shareOf(fathoms, '10 fathoms')).toBe(1);
    expect(shareOf(fathoms, '60 ft')).toBe(1);
  });

  it('a wrong unit, a missing one where it is required, and any where none is asked are not right', () => {
    expect(shareOf(metres, '1852 km')).toBe(0);
    expect(shareOf({ ...metres, unitAsked: 'required' }, '1852')).toBe(0);
    expect(shareOf({ ...metres, unitAsked: 'none' }, '1852 m')).toBe(0);
  });

  it('capitals matter only where two units differ by them alone', () => {
    const power = [
      { id: 'milli', names: 'mW', factor: 1e-3 },
      { id: 'mega', names: 'MW', factor: 1e6 },
      { id: 'knot', names: 'kn', factor: 1 },
    ];
    expect(unitNamed(power, 'MW')?.id).toBe('mega');
    expect(unitNamed(power, 'mW')?.id).toBe('milli');
    expect(unitNamed(power, 'mw')).toBeUndefined();
    expect(unitNamed(power, 'KN')?.id).toBe('knot');
  });
});

describe('figures', () => {
  const toThree = asking({
    accepted: [accepted({ form: 'percent', value: 1230, tolerance: 1 })],
    figures: { of: 'significant', count: 3, cost: 0.5 },
  });

  it('as many as asked give all, more or fewer cost their share', () => {
    expect(['1230', '1.23e3', '1230.0', '1.2e3'].map((text) => shareOf(toThree, text))).toEqual([
      1, 1, 0.5, 0,
    ]);
    expect(shareOf({ ...toThree, figures: { of: 'decimals', count: 1, cost: 1 } }, '1230.0')).toBe(1);
    expect(shareOf({ ...toThree, figures: { of: 'decimals', count: 1, cost: 1 } }, '1230')).toBe(0);
  });
});

describe('what is not ready', () => {
  const codes = (question: NumberQuestion) => number.findings(question).map((finding) => finding.code);

  it('no number yet, none for all the points, a tier that never counts, a unit without a name', () => {
    expect(codes(asking({ accepted: [accepted({})] }))).toEqual(['noKey']);
    expect(codes(asking({ accepted: [accepted({ value: 3, share: 0.5 })] }))).toEqual(['noFullAnswer']);
    expect(
      codes(
        asking({
          accepted: [
            accepted({ form: 'plusMinus', value: 3, tolerance: 1 }),
            accepted({ id: 'b', value: 3, share: 0.5 }),
          ],
        }),
      ),
    ).toEqual(['hiddenTier']);
    expect(codes(asking({ accepted: [accepted({ value: 3 })], unitAsked: 'required' }))).toEqual(['noUnit']);
    expect(codes(distance)).toEqual([]);
  });
});

describe('a number as it was understood', () => {
  it('can be typed back as it is shown, and is read as the same without doubt', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.double({ noNaN: true, noDefaultInfinity: true }),
          fc.integer(),
          fc.integer({ min: -9_999_999, max: 9_999_999 }).map((whole) => whole / 1000),
        ),
        (value) => {
          const shown = plainNumber(value);
          expect(numberFrom(shown)?.value).toBe(value === 0 ? 0 : value);
          // Only where it has three decimals may its own point be in doubt.
          if (!/\.\d{3}$/.test(shown)) expect(asThousands(shown)).toBeNull();
        },
      ),
    );
  });

  it.each([
    ['12,500 ml', 12500],
    ['-1.234', -1234],
    ['١٢٬٥٠٠', 12500],
    ['0,500', null],
    ['12,50', null],
    ['1,234.5', null],
    ['12,500,000', null],
    ['1234,500', null],
  ])('“%s” may be meant as %s', (text, thousands) =>
    expect(asThousands(text)?.value ?? null).toBe(thousands),
  );
});
