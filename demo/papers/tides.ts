import { one, open, several, short, photo, typedGap, type DemoQuestion } from '../DemoQuestion';

const ambiguousGap: DemoQuestion = {
  question: {
    ...{ id: 't14', kind: 'gaps', stem: 'Fill in the words.', points: 2, tags: ['tides'] },
    ...{ commentRight: '', commentWrong: '', note: '' },
    text: 'Low water is at 06:10, high water at 12:20. From 06:10 on it is the [1] tide, after 12:20 the [2] tide.',
    gaps: [typedGap('t14a', 1, ['flood', 'rising']), typedGap('t14b', 2, ['ebb'])],
    forgive: { case: true, spaces: true, accents: true },
  },
  difficulty: -0.3,
  apart: 1400,
  instead: { response: { gaps: { t14a: 'rising', t14b: 'falling' } }, share: 0.38 },
};

/** The mid-course exam: tides, speed, time and distance, compass. All handed in, three open questions waiting. */
export const tides = {
  title: 'Mid-course exam: tides, passage and compass',
  instructions:
    'Answer all questions. Show the steps of a calculation where there is room for them.\nSpeeds are in knots, distances in nautical miles, bearings in degrees.',
  questions: [
    one(
      't1',
      'By the rule of twelfths, how much of the range does the tide rise in the third hour after low water?',
      [
        ['1/12', 2],
        ['2/12', 4, 'That is the second hour, and the fifth.'],
        ['3/12', 0],
        ['4/12', 2, 'The twelfths go 1, 2, 3, 3, 2, 1.'],
      ],
      { tags: ['tides'], difficulty: -1, commentWrong: 'Say the row aloud: 1, 2, 3, 3, 2, 1.' },
    ),
    short(
      't2',
      'Low water is 1.0 m and the range 4.8 m. By the rule of twelfths, what is the height of tide two hours after low water?',
      [
        ['2.2 m', 1],
        ['2.2', 1],
        ['2,2 m', 1],
        ['2,2', 1],
        ['2.20 m', 1],
        ['2.20', 1],
        ['2.2 metres', 1],
        ['2.2 meters', 1],
        ['1.2 m', 0.5, 'That is the rise in two hours. The height is low water and the rise together.'],
        ['1.2', 0.5, 'That is the rise in two hours. The height is low water and the rise together.'],
      ],
      ['1.8 m', '1.4', '2.6 m', '1.6 m', '3.4', '1.8', '0.8 m', '2.4 m', '2.02 m'],
      { points: 2, tags: ['tides', 'calculation'], difficulty: 0.2 },
    ),
    one(
      't3',
      'A yacht makes 6 knots over the ground. How far does she go in 40 minutes?',
      [
        ['2.4 M', 3],
        ['4 M', 0],
        ['6.7 M', 1],
        ['9 M', 2, 'Minutes are divided by 60, not the other way about.'],
      ],
      { tags: ['speed, time, distance'], difficulty: -0.8 },
    ),
    short(
      't4',
      'How long does a passage of 9 M take at 4.5 knots?',
      [
        ['2 hours', 1],
        ['2 h', 1],
        ['2', 1],
        ['120 minutes', 1],
        ['120 min', 1],
        ['2 hrs', 1],
        ['2 hr', 1],
        ['2 hours 0 minutes', 1],
        ['two hours', 1],
      ],
      ['40 h', '0.5', '40.5', '1.5 h', '30 minutes', '2.5 hours', '1 h 30'],
      { tags: ['speed, time, distance'], difficulty: -1 },
    ),
    one(
      't5',
      'The true bearing of a lighthouse is 095°, the variation 4° W. What is its magnetic bearing?',
      [
        ['091°', 4, 'From true to magnetic, west is added.'],
        ['095°', 1],
        ['099°', 0],
        ['275°', 1],
      ],
      { tags: ['compass'], difficulty: 0.3 },
    ),
    short(
      't6',
      'Compass course 120°, deviation 3° E, variation 5° W. What is the true course?',
      [
        ['118°', 1],
        ['118', 1],
        ['118 T', 1],
        ['118° T', 1],
        ['118 true', 1],
        ['118 degrees', 1],
        ['118 deg', 1],
        ['118 degrees true', 1],
      ],
      ['122', '122°', '128', '112°', '128°', '123', '115°', '117', '112'],
      { points: 2, tags: ['compass', 'calculation'], difficulty: 0.6 },
    ),
    several(
      't7',
      'What is true of deviation?',
      [
        ['It changes with the heading of the boat', 0],
        ['It is caused by iron and electric currents on board', 0],
        ['It is printed in the compass rose of the chart', 3, 'That is variation.'],
        ['It varies with place and, slowly, with time', 2, 'That is variation.'],
        ['It is read from the deviation card of the boat', 0],
      ],
      { tags: ['compass'], difficulty: 0 },
    ),
    one(
      't8',
      'When do spring tides occur?',
      [
        ['In March, April and May', 2, 'The name has nothing to do with the season.'],
        ['Shortly after new moon and full moon', 0],
        ['Shortly after the half moons', 2, 'Those are neaps.'],
        ['When the moon is farthest from the earth', 1],
      ],
      { tags: ['tides'], difficulty: -1.2 },
    ),
    several(
      't9',
      'Compared with neaps, at springs',
      [
        ['the range is larger', 0],
        ['tidal streams run faster', 0],
        ['low water is lower', 0],
        ['high water is lower', 2],
        ['slack water lasts longer', 2],
      ],
      { tags: ['tides'], difficulty: 0.1 },
    ),
    open(
      't10',
      'Explain the difference between variation and deviation, and say where you find each.',
      'Variation is the angle between true and magnetic north. It depends on the place and changes slowly with the years; it is printed in the compass rose of the chart. Deviation is the error that the boat’s own iron and electric currents give the compass. It changes with the heading and is read from the deviation card.',
      [
        ['a', 'variation: angle between true and magnetic north', 1],
        ['b', 'variation from the chart (compass rose)', 0.5],
        ['c', 'deviation: caused by the boat itself', 1],
        ['d', 'deviation changes with the heading', 0.5],
        ['e', 'deviation from the deviation card', 1],
      ],
      {
        sayings: [
          {
            line: 'a',
            likely: 0.75,
            wordings: [
              'Variation is the angle between true north and magnetic north.',
              'variation is the difference between true and magnetic north',
              'Variation: true north and magnetic north are not in the same place, the angle between is the variation.',
              'Variaton is how far magnetic north is from true north',
              'The earths magnetic pole is not at the north pole and this angle is variation.',
            ],
          },
          {
            line: 'b',
            likely: 0.55,
            wordings: [
              'You find it in the compass rose on the chart.',
              'it is on the chart',
              'It is printed on the chart with the year and how it changes.',
              'look at the nearest compas rose',
            ],
          },
          {
            line: 'c',
            likely: 0.65,
            wordings: [
              'Deviation comes from iron and electronics on board.',
              'deviation is caused by metal in the boat near the compass',
              'Deviation is the error of the ships own magnetism.',
              'Deviation is because of the boat itself (engine, phones, speakers).',
            ],
          },
          {
            line: 'd',
            likely: 0.35,
            wordings: [
              'It changes with the heading.',
              'different for every course you steer',
              'It depends on the course of the boat.',
            ],
          },
          {
            line: 'e',
            likely: 0.5,
            wordings: [
              'It is on the deviation card.',
              'found on deviation table of the boat',
              'You read it from the deviation card after swinging the compass.',
            ],
          },
          {
            line: null,
            likely: 0.12,
            wordings: [
              'Both are errors of the compass.',
              'Deviation is on the chart and variation on the boat.',
              'East is plus and west is minus.',
            ],
          },
        ],
        stock: [
          ['Variation is from the earth, deviation is from the boat.', 'c'],
          ['variation = earth, deviation = boat', 'c'],
          ['Variation is on the chart, deviation is on the card.', 'b', 'e'],
          ['They are the same but one is true and one is magnetic.'],
        ],
      },
      { points: 4, tags: ['compass'], difficulty: 0.1 },
    ),
    open(
      't11',
      'You anchor at high water in a bay where the range is 4 m. The depth is 6 m, your draught 1.8 m. Explain whether you can stay until low water.',
      'At low water the depth is 6 m − 4 m = 2 m. With a draught of 1.8 m that leaves 0.2 m under the keel: too little for swell and for the error of a tidal prediction, so move to deeper water.',
      [
        ['a', 'depth at low water 2 m', 1],
        ['b', 'clearance 0.2 m', 1],
        ['c', 'too little: swell, pressure, uncertainty; move or stay in calm only', 1],
      ],
      {
        sayings: [
          {
            line: 'a',
            likely: 0.8,
            wordings: [
              'At low water there are 6 - 4 = 2 m.',
              'At low water the depth is 2 m.',
              '6m minus 4m range is 2m left',
              'depth goes down to 2 metres',
              'LW depth = 2.0 m',
            ],
          },
          {
            line: 'b',
            likely: 0.6,
            wordings: [
              'That leaves 0.2 m under the keel.',
              'so 20 cm clearance',
              '2 - 1.8 = 0.2',
              'Only 20 cm below the keel remain.',
              'clearence is 0,2 m',
            ],
          },
          {
            line: 'c',
            likely: 0.45,
            wordings: [
              'This is not enough because of waves, so I would move.',
              'too little, swell could make her touch',
              'I would go to deeper water, the forecast can be wrong.',
              'With any swell the keel hits the ground so no.',
              'Not safe: high pressure can make the tide lower.',
            ],
          },
          {
            line: null,
            likely: 0.15,
            wordings: [
              'Yes because 2 m is more than 1.8 m.',
              'Yes you can stay.',
              '6 + 4 = 10 m so it is deep enough.',
              'You need a longer anchor chain.',
            ],
          },
        ],
        stock: [['Yes, 2 m is more than 1.8 m.', 'a'], ['No, too shallow.'], ['no'], ['Yes you stay afloat']],
      },
      { tags: ['tides', 'anchoring'], difficulty: 0 },
    ),
    open(
      't12',
      'A tidal stream sets east at 2 knots. You want to go due north at 5 knots through the water. Explain how you find the course to steer.',
      'Draw the track north from the start. From the start lay off one hour of stream: 2 M east. From its end swing 5 M (one hour at boat speed) to cut the track. The line from the end of the stream to the cut is the course to steer, about 24° west of north (sin⁻¹ 2/5), 336° true.',
      [
        ['a', 'lays off one hour of stream first', 1],
        ['b', 'boat speed from the end of the stream to the track', 1],
        ['c', 'steers west of north, into the stream', 1],
      ],
      {
        sayings: [
          {
            line: 'a',
            likely: 0.55,
            wordings: [
              'From the start I draw the stream for one hour, 2 M to the east.',
              'draw 2 miles east for the current',
              'First lay off the tidal stream 090° 2M',
              'Plot one hour of tide from the starting point.',
            ],
          },
          {
            line: 'b',
            likely: 0.45,
            wordings: [
              'Then with the dividers set to 5 M from the end of it to where it cuts the track.',
              'from there 5 miles arc until it meets the line north',
              'From the end of the tide vector measure 5 M to the ground track, this is the heading.',
            ],
          },
          {
            line: 'c',
            likely: 0.7,
            wordings: [
              'You have to steer to the west of north.',
              'steer into the current so to the left',
              'The course is about 336°.',
              'point the bow up stream, more west',
              'The boat is pushed east so you head north west a bit.',
            ],
          },
          {
            line: null,
            likely: 0.15,
            wordings: [
              'Steer 000° and correct later with the GPS.',
              'You must steer east to go with the stream.',
              '5 - 2 = 3 knots so it takes longer.',
            ],
          },
        ],
        stock: [
          ['Steer west of north.', 'c'],
          ['Steer against the stream.', 'c'],
          ['With the GPS.'],
          ['You draw a triangle.'],
        ],
      },
      { tags: ['tidal streams', 'chart work'], difficulty: 0.7 },
    ),
    photo(
      't13',
      'Sketch the triangle of question 12 on paper and add a photo of it.',
      'The track goes up from the start. The stream, 2 M east, is laid off from the start. The 5 M of the boat go from the end of the stream back to the track.',
      [
        ['a', 'stream laid off from the start, to the east', 1],
        ['b', 'boat’s hour from the end of the stream to the track', 1],
      ],
      {
        points: 2,
        tags: ['tidal streams', 'chart work'],
        note: 'Scale does not matter; the order of the lines does.',
        difficulty: 0.4,
      },
    ),
    // The second gap is ambiguous: of a tide, “falling” is as good as “ebb”. Analyse finds it.
    ambiguousGap,
  ],
};
