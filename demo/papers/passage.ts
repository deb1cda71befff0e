import type { Question } from '@/core/kinds';
import { seedNumber } from '@/core/shuffled';
import { bay } from '../pictures';

const common = { tags: [] as string[], commentRight: '', commentWrong: '', note: '' };

/** An id drawn from the words: ids that count up in the order of the key would tell it. */
const idOf = (id: string, text: string) => `${id}${(seedNumber(`${id} ${text}`) >>> 0).toString(36)}`;
const rows = (id: string, texts: readonly string[]) => texts.map((text) => ({ id: idOf(id, text), text }));
/** The key of items and targets, as pairs of their words. */
const pairs = (items: string, targets: string, words: readonly (readonly [string, string])[]) =>
  Object.fromEntries(words.map(([item, target]) => [idOf(items, item), idOf(targets, target)]));

/** Passage planning: ready to be given out, with the kinds that the other papers do not use. */
export const passage: { title: string; instructions: string; questions: Question[] } = {
  title: 'Quiz 4: planning a passage',
  instructions: 'Show the unit where you are asked for it. A calculator is allowed.',
  questions: [
    {
      ...common,
      id: 'p1',
      kind: 'trueFalse',
      stem: 'One minute of latitude is one nautical mile, near enough for a chart.',
      points: 1,
      tags: ['chart'],
      key: true,
      commentTrue: '',
      commentFalse: 'Distances are measured on the latitude scale at the side of the chart.',
    },
    {
      ...common,
      id: 'p2',
      kind: 'number',
      stem: 'A boat makes 6 knots through the water for 2 h 30 min in slack water. How far does she go?',
      points: 2,
      tags: ['speed, time, distance'],
      accepted: [
        { id: 'p2a', form: 'percent', value: 15, tolerance: 1, upTo: null, share: 1, comment: '' },
        {
          id: 'p2b',
          form: 'percent',
          value: 13.8,
          tolerance: 1,
          upTo: null,
          share: 0.5,
          comment: '2 h 30 min is 2.5 hours, not 2.3.',
        },
      ],
      unitAsked: 'required',
      units: [
        { id: 'p2u', names: 'nm, M, NM, nautical miles, sea miles, miles', factor: 1 },
        { id: 'p2v', names: 'km, kilometres', factor: 1000 / 1852 },
      ],
      figures: null,
      note: 'Half the points for 2.3 h: the commonest slip.',
    },
    {
      ...common,
      id: 'p3',
      kind: 'number',
      stem: 'Compass course 215°, deviation 3° E, variation 5° W. What is the true course, in degrees?',
      points: 2,
      tags: ['compass'],
      accepted: [
        { id: 'p3a', form: 'exact', value: 213, tolerance: 0, upTo: null, share: 1, comment: '' },
        {
          id: 'p3b',
          form: 'exact',
          value: 217,
          tolerance: 0,
          upTo: null,
          share: 0.25,
          comment: 'East is added and west taken off on the way from compass to true.',
        },
      ],
      unitAsked: 'optional',
      units: [{ id: 'p3u', names: '°, degrees, deg, ° T, T', factor: 1 }],
      figures: null,
    },
    {
      ...common,
      id: 'p4',
      kind: 'gaps',
      stem: 'Fill in the rules of thumb.',
      points: 3,
      tags: ['tides'],
      text: 'At [1] tides the range is largest; they come about [2] days after new and full moon. The stream runs hardest in the [3] hours of the rise or fall.',
      gaps: [
        {
          id: 'p4a',
          number: 1,
          filledBy: 'picking',
          accepted: [],
          options: [
            { id: 'p4a1', text: 'neap', comment: 'Neaps have the smallest range.' },
            { id: 'p4a2', text: 'spring', comment: '' },
            { id: 'p4a3', text: 'slack', comment: '' },
          ],
          key: 'p4a2',
        },
        {
          id: 'p4b',
          number: 2,
          filledBy: 'typing',
          accepted: [
            { id: 'p4b1', text: '2', share: 1, comment: '' },
            { id: 'p4b2', text: 'two', share: 1, comment: '' },
            { id: 'p4b3', text: 'one or two', share: 1, comment: '' },
            { id: 'p4b4', text: '1', share: 0.5, comment: 'A little later: about two.' },
          ],
          options: [],
          key: null,
        },
        {
          id: 'p4c',
          number: 3,
          filledBy: 'typing',
          accepted: [
            { id: 'p4c1', text: 'third and fourth', share: 1, comment: '' },
            { id: 'p4c2', text: 'middle', share: 1, comment: '' },
            { id: 'p4c3', text: '3rd and 4th', share: 1, comment: '' },
          ],
          options: [],
          key: null,
        },
      ],
      forgive: { case: true, spaces: true, accents: true, punctuation: true },
    },
    {
      ...common,
      id: 'p5',
      kind: 'matching',
      stem: 'Which publication tells you what?',
      points: 2,
      tags: ['publications'],
      items: rows('p5i', [
        'Rate of the stream at HW + 2 h',
        'Time of high water today',
        'Meaning of a symbol on the chart',
        'Corrections to the chart since it was printed',
      ]),
      targets: rows('p5t', [
        'Tidal stream atlas',
        'Tide tables',
        'Key to chart symbols and abbreviations',
        'Notices to mariners',
        'List of radio signals',
      ]),
      key: pairs('p5i', 'p5t', [
        ['Rate of the stream at HW + 2 h', 'Tidal stream atlas'],
        ['Time of high water today', 'Tide tables'],
        ['Meaning of a symbol on the chart', 'Key to chart symbols and abbreviations'],
        ['Corrections to the chart since it was printed', 'Notices to mariners'],
      ]),
      wrongTakesOff: false,
    },
    {
      ...common,
      id: 'p6',
      kind: 'ordering',
      stem: 'Put the steps of finding a course to steer across a stream in order.',
      points: 3,
      tags: ['course to steer'],
      items: rows('p6i', [
        'Draw the ground track from start to destination',
        'From the start, lay off the stream for one hour',
        'From its end, swing the distance run in one hour onto the track',
        'Measure the direction of that line: the true course to steer',
        'Apply variation and deviation: the compass course',
      ]),
      rule: 'pairs',
    },
    {
      ...common,
      id: 'p7',
      kind: 'categories',
      stem: 'Before you sail, or while you are under way?',
      points: 2,
      tags: ['passage plan'],
      items: rows('p7i', [
        'Leave the plan with someone ashore',
        'Fix the position each hour',
        'Check the height of tide at the bar',
        'Keep the log',
        'Pick harbours of refuge',
        'Watch the cross-track error',
      ]),
      targets: rows('p7t', ['Before', 'Under way']),
      key: pairs('p7i', 'p7t', [
        ['Leave the plan with someone ashore', 'Before'],
        ['Fix the position each hour', 'Under way'],
        ['Check the height of tide at the bar', 'Before'],
        ['Keep the log', 'Under way'],
        ['Pick harbours of refuge', 'Before'],
        ['Watch the cross-track error', 'Under way'],
      ]),
      wrongTakesOff: true,
    },
    {
      ...common,
      id: 'p8',
      kind: 'oneChoice',
      stem: 'The forecast for the headland is wind against stream, force 5. What do you do?',
      points: 1,
      tags: ['passage plan'],
      options: [
        {
          id: 'p8a',
          text: 'Go close under the cliffs',
          comment: 'The race is often worst there.',
          pinned: false,
        },
        { id: 'p8b', text: 'Round it at slack water', comment: '', pinned: false },
        { id: 'p8c', text: 'Go faster', comment: '', pinned: false },
        { id: 'p8d', text: 'None of these', comment: '', pinned: true },
      ],
      key: 'p8b',
      shuffle: true,
    },
    {
      ...common,
      id: 'p9',
      kind: 'working',
      stem: 'From A to B at 5 knots, in the stream of the arrow. Plot the course to steer, and work out how long it takes.',
      points: 4,
      tags: ['chart', 'speed, time, distance'],
      ways: ['words', 'maths', 'drawing', 'photo'],
      canvas: {
        asset: bay.id,
        alt: 'A chart of a bay: A in the south west, B 5 miles east and 2.6 miles north of it, an arrow for a stream of 1.8 knots towards 067°, a scale of 2 miles.',
        decoration: false,
        width: 720,
        height: 500,
      },
      modelAnswer:
        'Ground track 062°, 5.6 miles. Course to steer 061°, 6.8 knots over the ground, 50 minutes.',
      scheme: [
        { id: 'p9a', text: 'Ground track drawn and measured', points: 1 },
        { id: 'p9b', text: 'One hour of stream laid off from A', points: 1 },
        { id: 'p9c', text: 'Course to steer within 3°', points: 1 },
        { id: 'p9d', text: 'Time from the speed over the ground', points: 1 },
      ],
      hints: [
        { id: 'p9h', text: 'Begin with the line over the ground, from A to B.', cost: 0 },
        {
          id: 'p9i',
          text: 'Lay one hour of stream off from A, then 5 miles from its end to the track.',
          cost: 0.25,
        },
      ],
    },
    {
      ...common,
      id: 'p10',
      kind: 'file',
      stem: 'Hand in the passage plan you wrote for this trip.',
      points: 3,
      tags: ['passage plan'],
      sorts: ['picture', 'pdf', 'text', 'sheet'],
      most: 2,
      modelAnswer: '',
      scheme: [
        { id: 'p10a', text: 'Times of tide and stream', points: 1 },
        { id: 'p10b', text: 'Courses and distances', points: 1 },
        { id: 'p10c', text: 'A harbour of refuge', points: 1 },
      ],
    },
  ],
};
